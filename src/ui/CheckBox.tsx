import { CheckBox as RneCheckBox } from '@rneui/base/dist/CheckBox';
import { StyleSheet } from 'react-native';
import { tickStyles } from './boxes';
import { Icon } from './Icon';
import { steady } from './steady';
import { useRne } from './Themed';
import { colour, TARGET } from './tokens';

interface CheckBoxProps {
  /** What is chosen by it: shown. */
  children: string;
  /** Heard instead, where what is shown is too short; it begins with what is shown. */
  label?: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
}

const styles = StyleSheet.create({
  words: { fontSize: 14, lineHeight: 20 },
  // Its words stand elsewhere: the box alone is as large as a thumb.
  alone: { minWidth: TARGET, alignItems: 'flex-end' },
});

const Empty = () => <Icon name="unchecked" size={22} />;
const Full = () => <Icon name="checked" size={22} />;

/** Something that is chosen or not; its words are pressed too. */
export const CheckBox = steady(({ children, label, checked, onChange, disabled }: CheckBoxProps) => (
  <RneCheckBox
    {...useRne()}
    checked={checked}
    title={children}
    onPress={() => onChange(!checked)}
    disabled={disabled ?? false}
    checkedIcon={<Full />}
    uncheckedIcon={<Empty />}
    containerStyle={[tickStyles.box, !children && styles.alone, { color: colour.text } as object]}
    textStyle={[tickStyles.words, styles.words]}
    {...({ 'aria-label': label ?? children, 'aria-checked': checked, role: 'checkbox' } as object)}
  />
));
