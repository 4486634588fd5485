import { useState, type ReactNode } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { Icon } from './Icon';
import { Press } from './Press';
import { colour } from './tokens';
import { Words } from './Words';

const styles = StyleSheet.create({
  head: { flexDirection: 'row', alignItems: 'center', gap: 4, minHeight: 48 },
  mark: { color: colour.quiet } as object,
  open: { transform: [{ rotate: '90deg' }] },
  title: { flexShrink: 1 },
});

interface DisclosureProps {
  /** What is folded. */
  title: string;
  children: ReactNode;
  /** As the name of a part, and not beside the point. */
  bold?: boolean;
  /** Whether it is unfolded at first. */
  open?: boolean;
  style?: StyleProp<ViewStyle>;
}

/** What is wanted seldom, folded under its name. */
export const Disclosure = ({
  title,
  children,
  bold = false,
  open: first = false,
  style,
}: DisclosureProps) => {
  const [open, setOpen] = useState(first);
  return (
    <View style={style}>
      <Press expanded={open} onPress={() => setOpen(!open)} style={styles.head}>
        <View style={[styles.mark, open && styles.open]}>
          <Icon name="right" size={16} />
        </View>
        <Words bold={bold} quiet={!bold} style={styles.title}>
          {title}
        </Words>
      </Press>
      {open ? children : null}
    </View>
  );
};
