import { Slot } from 'expo-router';
import Head from 'expo-router/head';
import { Provider } from 'react-redux';
import { Frame } from '../screens/frame/Frame';
import { Screens } from '../screens/Screens';
import { store } from '../state/session';
import '../web/theme.css';
import { words } from '../words/frame';

export default function Layout() {
  return (
    <Provider store={store}>
      <Head>
        <title>{words.ruddik}</title>
      </Head>
      <Frame>
        <Screens />
        <Slot />
      </Frame>
    </Provider>
  );
}
