import { Slot } from 'expo-router';
import Head from 'expo-router/head';
import { Provider } from 'react-redux';
import { Frame } from '../screens/frame/Frame';
import { store } from '../state/session';
import '../web/theme.css';

export default function Layout() {
  return (
    <Provider store={store}>
      <Head>
        <title>Ruddik</title>
      </Head>
      <Frame>
        <Slot />
      </Frame>
    </Provider>
  );
}
