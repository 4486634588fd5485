import { useState } from 'react';
import { keeper } from '../../state/session';
import type { BeatSummary } from '../../state/slices';
import { Action } from '../../ui/Action';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/TextField';
import { Para } from '../../ui/Words';

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
    <Dialog
      title="Rename beat"
      open
      onClose={onClose}
      actions={
        <>
          <Action label="Leave it" onPress={onClose} />
          <Action label="Rename" kind="filled" disabled={fault !== ''} onPress={rename} />
        </>
      }
    >
      <TextField
        label="Name"
        value={name}
        back
        onType={setName}
        onEnter={rename}
        more={{ autoFocus: true }}
      />
      {fault ? (
        <Para danger live>
          {fault}
        </Para>
      ) : null}
    </Dialog>
  );
};
