import Button from '@rneui/themed/dist/Button';
import type { ReactNode } from 'react';
import { StyleSheet } from 'react-native';
import { Themed } from './Themed';
import { colour, CORNER, font, TARGET } from './tokens';

interface ActionProps {
  /** What it does, in words: shown, or heard where only an icon is shown. */
  label: string;
  onPress: () => void;
  icon?: ReactNode;
  kind?: 'filled' | 'outline' | 'clear';
  tone?: 'plain' | 'danger';
  iconOnly?: boolean;
  disabled?: boolean;
  /** For a button that is on or off. */
  pressed?: boolean;
}

const styles = StyleSheet.create({
  button: {
    minHeight: TARGET,
    minWidth: TARGET,
    borderRadius: CORNER,
    paddingHorizontal: 14,
    paddingVertical: 0,
    gap: 8,
  },
  bare: { paddingHorizontal: 0 },
  title: { fontFamily: font.words, fontSize: 15, fontWeight: '600', color: colour.text },
  off: { opacity: 0.45 },
  container: { borderRadius: CORNER, overflow: 'visible' },
});

const ground = (kind: ActionProps['kind'], pressed: boolean | undefined) => {
  if (kind === 'filled') return { backgroundColor: colour.text };
  const backgroundColor = pressed ? colour.raised : 'transparent';
  return { backgroundColor, borderColor: colour.pip, borderWidth: kind === 'outline' ? 1 : 0 };
};

const ink = (kind: ActionProps['kind'], tone: ActionProps['tone']) => {
  if (kind === 'filled') return colour.ground;
  return tone === 'danger' ? colour.ruddle : colour.text;
};

/** A button, at least as large as a thumb. */
export const Action = ({
  label,
  onPress,
  icon,
  kind = 'clear',
  tone,
  iconOnly,
  disabled,
  pressed,
}: ActionProps) => {
  const color = ink(kind, tone);
  return (
    <Themed>
      <Button
        type="clear"
        onPress={onPress}
        disabled={disabled ?? false}
        aria-label={label}
        {...(pressed !== undefined && { 'aria-pressed': pressed })}
        containerStyle={styles.container}
        buttonStyle={[styles.button, iconOnly && styles.bare, ground(kind, pressed), disabled && styles.off]}
        titleStyle={[styles.title, { color }]}
        disabledTitleStyle={{ color }}
      >
        {icon ? <span style={{ color, display: 'flex' }}>{icon}</span> : null}
        {iconOnly ? null : label}
      </Button>
    </Themed>
  );
};
