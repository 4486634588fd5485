import { StyleSheet, View } from 'react-native';
import { capital } from '../../core/capital';
import { Select, type SelectProps } from './Select';
import { steady } from './steady';
import { Words } from './Words';

interface ChoiceProps<T extends string> extends SelectProps<T> {
  /** What is chosen, shown. */
  short: string;
}

const styles = StyleSheet.create({
  line: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    columnGap: 12,
    rowGap: 2,
    minHeight: 48,
    minWidth: 0,
  },
  name: { minWidth: 72 },
});

const PlainChoice = <T extends string>({ short, ...select }: ChoiceProps<T>) => (
  <View style={styles.line}>
    <Words quiet style={styles.name}>
      {capital(short)}
    </Words>
    <Select {...select} />
  </View>
);

/** One of several, named, with its name before it. */
export const Choice = steady(PlainChoice) as typeof PlainChoice;
