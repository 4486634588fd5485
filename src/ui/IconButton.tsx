import { StyleSheet } from 'react-native';
import { Button } from './Button';
import { Icon, type IconName } from './Icon';
import { Tipped } from './Tipped';
import { colour, TARGET } from './tokens';

interface IconButtonProps {
  /** What it does, in words: heard, and shown by the pointer. */
  label: string;
  icon: IconName;
  onPress: () => void;
  disabled?: boolean | undefined;
  /** For a button that is on or off. */
  pressed?: boolean | undefined;
  expanded?: boolean | undefined;
  filled?: boolean;
}

const styles = StyleSheet.create({
  around: { width: TARGET, height: TARGET },
  button: { width: TARGET, height: TARGET, paddingHorizontal: 0, paddingVertical: 0 },
  on: { backgroundColor: colour.raised },
});

/** A button that shows an icon alone, as large as a thumb. */
export const IconButton = ({
  label,
  icon,
  onPress,
  disabled,
  pressed,
  expanded,
  filled,
}: IconButtonProps) => (
  <Tipped tip={label} style={styles.around}>
    <Button
      label={label}
      icon={<Icon name={icon} {...(filled && { filled })} />}
      onPress={onPress}
      disabled={disabled}
      expanded={expanded}
      style={[styles.button, pressed && styles.on]}
      more={{ ...(pressed !== undefined && { 'aria-pressed': pressed }) }}
    >
      {''}
    </Button>
  </Tipped>
);
