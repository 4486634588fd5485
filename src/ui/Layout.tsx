import { Children, useId, type ReactNode } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { colour } from './tokens';
import { buttonRow, rowList } from './row';
import { Heading, Words } from './Words';

const styles = StyleSheet.create({
  chips: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8, marginVertical: 4 },
  figures: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 16, marginVertical: 4 },
  line: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  group: { marginBottom: 12, minWidth: 0 },
  title: { flexDirection: 'row', alignItems: 'center', gap: 8, paddingTop: 8, paddingBottom: 4 },
  items: { marginVertical: 4 },
  ruled: { borderBottomWidth: 1, borderBottomColor: colour.line, paddingVertical: 8 },
  head: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    alignContent: 'center',
    gap: 4,
    minHeight: 60,
    paddingTop: 4,
    paddingHorizontal: 8,
  },
  // On the narrowest page what stands beside the name goes below it.
  titles: { flex: 1, minWidth: 108 },
  one: { fontSize: 19, lineHeight: 23 },
});

interface LayoutProps {
  children: ReactNode;
  style?: StyleProp<ViewStyle>;
  /** What they are together: heard. */
  label?: string | undefined;
}

const group = (label: string | undefined): object => (label ? { role: 'group', 'aria-label': label } : {});

/** Who hears that it is a bar of tools walks it by arrows. */
const toolbar = (label: string | undefined): object =>
  label ? { role: 'toolbar', 'aria-label': label, ...buttonRow } : buttonRow;

/** Small buttons side by side; what does not fit stands below. */
export const Chips = ({ children, style, label }: LayoutProps) => (
  <View style={[styles.chips, style]} {...toolbar(label)}>
    {children}
  </View>
);

/** Figures to set, side by side. */
export const Figures = ({ children, style, label }: LayoutProps) => (
  <View style={[styles.figures, style]} {...group(label)}>
    {children}
  </View>
);

/** Parts in one line. */
export const Line = ({ children, style, label }: LayoutProps) => (
  <View style={[styles.line, style]} {...toolbar(label)}>
    {children}
  </View>
);

/** Settings that belong together, under the name that they share. */
export const Group = ({
  title,
  mark,
  children,
  style,
}: Omit<LayoutProps, 'label'> & {
  title: string;
  /** A small picture before its name. */
  mark?: ReactNode;
}) => {
  const id = useId();
  return (
    <View style={[styles.group, style]} {...({ role: 'group', 'aria-labelledby': id } as object)}>
      <View style={styles.title}>
        {mark}
        <Words bold id={id}>
          {title}
        </Words>
      </View>
      {children}
    </View>
  );
};

/** A list, as a screen reader counts it. Where nothing is in it, there is none. */
export const Items = ({ children, style, label }: LayoutProps) =>
  Children.count(children) ? (
    <View style={[styles.items, style]} {...({ role: 'list', 'aria-label': label } as object)} {...rowList}>
      {children}
    </View>
  ) : null;

/** One of a list. */
export const Item = ({
  children,
  style,
  ruled,
}: LayoutProps & {
  /** With a line below it. */
  ruled?: boolean;
}) => (
  <View style={[ruled && styles.ruled, style]} role="listitem">
    {children}
  </View>
);

/** The head of a screen: its name, what it is about, and buttons beside them. */
export const ScreenHead = ({
  title,
  before,
  under,
  children,
  style,
}: {
  title: string;
  /** A button on its left. */
  before?: ReactNode;
  under?: ReactNode;
  children?: ReactNode;
  style?: StyleProp<ViewStyle>;
}) => (
  <View style={[styles.head, style]} {...buttonRow}>
    {before}
    <View style={styles.titles}>
      <Heading level={1} style={styles.one} lines={2}>
        {title}
      </Heading>
      {under}
    </View>
    {children}
  </View>
);
