import { Overlay } from '@rneui/base/dist/Overlay';
import type { ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Action } from './Action';
import { Icon } from './Icon';
import { useRne } from './Themed';
import { colour, CORNER } from './tokens';
import { Heading } from './Words';
import { words } from '../words/ui';

const FRAME = 4;

const styles = StyleSheet.create({
  sheet: {
    position: 'absolute',
    bottom: 0,
    width: '100%',
    maxWidth: 560,
    maxHeight: '85%' as unknown as number,
    padding: 16,
    backgroundColor: colour.raised,
    borderTopLeftRadius: CORNER,
    borderTopRightRadius: CORNER,
    borderBottomLeftRadius: 0,
    borderBottomRightRadius: 0,
    shadowOpacity: 0,
  },
  // Room for the frame of a field at the edge that has the focus: what scrolls is cut where it ends.
  scroll: { margin: -FRAME },
  content: { padding: FRAME },
  head: { flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', marginBottom: 8 },
});

interface SheetProps {
  title: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}

/** A sheet from below. Escape and a tap beside it close it; focus stays within while it is open. */
export const Sheet = ({ title, open, onClose, children }: SheetProps) => (
  <>
    <Overlay
      {...useRne()}
      isVisible={open}
      onBackdropPress={onClose}
      overlayStyle={styles.sheet}
      aria-label={title}
      {...({ role: 'dialog', animationType: 'none' } as object)}
    >
      <View style={styles.head}>
        <Heading level={2}>{title}</Heading>
        <Action label={words.close} iconOnly icon={<Icon name="close" />} onPress={onClose} />
      </View>
      <ScrollView
        style={styles.scroll}
        contentContainerStyle={styles.content}
        {...({ tabIndex: 0, role: 'group', 'aria-label': title } as object)}
      >
        {children}
      </ScrollView>
    </Overlay>
  </>
);
