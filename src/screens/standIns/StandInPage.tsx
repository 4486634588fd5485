import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Themed } from '../../ui/Themed';
import { Heading, Para } from '../../ui/Words';
import { words } from '../../words/ports';

const styles = StyleSheet.create({ page: { padding: 16, gap: 12, flex: 1, overflow: 'scroll' } });

/** What stands around a stand-in. */
export const StandInPage = ({ title, children }: { title: string; children: ReactNode }) => (
  <Themed theme="system">
    <View role="main" style={styles.page}>
      <Heading level={1}>{title}</Heading>
      <Para quiet>{words.standInFor}</Para>
      {children}
    </View>
  </Themed>
);
