import { Link } from 'expo-router';
import { Pressable, StyleSheet } from 'react-native';
import { Frame } from '../screens/frame/Frame';
import { ScreenHead } from '../ui/Layout';
import { Words } from '../ui/Words';
import { words } from '../words/frame';

const styles = StyleSheet.create({
  head: { paddingHorizontal: 16 },
  link: { minHeight: 44, paddingHorizontal: 16, justifyContent: 'center', alignSelf: 'flex-start' },
  way: { textDecorationLine: 'underline' },
});

/** What an address is told that leads to no screen. */
export default function NotFound() {
  return (
    <Frame>
      <ScreenHead title={words.thereIsNoSuchScreen} style={styles.head} />
      <Link href="/" asChild>
        <Pressable style={styles.link} role="link">
          <Words bold style={styles.way}>
            {words.goToThePattern}
          </Words>
        </Pressable>
      </Link>
    </Frame>
  );
}
