import type { KeyboardEvent } from 'react';
import { StyleSheet } from 'react-native';
import { Press } from './Press';
import { colour, CORNER } from './tokens';
import { Words } from './Words';

interface HoldProps {
  children: string;
  held: boolean;
  /** Told when a finger, the mouse or a key is down on it, and when it is let go. */
  onHold: (held: boolean) => void;
}

const styles = StyleSheet.create({
  hold: {
    minHeight: 56,
    marginVertical: 8,
    paddingHorizontal: 12,
    alignItems: 'center',
    justifyContent: 'center',
    borderWidth: 1,
    borderColor: colour.pip,
    borderRadius: CORNER,
    touchAction: 'none',
    userSelect: 'none',
  } as object,
  held: { backgroundColor: colour.text, borderColor: colour.text },
  words: { fontWeight: '600', textAlign: 'center' },
  heldWords: { color: colour.ground },
});

/** Something that goes on for as long as it is held. */
export const Hold = ({ children, held, onHold }: HoldProps) => (
  <Press
    style={[styles.hold, held && styles.held]}
    pressed={held}
    more={{
      onPressIn: () => onHold(true),
      onPressOut: () => onHold(false),
      onKeyDown: ({ key }: KeyboardEvent) => (key === ' ' || key === 'Enter') && onHold(true),
      onKeyUp: () => onHold(false),
      onBlur: () => onHold(false),
    }}
  >
    <Words style={[styles.words, held && styles.heldWords]}>{children}</Words>
  </Press>
);
