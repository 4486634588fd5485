import { StyleSheet, View } from 'react-native';
import { IconButton } from './IconButton';
import { colour, CORNER } from './tokens';
import { Words } from './Words';
import { words } from '../words/ui';

interface HintProps {
  children: string;
  /** It is put away for good. */
  onDone: () => void;
}

const styles = StyleSheet.create({
  hint: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 4,
    marginVertical: 4,
    paddingLeft: 12,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.woad,
  },
  words: { flex: 1, minWidth: 0, paddingVertical: 6 },
});

/** What can be done here and is not plain, said once. */
export const Hint = ({ children, onDone }: HintProps) => (
  <View style={styles.hint} role="note">
    <Words small style={styles.words}>
      {children}
    </Words>
    <IconButton label={words.putTheHintAway} icon="close" onPress={onDone} />
  </View>
);
