import { Link } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Frame } from '../screens/frame/Frame';
import { Words } from '../ui/Words';
import { words } from '../words/frame';

const styles = StyleSheet.create({ page: { padding: 16, gap: 8 } });

export default function NotFound() {
  return (
    <Frame>
      <View style={styles.page}>
        <Words>{words.thereIsNoSuchScreen}</Words>
        <Link href="/">{words.goToThePattern}</Link>
      </View>
    </Frame>
  );
}
