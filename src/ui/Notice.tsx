import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from './Action';
import { Icon } from './Icon';
import { colour } from './tokens';
import { Words } from './Words';
import { words } from '../words/ui';

interface NoticeProps {
  /** What happened, in a sentence. */
  text: string;
  /** What went wrong is said at once; the rest when there is a pause. */
  tone?: 'plain' | 'danger';
  onDismiss: () => void;
  /** What can be done about it. */
  children?: ReactNode;
}

const styles = StyleSheet.create({
  notice: {
    flexDirection: 'row',
    alignItems: 'center',
    flexWrap: 'wrap',
    paddingLeft: 16,
    paddingRight: 4,
    paddingVertical: 4,
    backgroundColor: colour.raised,
    borderLeftWidth: 4,
  },
  text: { flex: 1, minWidth: 200, paddingVertical: 8 },
});

/** What happened, what was kept, and what to do next. */
export const Notice = ({ text, tone = 'plain', onDismiss, children }: NoticeProps) => (
  <View
    role={tone === 'danger' ? 'alert' : 'status'}
    style={[styles.notice, { borderLeftColor: tone === 'danger' ? colour.ruddle : colour.woad }]}
  >
    <Words style={styles.text}>{text}</Words>
    {children}
    <Action label={words.dismiss} iconOnly icon={<Icon name="close" />} onPress={onDismiss} />
  </View>
);
