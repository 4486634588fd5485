import type { ReactNode } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { Divider } from './Divider';
import { Words } from './Words';

interface SettingProps {
  title: string;
  /** What it means, in a sentence. */
  about?: string | undefined;
  /** What sets it. */
  children: ReactNode;
  style?: StyleProp<ViewStyle>;
  /** What a press on its words does: the same as one on what sets it. */
  onWords?: () => void;
}

const styles = StyleSheet.create({
  row: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    justifyContent: 'space-between',
    columnGap: 16,
    minHeight: 60,
    paddingVertical: 4,
  },
  words: { flexGrow: 1, flexShrink: 1, flexBasis: 120, minWidth: 0 },
  control: { flexShrink: 1, maxWidth: '100%' },
});

/** A line of settings: its name and what it means, and what sets it beside them. */
export const Setting = ({ title, about, children, style, onWords }: SettingProps) => (
  <>
    <Divider />
    <View style={[styles.row, style]}>
      <View style={styles.words} {...(onWords && ({ onClick: onWords } as object))}>
        <Words bold>{title}</Words>
        {about ? (
          <Words small quiet>
            {about}
          </Words>
        ) : null}
      </View>
      <View style={styles.control}>{children}</View>
    </View>
  </>
);
