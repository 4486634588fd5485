import { CheckBox as RneCheckBox } from '@rneui/base/dist/CheckBox';
import { StyleSheet } from 'react-native';
import { Icon } from './Icon';
import { useRne } from './Themed';
import { colour, font, TARGET } from './tokens';

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
  box: {
    minHeight: TARGET,
    margin: 0,
    marginLeft: 0,
    marginRight: 0,
    padding: 0,
    justifyContent: 'center',
    backgroundColor: 'transparent',
  },
  words: {
    fontFamily: font.words,
    fontSize: 14,
    lineHeight: 20,
    fontWeight: '400',
    marginLeft: 8,
    marginRight: 0,
    flexShrink: 1,
    color: colour.text,
  },
});

const Empty = () => <Icon name="unchecked" size={22} />;
const Full = () => <Icon name="checked" size={22} />;

/** Something that is chosen or not; its words are pressed too. */
export const CheckBox = ({ children, label, checked, onChange, disabled }: CheckBoxProps) => (
  <RneCheckBox
    {...useRne()}
    checked={checked}
    title={children}
    onPress={() => onChange(!checked)}
    disabled={disabled ?? false}
    checkedIcon={<Full />}
    uncheckedIcon={<Empty />}
    containerStyle={[styles.box, { color: colour.text } as object]}
    textStyle={styles.words}
    {...({ 'aria-label': label ?? children, 'aria-checked': checked, role: 'checkbox' } as object)}
  />
);
