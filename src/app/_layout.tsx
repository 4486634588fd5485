import { Slot } from 'expo-router';
import { Provider } from 'react-redux';
import { Frame } from '../screens/frame/Frame';
import { store } from '../state/session';
import '../ui/theme.css';

export default function Layout() {
  return (
    <Provider store={store}>
      <Frame>
        <Slot />
      </Frame>
    </Provider>
  );
}
