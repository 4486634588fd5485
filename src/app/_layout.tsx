import { Slot } from 'expo-router';
import { Provider } from 'react-redux';
import { Frame } from '../screens/frame/Frame';
import { Screens } from '../screens/Screens';
import { store } from '../state/session';
import '../web/theme.css';

export default function Layout() {
  return (
    <Provider store={store}>
      <Frame>
        <Screens />
        <Slot />
      </Frame>
    </Provider>
  );
}
