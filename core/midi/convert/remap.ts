import { smfOf } from '../bytes';
import type { MidiEvent } from 'midi-file';
import type { MidiNote } from '../../units';
import { crossings, type DrumMap, type NoteCrossing } from '../drumMap/drumMap';
import type { OpenedFile } from '../read/readMidi';
import { trackOf } from '../write/wholeTracks';

/** The treatment of notes that the other map has nothing for. */
export interface RemapOptions {
  /** They are left out, all of them. */
  drop: boolean;
  /** They are kept even where their number is another drum there. */
  keepClashes: boolean;
}

/** A file whose notes go by another map. */
export interface Remapped {
  bytes: Uint8Array;
  crossings: (NoteCrossing & { becomes: MidiNote | null })[];
}

const becomes = (
  { note, to, kind, clash }: NoteCrossing,
  { drop, keepClashes }: RemapOptions,
): MidiNote | null => {
  if (kind !== 'none') return to!.note;
  return drop || (clash !== null && !keepClashes) ? null : note;
};

/** The events of a track with other numbers; the time of what is left out goes to what comes next. */
const trackWith = (events: MidiEvent[], numbers: ReadonlyMap<MidiNote, MidiNote | null>): MidiEvent[] => {
  let owed = 0;
  return events.flatMap((event): MidiEvent[] => {
    const isNote = event.type === 'noteOn' || event.type === 'noteOff' || event.type === 'noteAftertouch';
    const to = isNote ? numbers.get(event.noteNumber) : undefined;
    if (to === null) {
      owed += event.deltaTime;
      return [];
    }
    const deltaTime = event.deltaTime + owed;
    owed = 0;
    return [isNote && to !== undefined ? { ...event, deltaTime, noteNumber: to } : { ...event, deltaTime }];
  });
};

/**
 * A file's notes from one map to another: what has a counterpart gets its number, what has a near one that; all else in
 * the file stays.
 */
export const remapFile = (
  { file, division }: Pick<OpenedFile, 'file' | 'division'>,
  from: DrumMap,
  to: DrumMap,
  options: RemapOptions,
): Remapped => {
  const notes = [...new Set(file.notes.map(({ note }) => note))].sort((a, b) => a - b);
  const ways = crossings(notes, from, to).map((one) => ({ ...one, becomes: becomes(one, options) }));
  const numbers = new Map(ways.map(({ note, becomes: number }) => [note, number]));
  const tracks = file.tracks.map((events) => trackOf(trackWith(events, numbers)));
  return { bytes: smfOf(file.format, division, tracks), crossings: ways };
};
