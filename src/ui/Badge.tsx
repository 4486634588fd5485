import { Badge as RneBadge } from '@rneui/base/dist/Badge';
import { StyleSheet } from 'react-native';
import { useRne } from './Themed';
import { colour, font } from './tokens';

interface BadgeProps {
  /** A word or a number. */
  children: string;
  tone?: 'plain' | 'danger';
}

const styles = StyleSheet.create({
  badge: {
    height: 22,
    borderRadius: 11,
    borderWidth: 1,
    paddingHorizontal: 6,
    backgroundColor: 'transparent',
  },
  plain: { borderColor: colour.woad },
  danger: { borderColor: colour.ruddle },
  text: { fontFamily: font.words, fontSize: 12, lineHeight: 16, color: colour.text },
});

/** A word about what it stands beside: how many, or how it is. */
export const Badge = ({ children, tone = 'plain' }: BadgeProps) => (
  <RneBadge
    {...useRne()}
    value={children}
    badgeStyle={[styles.badge, styles[tone]]}
    textStyle={styles.text}
  />
);
