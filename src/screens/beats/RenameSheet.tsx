import { useState } from 'react';
import { persistence } from '../../keeping/session';
import type { BeatSummary } from '../../store/slices';
import { Action } from '../../ui/Action';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/TextField';
import { Para } from '../../ui/Words';
import { words } from '../../words/beats';

/** Gives a beat another name. */
export const RenameSheet = ({ beat, onClose }: { beat: BeatSummary; onClose: () => void }) => {
  const [name, setName] = useState(beat.name);
  const trimmed = name.trim();
  const fault = trimmed ? '' : words.aBeatNeedsAName;
  const rename = () => {
    if (fault) return;
    void persistence.rename(beat.id, trimmed);
    onClose();
  };
  return (
    <Dialog
      title={words.renameBeat}
      open
      onClose={onClose}
      actions={
        <>
          <Action label={words.cancel} onPress={onClose} />
          <Action label={words.rename} kind="filled" disabled={fault !== ''} onPress={rename} />
        </>
      }
    >
      <TextField
        label={words.name}
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
