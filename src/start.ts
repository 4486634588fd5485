// It must come first.
import '@expo/metro-runtime';
import { App } from 'expo-router/build/qualified-entry';
import { renderRootComponent } from 'expo-router/build/renderRootComponent';
import { fetchCodeAgain } from './web/fetchedCode';
import { framed } from './web/framed';

fetchCodeAgain();

/**
 * The app begins in three parts with a frame painted between them: reading its code, making its modules, and taking over the
 * page. What was tapped meanwhile on the page as it came is shown before the next part takes the page's time.
 */
framed(() => {
  // Each is made when it is first asked for.
  const [root, render] = [App, renderRootComponent];
  framed(() => render(root));
});
