import { QUARTER, type Ticks } from '../../units';
import type { MidiFile } from './midiFile';

/**
 * The limits of a file that is read: written here once, for every reader. A file within these can be worked through
 * in a moment; one beyond them is refused in a sentence.
 */
export const FILE_BOUNDS = {
  bytes: 4 * 1024 * 1024,
  notes: 200_000,
  /** Quarter notes from the start to the last note: 4,000 bars of 4/4. */
  quarters: 16_000,
  /** Tempos and time signatures. */
  changes: 20_000,
  /** Tracks that hold anything. */
  tracks: 2_000,
} as const;

/** The longest that a file may be. */
export const MOST_TICKS: Ticks = FILE_BOUNDS.quarters * QUARTER;

const shown = (n: number): string => n.toLocaleString('en');

/**
 * Why a file is beyond what is taken in; null where it is not.
 *
 * @example beyondBounds(file) // null
 */
export const beyondBounds = (
  file: Omit<MidiFile, 'bars' | 'meter' | 'ticksPerMs' | 'tempo'>,
): string | null => {
  if (!(file.ppq >= 1)) return 'It says that a quarter note has no ticks.';
  if (file.notes.length > FILE_BOUNDS.notes)
    return `It has ${shown(file.notes.length)} notes; at most ${shown(FILE_BOUNDS.notes)} are read.`;
  const last = file.notes.reduce((most, { start }) => Math.max(most, start), 0) / file.ppq;
  if (!(last <= FILE_BOUNDS.quarters))
    return `Its last note stands ${shown(Math.round(last))} quarter notes after its start; at most ${shown(FILE_BOUNDS.quarters)} are read.`;
  return null;
};
