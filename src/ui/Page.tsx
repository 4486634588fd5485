import type { ReactNode } from 'react';
import { ScrollView, StyleSheet, type StyleProp, type ViewStyle } from 'react-native';

interface PageProps {
  children: ReactNode;
  id?: string;
  role?: 'tabpanel' | 'region' | 'group' | 'complementary';
  label?: string;
  /** The id of what names it. */
  labelledBy?: string;
  style?: StyleProp<ViewStyle>;
  inner?: StyleProp<ViewStyle>;
}

const styles = StyleSheet.create({
  page: { flexGrow: 1, flexShrink: 1, flexBasis: 0, minHeight: 0, overscrollBehavior: 'contain' } as object,
  inner: { paddingHorizontal: 16, paddingTop: 4, paddingBottom: 20 },
});

/** What is scrolled up and down. */
export const Page = ({ children, id, role, label, labelledBy, style, inner }: PageProps) => (
  <ScrollView
    style={[styles.page, style]}
    contentContainerStyle={[styles.inner, inner]}
    {...({ id, role, 'aria-label': label, 'aria-labelledby': labelledBy } as object)}
  >
    {children}
  </ScrollView>
);
