import { Text } from '@rneui/base/dist/Text';
import type { ReactNode, Ref } from 'react';
import { StyleSheet, View, type StyleProp, type TextStyle } from 'react-native';
import { useRne } from './Themed';
import { colour, font } from './tokens';

const styles = StyleSheet.create({
  words: { fontFamily: font.words, fontSize: 15, lineHeight: 21, color: colour.text },
  inline: { fontFamily: 'inherit', fontSize: 'inherit', lineHeight: 'inherit', color: 'inherit' } as object,
  quiet: { color: colour.quiet, fontSize: 14 },
  small: { fontSize: 13, lineHeight: 18 },
  bold: { fontWeight: '600' },
  danger: { color: colour.ruddle },
  figure: { fontFamily: font.figures, fontSize: 13 },
  para: { fontSize: 14, lineHeight: 20, marginTop: 4, marginBottom: 6 },
  hidden: {
    position: 'absolute',
    width: 1,
    height: 1,
    overflow: 'hidden',
    clipPath: 'inset(50%)',
    whiteSpace: 'nowrap',
  } as object,
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
  /** Within other words: set as they are but for what is said here. */
  inline?: boolean | undefined;
  ref?: Ref<{ textContent: string | null }>;
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
  inline,
  lines,
  ref,
  style,
}: WordsProps) => (
  <Text
    {...useRne()}
    {...(ref && ({ ref } as object))}
    {...(id && { nativeID: id })}
    {...(lines && { numberOfLines: lines })}
    {...(live && ({ role: 'status' } as object))}
    {...(unsaid && { 'aria-hidden': true })}
    style={[
      inline ? styles.inline : styles.words,
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
  lines,
  id,
}: {
  level: 1 | 2 | 3;
  children: ReactNode;
  style?: StyleProp<TextStyle>;
  lines?: number;
  id?: string;
}) => (
  <Text
    {...useRne()}
    {...({ role: 'heading', 'aria-level': level } as object)}
    {...(id && { nativeID: id })}
    {...(lines && { numberOfLines: lines })}
    style={[styles.heading, styles[level], style]}
  >
    {children}
  </Text>
);

interface ParaProps extends Pick<WordsProps, 'children' | 'quiet' | 'danger' | 'figure' | 'live' | 'style'> {
  /** Said at once when it comes. */
  alert?: boolean | undefined;
  /** Something to know beside the rest. */
  note?: boolean | undefined;
}

/** Sentences of their own. */
export const Para = ({ alert, note, style, ...words }: ParaProps) => (
  <View {...((alert && { role: 'alert' }) as object)} {...((note && { role: 'note' }) as object)}>
    <Words {...words} style={[styles.para, style]} />
  </View>
);

/** Words that are only heard. */
export const Hidden = ({ children, id, live }: Pick<WordsProps, 'children' | 'id' | 'live'>) => (
  <Words id={id} live={live} style={styles.hidden}>
    {children}
  </Words>
);
