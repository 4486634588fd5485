import type { Meter } from '../../document/meter';
import type { Note } from '../../play/notes';
import { QUARTER, type Bpm, type MidiNote, type Ticks, type Velocity } from '../../units';
import { fileNotes } from './fileNotes';
import { writeSong } from './write';

/** A note as a maker gives it. */
export interface MadeNote {
  tick: Ticks;
  length: Ticks;
  velocity: Velocity;
  note: MidiNote;
}

const noteOf = ({ tick, length, velocity, note }: MadeNote): Note => ({
  tick,
  length,
  velocity,
  note,
  pitch: 0,
  cut: true,
  channel: 10,
  lane: 0,
  cycle: 0,
  readIndex: 0,
  step: 0,
  hitIndex: 0,
  kind: 'main',
  stroke: 0,
  gridTick: tick,
  regionIndex: 0,
  turn: 0,
  moved: false,
});

/**
 * A MIDI file of some notes on channel 10, of one meter and tempo, 960 ticks to the quarter.
 *
 * @param end where it ends
 * @example madeFile('Ring', [], 3840, { beats: 4, unit: 4 }, 120).length > 0 // true
 */
export const madeFile = (
  name: string,
  made: readonly MadeNote[],
  end: Ticks,
  meter: Meter,
  bpm: Bpm,
): Uint8Array => {
  const { notes, end: last } = fileNotes(made.length ? [made.map(noteOf)] : [], end, QUARTER);
  return writeSong({
    format: 0,
    ppq: QUARTER,
    name,
    tempos: [{ tick: 0, micros: Math.round(60e6 / bpm) }],
    meters: [{ tick: 0, meter }],
    markers: [],
    tracks: [{ name, notes }],
    end: last,
  });
};
