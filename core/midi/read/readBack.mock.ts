import type { Channel, MidiNote, Velocity } from '../../units';
import { readMidiFile } from './readMidi';

/** A note in ticks of the file. */
export interface FileNote {
  tick: number;
  length: number;
  velocity: Velocity;
  note: MidiNote;
  channel: Channel;
}

/** What tests look at of a file that was written. */
export interface ReadNotes {
  ppq: number;
  /** Microseconds a quarter note. */
  tempo: number;
  /** In order of time. */
  notes: FileNote[];
  end: number;
}

/** Reads back a file that was written; throws on one that cannot be read. */
export const readNotes = (bytes: Uint8Array): ReadNotes => {
  const read = readMidiFile(bytes);
  if (!read.ok) throw new Error(read.error);
  const { ppq, tempo, notes, ends } = read.value;
  return {
    ppq,
    tempo: Math.round(60e6 / tempo),
    notes: notes
      .map(({ start, end, velocity, note, channel }) => ({
        tick: start,
        length: end - start,
        velocity,
        note,
        channel,
      }))
      .sort((a, b) => a.tick - b.tick),
    end: Math.max(0, ...ends),
  };
};
