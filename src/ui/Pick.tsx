import { Picker } from '@react-native-picker/picker';
import { StyleSheet } from 'react-native';
import type { SelectProps } from './Select';
import { colour, font } from './tokens';

const styles = StyleSheet.create({
  pick: {
    alignSelf: 'flex-start',
    maxWidth: '100%',
    minHeight: 44,
    marginVertical: -8,
    paddingHorizontal: 0,
    borderWidth: 0,
    backgroundColor: 'transparent',
    color: colour.quiet,
    fontFamily: font.words,
    fontSize: 14,
  } as object,
});

/** One of several, in a line of words: for the head of a screen. */
export const Pick = <T extends string>({ label, value, options, onChange }: SelectProps<T>) => (
  <Picker<T>
    selectedValue={value}
    onValueChange={(next) => onChange(next)}
    style={styles.pick}
    {...({ 'aria-label': label } as object)}
  >
    {options.map((option) => (
      <Picker.Item key={option.value} value={option.value} label={option.name} />
    ))}
  </Picker>
);
