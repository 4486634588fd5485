import { Para } from '../../ui/Words';
import { Chips } from '../../ui/Layout';
import { useState } from 'react';
import { nanoid } from '@reduxjs/toolkit';
import type { MidiPart } from '../../../core/midi/read/parts';
import { persistence } from '../../keeping/session';
import type { Store } from '../../store/store';
import { noticed } from '../../store/slices';
import { Chip } from '../../ui/Chip';
import { MidiParts } from '../../ui/MidiParts';
import { Sheet } from '../../ui/Sheet';
import { readAside } from '../../workers/aside';
import { words } from '../../words/beats';

/** Asks which parts of a file are wanted; null where none of it is. */
export type Ask = (name: string, parts: MidiPart[], chosen: string[]) => Promise<string[] | null>;

/** A MIDI file as a beat of its own: its markers become sections. */
export const takeMidi = async (store: Pick<Store, 'dispatch'>, file: File, ask: Ask): Promise<void> => {
  const { drumsFirst, isMixed } = await import('../later');
  const name = file.name.replace(/\.[^.]*$/, '');
  const seed = crypto.getRandomValues(new Uint32Array(1))[0]!;
  const bytes = new Uint8Array(await file.arrayBuffer());
  const parts = await readAside('midiParts', bytes);
  if (!parts.ok) return persistence.refuse(file.name, parts.error);
  // Where all of it is drums, or nothing says what is, there is nothing to choose.
  const mixed = isMixed(parts.value);
  const chosen = mixed ? await ask(file.name, parts.value, drumsFirst(parts.value)) : null;
  if (mixed && !chosen) return;
  const read = await readAside('beatFromMidi', bytes, name, nanoid(), seed, undefined, chosen ?? undefined);
  if (!read.ok) return persistence.refuse(file.name, read.error);
  await persistence.bringIn(file.name, { ok: true, value: { beats: [read.value.beat], faults: [] } });
  const { warnings } = read.value;
  if (warnings.length)
    store.dispatch(noticed({ text: `${file.name}: ${warnings.join(' ')}`, subject: 'file' }));
};

export interface Asked {
  name: string;
  parts: MidiPart[];
  chosen: string[];
  answer: (chosen: string[] | null) => void;
}

/** What of a MIDI file becomes lanes: its drums at first. */
export const PartsSheet = ({ asked, onDone }: { asked: Asked; onDone: () => void }) => {
  const [chosen, setChosen] = useState(asked.chosen);
  const end = (picked: string[] | null) => {
    onDone();
    asked.answer(picked);
  };
  return (
    <Sheet title={words.whatOfAskedIsOpened(asked.name)} open onClose={() => end(null)}>
      <Para quiet>{words.eachNoteBecomesADrum}</Para>
      <MidiParts parts={asked.parts} chosen={chosen} onChoose={setChosen} />
      <Chips>
        <Chip disabled={!chosen.length} onPress={() => end(chosen)}>
          {words.openThem}
        </Chip>
        <Chip onPress={() => end(null)}>{words.notNow}</Chip>
      </Chips>
    </Sheet>
  );
};
