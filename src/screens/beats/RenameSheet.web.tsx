import Input from '@rneui/themed/dist/Input';
import { useState } from 'react';
import { StyleSheet } from 'react-native';
import { keeper } from '../../state/session';
import type { BeatSummary } from '../../state/slices';
import { Action } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { colour, CORNER, font } from '../../ui/tokens';

const styles = StyleSheet.create({
  box: { borderWidth: 0, borderBottomWidth: 0, marginTop: 4 },
  field: { paddingHorizontal: 4 },
  input: {
    minHeight: 48,
    paddingHorizontal: 12,
    borderWidth: 1,
    borderColor: colour.pip,
    borderRadius: CORNER,
    fontFamily: font.words,
    fontSize: 16,
    color: colour.text,
  },
  label: { fontFamily: font.words, fontSize: 14, fontWeight: '400', color: colour.quiet },
  error: { color: colour.ruddle, fontSize: 14, marginHorizontal: 0 },
});

const LONGEST = 80;

/** Gives a beat another name. */
export const RenameSheet = ({ beat, onClose }: { beat: BeatSummary; onClose: () => void }) => {
  const [name, setName] = useState(beat.name);
  const trimmed = name.trim();
  const fault = trimmed ? '' : 'A beat needs a name of at least one letter.';
  const rename = () => {
    if (fault) return;
    void keeper.rename(beat.id, trimmed);
    onClose();
  };
  return (
    <Sheet title="Rename beat" open onClose={onClose}>
      <Input
        label="Name"
        aria-label="Name"
        value={name}
        maxLength={LONGEST}
        onChangeText={setName}
        onSubmitEditing={rename}
        errorMessage={fault}
        autoFocus
        selectTextOnFocus
        containerStyle={styles.field}
        inputContainerStyle={styles.box}
        inputStyle={styles.input}
        labelStyle={styles.label}
        errorStyle={styles.error}
      />
      <Action label="Rename" kind="filled" disabled={fault !== ''} onPress={rename} />
    </Sheet>
  );
};
