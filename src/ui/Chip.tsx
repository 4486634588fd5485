import { Chip as RneChip } from '@rneui/base/dist/Chip';
import type { ReactNode } from 'react';
import { StyleSheet } from 'react-native';
import { asText } from './Button';
import { steady } from './steady';
import { useRne } from './Themed';
import { colour, CORNER, font, TARGET } from './tokens';

interface ChipProps {
  children: ReactNode;
  onPress: () => void;
  /** Heard where what is shown is too short; it begins with what is shown. */
  label?: string | undefined;
  /** For a chip that is on or off. */
  pressed?: boolean | undefined;
  disabled?: boolean | undefined;
  tone?: 'plain' | 'danger';
  more?: object;
}

const styles = StyleSheet.create({
  chip: {
    minHeight: TARGET,
    minWidth: TARGET,
    paddingHorizontal: 12,
    paddingVertical: 4,
    gap: 6,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.pip,
    backgroundColor: 'transparent',
  },
  on: { backgroundColor: colour.text, borderColor: colour.text },
  onDanger: { backgroundColor: colour.ruddle, borderColor: colour.ruddle },
  off: { opacity: 0.5 },
  // Words that are too long for a line are set in two, and not cut off.
  container: { maxWidth: '100%', overflow: 'visible' },
  title: {
    fontFamily: font.words,
    fontSize: 14,
    lineHeight: 20,
    flexShrink: 1,
    textAlign: 'center',
    paddingHorizontal: 0,
  },
});

const PlainChip = ({
  children,
  onPress,
  label,
  pressed,
  disabled = false,
  tone = 'plain',
  more,
}: ChipProps) => {
  const own = tone === 'danger' ? colour.ruddle : colour.text;
  const color = { color: pressed ? colour.ground : own };
  return (
    <RneChip
      {...useRne()}
      type="outline"
      onPress={onPress}
      disabled={disabled}
      {...(label !== undefined && { 'aria-label': label })}
      {...(pressed !== undefined && { 'aria-pressed': pressed })}
      {...more}
      containerStyle={styles.container}
      buttonStyle={[
        styles.chip,
        pressed && (tone === 'danger' ? styles.onDanger : styles.on),
        disabled && styles.off,
        color as object,
      ]}
      titleStyle={[styles.title, color]}
      disabledTitleStyle={color}
    >
      {asText(children)}
    </RneChip>
  );
};

/** A small button with a word on it, as high as a thumb. */
export const Chip = steady(PlainChip);
