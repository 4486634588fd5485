import { Skeleton as RneSkeleton } from '@rneui/base/dist/Skeleton';
import { StyleSheet, View } from 'react-native';
import { useRne } from './Themed';
import { colour } from './tokens';

interface SkeletonProps {
  /** What is on its way: heard. */
  label: string;
  rows?: number;
  /** The height of a row, in points. */
  height?: number;
}

const styles = StyleSheet.create({
  row: { justifyContent: 'center', paddingHorizontal: 16, borderTopWidth: 1, borderTopColor: colour.line },
  bone: { borderRadius: 4, backgroundColor: colour.raised },
});

/** Rows without their words, while those are on their way. They stand still: what moves is not there yet. */
export const Skeleton = ({ label, rows = 6, height = 56 }: SkeletonProps) => {
  const rne = useRne();
  return (
    <View {...({ role: 'status', 'aria-label': label, 'aria-busy': true } as object)}>
      {Array.from({ length: rows }, (_, at) => (
        <View key={at} style={[styles.row, { height }]} aria-hidden>
          <RneSkeleton
            {...rne}
            animation="none"
            width={180 - 24 * (at % 3)}
            height={10}
            style={styles.bone}
          />
        </View>
      ))}
    </View>
  );
};
