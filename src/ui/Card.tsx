// By itself: with the rest of RNE’s card would come its image and all of animation.
import { CardBase as RneCard } from '@rneui/base/dist/Card/Card';
import type { ReactNode } from 'react';
import { StyleSheet, type StyleProp, type ViewStyle } from 'react-native';
import { useRne } from './Themed';
import { colour, CORNER } from './tokens';

interface CardProps {
  /** What it holds: heard. */
  label: string;
  children: ReactNode;
  style?: StyleProp<ViewStyle>;
}

const styles = StyleSheet.create({
  card: {
    margin: 0,
    marginTop: 8,
    paddingTop: 12,
    paddingHorizontal: 16,
    paddingBottom: 16,
    borderWidth: 0,
    borderRadius: CORNER,
    backgroundColor: colour.raised,
    shadowOpacity: 0,
  },
});

/** What belongs together, lifted off the page. */
export const Card = ({ label, children, style }: CardProps) => (
  <RneCard
    {...useRne()}
    containerStyle={[styles.card, style] as never}
    {...({ role: 'region', 'aria-label': label } as object)}
  >
    {children}
  </RneCard>
);
