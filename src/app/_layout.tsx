import { Slot, usePathname } from 'expo-router';
import { Provider } from 'react-redux';
import { Frame } from '../screens/frame/Frame';
import { Screens } from '../screens/Screens';
import { store } from '../state/session';
import { Later } from '../ui/Later';
import { Themed } from '../ui/Themed';
import '../web/theme.css';

const standIns = async () => (await import('../screens/later')).StandIns;

export default function Layout() {
  const path = usePathname();
  if (path.startsWith('/stand-ins/'))
    return (
      <Provider store={store}>
        <Themed theme="system">
          <Later of={standIns} given={{ path }} />
        </Themed>
        <Slot />
      </Provider>
    );
  return (
    <Provider store={store}>
      <Frame>
        <Screens />
        <Slot />
      </Frame>
    </Provider>
  );
}
