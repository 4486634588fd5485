import { Link } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Words } from '../ui/Words';

const styles = StyleSheet.create({ page: { padding: 16, gap: 8 } });

export default function NotFound() {
  return (
    <View style={styles.page}>
      <Words>There is no such screen.</Words>
      <Link href="/">Go to the pattern</Link>
    </View>
  );
}
