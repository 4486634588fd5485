import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Words } from './Words';

const styles = StyleSheet.create({
  line: { flexDirection: 'row', alignItems: 'center', columnGap: 12, minHeight: 48, minWidth: 0 },
  name: { minWidth: 72 },
});

/** A field with its name before it. */
export const Named = ({ name, children }: { name: string; children: ReactNode }) => (
  <View style={styles.line}>
    <Words quiet unsaid style={styles.name}>
      {name}
    </Words>
    {children}
  </View>
);
