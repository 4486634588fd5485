import { Slot } from 'expo-router';
import { Provider } from 'react-redux';
import { store } from '../keeping/session';
import '../web/theme.css';

export default function Layout() {
  return (
    <Provider store={store}>
      <Slot />
    </Provider>
  );
}
