import type { InstrumentId } from '../../document/instruments';
import type { MidiNote } from '../../units';
import type { DrumMap } from './drumMap';

/** One line of a list of drums from elsewhere: what it says, and what it is taken for. */
export interface NamedNote {
  note: MidiNote;
  name: string;
  instrument: InstrumentId | null;
}

/** A list of drums as it was found, to be looked at before it becomes a map. */
export interface MapPreview {
  name: string;
  notes: NamedNote[];
  /** The parts left out and why, a sentence each. */
  warnings: string[];
}

/** The map that a list becomes: what no instrument could be told for is left out of it. */
export const mapOf = ({ name, notes }: MapPreview): DrumMap => {
  const seen = new Set<MidiNote>();
  return {
    kind: 'ruddik.drumMap',
    version: 1,
    name: name.trim().slice(0, 80) || 'Drum map',
    notes: notes.flatMap(({ note, instrument }) => {
      if (!instrument || seen.has(note)) return [];
      seen.add(note);
      return [{ note, instrument }];
    }),
  };
};
