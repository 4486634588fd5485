import { LinearProgress } from '@rneui/base/dist/LinearProgress';
import { StyleSheet, View } from 'react-native';
import { useRne } from './Themed';
import { colour } from './tokens';

interface ProgressProps {
  /** What goes on. */
  label: string;
  /** From 0 to 1. */
  done: number;
}

const styles = StyleSheet.create({
  around: { flexGrow: 1, flexShrink: 1, flexBasis: 120, minWidth: 80, justifyContent: 'center' },
  bar: { height: 8, borderRadius: 4 },
});

/** How far something is that takes a while. */
export const Progress = ({ label, done }: ProgressProps) => (
  <View
    style={styles.around}
    {...({
      role: 'progressbar',
      'aria-label': label,
      'aria-valuemin': 0,
      'aria-valuemax': 100,
      'aria-valuenow': Math.round(done * 100),
    } as object)}
  >
    <LinearProgress
      {...useRne()}
      animation={false}
      value={done}
      variant="determinate"
      style={[styles.bar, { color: colour.woad } as object]}
      {...({ 'aria-hidden': true } as object)}
    />
  </View>
);
