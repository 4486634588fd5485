import { Picker } from '@react-native-picker/picker';
import { StyleSheet } from 'react-native';
import { colour, CORNER, font, TARGET } from './tokens';

export interface SelectProps<T extends string> {
  /** What is chosen, in full words: heard. */
  label: string;
  value: T;
  options: readonly { value: T; name: string }[];
  onChange: (value: T) => void;
  disabled?: boolean;
}

const styles = StyleSheet.create({
  select: {
    minHeight: TARGET,
    minWidth: 0,
    maxWidth: '100%',
    flexGrow: 1,
    flexShrink: 1,
    paddingHorizontal: 12,
    borderWidth: 1,
    borderColor: colour.pip,
    borderRadius: CORNER,
    backgroundColor: colour.ground,
    color: colour.text,
    fontFamily: font.words,
    fontSize: 15,
  } as object,
});

/** One of several, named: the bare field. */
export const Select = <T extends string>({ label, value, options, onChange, disabled }: SelectProps<T>) => (
  <Picker<T>
    selectedValue={value}
    onValueChange={(next) => onChange(next)}
    enabled={!disabled}
    style={styles.select}
    {...({ 'aria-label': label } as object)}
  >
    {options.map((option) => (
      <Picker.Item key={option.value} value={option.value} label={option.name} />
    ))}
  </Picker>
);
