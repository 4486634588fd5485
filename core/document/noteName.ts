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

/**
 * The note number of a name, or of a number itself; "b" and "#" may stand for ♭ and ♯.
 *
 * @param names what 60 is called
 * @returns NaN where it is neither
 * @example noteOfName('F#2', 'c4') // 42
 * @example noteOfName('57', 'c3') // 57
 */
export const noteOfName = (text: string, names: NoteNames): MidiNote => {
  const said = text.trim();
  if (/^\d+$/.test(said)) return Number(said);
  const found = /^([a-g])([#♯b♭]?)(-?\d+)$/i.exec(said);
  if (!found) return NaN;
  const [, letter, sign, octave] = found;
  const bent = /[#♯]/.test(sign!) ? 1 : sign ? -1 : 0;
  return NAMES.indexOf(letter!.toUpperCase()) + bent + 12 * (Number(octave) + (names === 'c3' ? 2 : 1));
};
