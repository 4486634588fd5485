import { Dialog as RneDialog } from '@rneui/base/dist/Dialog';
import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useRne } from './Themed';
import { colour, CORNER } from './tokens';
import { Heading } from './Words';

interface DialogProps {
  title: string;
  open: boolean;
  /** Escape, and a tap beside it. */
  onClose: () => void;
  children: ReactNode;
  /** What ends it: the buttons at its foot. */
  actions: ReactNode;
}

const styles = StyleSheet.create({
  dialog: {
    width: '92%',
    maxWidth: 420,
    padding: 16,
    gap: 8,
    borderRadius: CORNER,
    backgroundColor: colour.raised,
    shadowOpacity: 0,
  },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, justifyContent: 'flex-end' },
});

/** A question in the midst of the page. The focus stays in it, and goes back to where it was. */
export const Dialog = ({ title, open, onClose, children, actions }: DialogProps) => (
  <RneDialog
    {...useRne()}
    isVisible={open}
    onBackdropPress={onClose}
    overlayStyle={styles.dialog as object}
    {...({ role: 'dialog', 'aria-label': title, animationType: 'none' } as object)}
  >
    <Heading level={2}>{title}</Heading>
    {children}
    <View style={styles.actions}>{actions}</View>
  </RneDialog>
);
