import { Text } from '@rneui/base/dist/Text';
import type { ReactNode } from 'react';
import { StyleSheet, type StyleProp, type TextStyle } from 'react-native';
import { useRne } from './Themed';
import { colour, font } from './tokens';

const styles = StyleSheet.create({
  words: { fontFamily: font.words, fontSize: 15, lineHeight: 21, color: colour.text },
  quiet: { color: colour.quiet, fontSize: 14 },
  small: { fontSize: 13, lineHeight: 18 },
  bold: { fontWeight: '600' },
  danger: { color: colour.ruddle },
  figure: { fontFamily: font.figures, fontSize: 13 },
  heading: { fontFamily: font.words, fontWeight: '600', color: colour.text, margin: 0 },
  1: { fontSize: 20, lineHeight: 26 },
  2: { fontSize: 17, lineHeight: 23, marginTop: 8, marginBottom: 4 },
  3: { fontSize: 15, lineHeight: 21, marginTop: 8, marginBottom: 4 },
});

interface WordsProps {
  children: ReactNode;
  /** Beside the point: paler. */
  quiet?: boolean | undefined;
  small?: boolean | undefined;
  bold?: boolean | undefined;
  danger?: boolean | undefined;
  /** A figure, in letters of one width. */
  figure?: boolean | undefined;
  id?: string | undefined;
  /** Said when it changes. */
  live?: boolean | undefined;
  /** Seen only: the same is said elsewhere. */
  unsaid?: boolean | undefined;
  lines?: number | undefined;
  style?: StyleProp<TextStyle>;
}

/** Text, as all of it is set. */
export const Words = ({
  children,
  quiet,
  small,
  bold,
  danger,
  figure,
  id,
  live,
  unsaid,
  lines,
  style,
}: WordsProps) => (
  <Text
    {...useRne()}
    {...(id && { nativeID: id })}
    {...(lines && { numberOfLines: lines })}
    {...(live && ({ role: 'status' } as object))}
    {...(unsaid && { 'aria-hidden': true })}
    style={[
      styles.words,
      quiet && styles.quiet,
      small && styles.small,
      bold && styles.bold,
      danger && styles.danger,
      figure && styles.figure,
      style,
    ]}
  >
    {children}
  </Text>
);

/** A heading; the levels go down one at a time. */
export const Heading = ({
  level,
  children,
  style,
}: {
  level: 1 | 2 | 3;
  children: ReactNode;
  style?: StyleProp<TextStyle>;
}) => (
  <Text
    {...useRne()}
    {...({ role: 'heading', 'aria-level': level } as object)}
    style={[styles.heading, styles[level], style]}
  >
    {children}
  </Text>
);
