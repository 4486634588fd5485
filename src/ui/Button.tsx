import { Button as RneButton } from '@rneui/base/dist/Button';
import { Children, type ReactNode } from 'react';
import { StyleSheet, type StyleProp, type ViewStyle } from 'react-native';
import { useRne } from './Themed';
import { colour, CORNER, font, TARGET } from './tokens';

export interface ButtonProps {
  /** What is shown on it. */
  children: ReactNode;
  onPress: () => void;
  /** Heard where what is shown is too short; it begins with what is shown. */
  label?: string | undefined;
  icon?: ReactNode;
  kind?: 'filled' | 'outline' | 'clear';
  tone?: 'plain' | 'danger' | undefined;
  disabled?: boolean | undefined;
  /** For a button that is on or off. */
  pressed?: boolean | undefined;
  /** For a button that shows and hides something. */
  expanded?: boolean | undefined;
  /** As wide as what it lies in. */
  wide?: boolean;
  size?: 'thumb' | 'large';
  style?: StyleProp<ViewStyle>;
  /** What the browser is told besides, such as a role. */
  more?: object;
}

const styles = StyleSheet.create({
  button: {
    minHeight: TARGET,
    minWidth: TARGET,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: 'transparent',
    paddingHorizontal: 12,
    paddingVertical: 4,
    gap: 6,
  },
  large: { minHeight: 52, paddingHorizontal: 20 },
  left: { justifyContent: 'flex-start' },
  title: { fontFamily: font.words, fontSize: 14, lineHeight: 20, color: colour.text, textAlign: 'center' },
  strong: { fontSize: 15, fontWeight: '600' },
  off: { opacity: 0.5 },
  container: { borderRadius: CORNER, overflow: 'visible' },
  wide: { alignSelf: 'stretch' },
});

/** The ground, the edge and the ink of a button. */
const dyes = (kind: ButtonProps['kind'], tone: ButtonProps['tone'], pressed: boolean | undefined) => {
  const own = tone === 'danger' ? colour.ruddle : colour.text;
  if (kind === 'filled' || pressed) return { ground: own, edge: own, ink: colour.ground };
  return { ground: 'transparent', edge: kind === 'outline' ? colour.pip : 'transparent', ink: own };
};

/** Words in a row are one text; what is no word stands as it is. */
export const asText = (children: ReactNode): ReactNode => {
  const all = Children.toArray(children);
  return all.every((one) => typeof one === 'string' || typeof one === 'number') ? all.join('') : children;
};

/** A button with words, at least as high as a thumb. */
export const Button = ({
  children,
  onPress,
  label,
  icon,
  kind = 'clear',
  tone,
  disabled = false,
  pressed,
  expanded,
  wide,
  size = 'thumb',
  style,
  more,
}: ButtonProps) => {
  const { ground, edge, ink } = dyes(kind, tone, pressed);
  const color = { color: ink };
  return (
    <RneButton
      {...useRne()}
      type="clear"
      onPress={onPress}
      disabled={disabled}
      {...(label !== undefined && { 'aria-label': label })}
      {...(pressed !== undefined && { 'aria-pressed': pressed })}
      {...(expanded !== undefined && { 'aria-expanded': expanded })}
      {...more}
      containerStyle={[styles.container, wide && styles.wide]}
      buttonStyle={[
        styles.button,
        size === 'large' && styles.large,
        { backgroundColor: ground, borderColor: edge },
        disabled && styles.off,
        // Icons are drawn in the colour of the words.
        color as object,
        style,
      ]}
      titleStyle={[styles.title, kind !== 'outline' && styles.strong, color]}
      disabledTitleStyle={color}
      {...(icon !== undefined && { icon: icon as React.ReactElement<object> })}
    >
      {asText(children)}
    </RneButton>
  );
};
