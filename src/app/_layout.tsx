import { ThemeProvider } from '@rneui/themed/dist/config';
import { Slot } from 'expo-router';
import Head from 'expo-router/head';
import { Provider } from 'react-redux';
import { SafeAreaProvider } from 'react-native-safe-area-context';
import { Frame } from '../screens/frame/Frame';
import { store } from '../state/session';
import { rneTheme } from '../ui/rneTheme';
import '../ui/theme.css';

export default function Layout() {
  return (
    <Provider store={store}>
      <ThemeProvider theme={rneTheme}>
        <SafeAreaProvider>
          <Head>
            <title>Ruddik</title>
          </Head>
          <Frame>
            <Slot />
          </Frame>
        </SafeAreaProvider>
      </ThemeProvider>
    </Provider>
  );
}
