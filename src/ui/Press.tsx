import type { ReactNode, Ref } from 'react';
import { Pressable, StyleSheet, type StyleProp, type View, type ViewStyle } from 'react-native';
import { TARGET } from './tokens';

interface PressProps {
  children?: ReactNode;
  onPress?: (() => void) | undefined;
  /** Heard where what is shown is too short; it begins with what is shown. */
  label?: string | undefined;
  disabled?: boolean | undefined;
  /** For what is on or off. */
  pressed?: boolean | undefined;
  /** For what shows and hides something. */
  expanded?: boolean | undefined;
  /** Whether it stands for what is shown now. */
  current?: boolean | 'page' | undefined;
  style?: StyleProp<ViewStyle>;
  ref?: Ref<View>;
  /** What the browser is told besides, such as a role. */
  more?: object;
}

const styles = StyleSheet.create({
  press: { minHeight: TARGET, minWidth: TARGET, cursor: 'pointer' } as object,
  off: { opacity: 0.5, cursor: 'default' } as object,
});

const told = ({ label, pressed, expanded, current }: PressProps): object => ({
  ...(label !== undefined && { 'aria-label': label }),
  ...(pressed !== undefined && { 'aria-pressed': pressed }),
  ...(expanded !== undefined && { 'aria-expanded': expanded }),
  ...(current !== undefined && { 'aria-current': current }),
});

/** Something larger than a word that is pressed: a row, a pad, a picture. */
export const Press = (props: PressProps) => {
  const { children, onPress, disabled = false, style, ref, more } = props;
  return (
    <Pressable
      ref={ref ?? null}
      onPress={onPress ?? null}
      disabled={disabled}
      style={[styles.press, disabled && styles.off, style]}
      {...({ role: 'button', ...told(props), ...more } as object)}
    >
      {children}
    </Pressable>
  );
};
