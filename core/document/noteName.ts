import { modulo } from '../numbers';
import type { MidiNote } from '../units';

const NAMES = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B'];

/** Makers do not agree on what note 60 is called. */
export type NoteNames = 'none' | 'c3' | 'c4';

/**
 * The name of a note number.
 *
 * @param names what 60 is called
 * @example noteName(36, 'c3') // "C1"
 * @example noteName(42, 'c4') // "F♯2"
 */
export const noteName = (note: MidiNote, names: NoteNames): string =>
  names === 'none' ? '' : `${NAMES[modulo(note, 12)]}${Math.floor(note / 12) - (names === 'c3' ? 2 : 1)}`;
