import { StyleSheet } from 'react-native';

/** What charts need, apart from all else of Feel: they are fetched by themselves. */
export const styles = StyleSheet.create({
  names: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 16, rowGap: 4 },
  bars: { marginBottom: 8 },
});
