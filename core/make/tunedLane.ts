import { Chord, Note, Scale } from 'tonal';
import { noteName, type NoteNames } from '../document/noteName';
import type { Lane } from '../document/schema';
import { modulo } from '../numbers';
import type { MidiNote, Semitones } from '../units';
import { notesInScale, scaleOf } from './scales';

/** The pitches of a tuned lane, and the names of its notes and chords. */

type Tuned = Pick<Lane, 'note' | 'tuning'>;

/** The roots that a scale can stand on. */
export const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'] as const;

/**
 * The notes that a tuned lane plays, from its lowest to its highest; where its scale has none there, or there is no such
 * scale, every semitone. A lane without tuning has none.
 *
 * @example notesOfLane({ note: 60, tuning: { root: 'C', scale: 'minor pentatonic', low: 60, high: 67 } }) // [60, 63, 65, 67]
 */
export const notesOfLane = ({ tuning }: Tuned): MidiNote[] => {
  if (!tuning) return [];
  const [low, high] = [Math.min(tuning.low, tuning.high), Math.max(tuning.low, tuning.high)];
  const scale = scaleOf(`${tuning.root} ${tuning.scale}`);
  const notes = scale.ok ? notesInScale(scale.value, low, high) : [];
  return notes.length ? notes : Array.from({ length: high - low + 1 }, (_, at) => low + at);
};

/**
 * The pitch of the note that stands so many notes of the lane further up, or down; at an end, the last one there.
 *
 * @param pitch semitones against the lane's note; it need not be one of the lane's notes
 * @param by how many notes, below 0 downward
 * @example pitchBy({ note: 60, tuning: { root: 'C', scale: 'major', low: 48, high: 72 } }, 0, 1) // 2
 */
export const pitchBy = (lane: Tuned, pitch: Semitones, by: number): Semitones => {
  const notes = notesOfLane(lane);
  if (!notes.length) return pitch;
  const now = lane.note + pitch;
  const above = notes.findIndex((note) => note > now);
  const next =
    by > 0 ? (above < 0 ? notes.length : above) + by - 1 : notes.filter((note) => note < now).length + by;
  return notes[Math.min(notes.length - 1, Math.max(0, next))]! - lane.note;
};

const ORDINALS = ['root', '2nd', '3rd', '4th', '5th', '6th', '7th', '8th', '9th', '10th', '11th', '12th'];

/**
 * Which note of its lane's scale a note is; null where it is none of them, or the lane has none.
 *
 * @example degreeOf({ note: 60, tuning: { root: 'C', scale: 'minor', low: 48, high: 72 } }, 63) // "3rd of C minor"
 */
export const degreeOf = ({ tuning }: Tuned, note: MidiNote): string | null => {
  if (!tuning) return null;
  const name = `${tuning.root} ${tuning.scale}`;
  const scale = scaleOf(name);
  const root = Note.chroma(tuning.root);
  if (!scale.ok || root === undefined) return null;
  const from = scale.value.indexOf(root);
  const at = scale.value.indexOf(modulo(note, 12));
  if (at < 0 || from < 0) return null;
  const degree = (at - from + scale.value.length) % scale.value.length;
  return `${ORDINALS[degree] ?? `${degree + 1}th`} of ${name}`;
};

/**
 * The chord that some notes are together, by the name that `tonal` finds for it; null for fewer than three different ones, and
 * for what has no name.
 *
 * @example chordOf([60, 63, 67]) // "Cm"
 */
export const chordOf = (notes: readonly MidiNote[]): string | null => {
  const sorted = [...new Set(notes)].sort((a, b) => a - b);
  const names = [...new Set(sorted.map((note) => Note.pitchClass(Note.fromMidi(note))))];
  return names.length < 3 ? null : (Chord.detect(names)[0] ?? null);
};

/**
 * The name of a note as its lane's scale spells it; its number where names are not wanted.
 *
 * @example nameIn({ note: 60, tuning: { root: 'C', scale: 'minor', low: 48, high: 72 } }, 63, 'c3') // "E♭3"
 */
export const nameIn = ({ tuning }: Tuned, note: MidiNote, names: NoteNames): string => {
  const plain = noteName(note, names);
  if (!plain) return String(note);
  const scale = tuning ? Scale.get(`${tuning.root} ${tuning.scale}`).notes : [];
  const spelled = scale.find((one) => Note.chroma(one) === modulo(note, 12));
  // A double sign, or a name that would be of another octave, is harder to read than the plain one.
  if (!spelled || spelled.length > 2 || /^(Cb|B#)/.test(spelled)) return plain;
  return `${spelled.replace('b', '♭').replace('#', '♯')}${plain.replace(/^[A-G][♯♭]?/, '')}`;
};

/** A note as it is written on a staff. */
export interface Spelled {
  /** A letter from A to G. */
  step: string;
  /** Semitones that a sign before it adds: 1 is sharp, -1 flat. */
  alter: number;
  /** The octave that begins at C; that of note 60 is 4. */
  octave: number;
}

/**
 * A note as its lane's scale spells it; as flats where it is none of it.
 *
 * @example spelled({ note: 60, tuning: { root: 'D', scale: 'major', low: 48, high: 72 } }, 66) // { step: "F", alter: 1, octave: 4 }
 */
export const spelled = ({ tuning }: Tuned, note: MidiNote): Spelled => {
  const scale = tuning ? Scale.get(`${tuning.root} ${tuning.scale}`).notes : [];
  const chroma = modulo(note, 12);
  const name = scale.find((one) => Note.chroma(one) === chroma) ?? Note.pitchClass(Note.fromMidi(note));
  const { letter, alt } = Note.get(name);
  // A C flat is of the octave above the B that it sounds as, a B sharp of the one below.
  return { step: letter, alter: alt, octave: Math.floor((note - alt) / 12) - 1 };
};

/**
 * A note as it is told to a person: its name, and which of its lane's scale it is.
 *
 * @example noteText({ note: 60 }, 60, 'c3') // "C3"
 */
export const noteText = (lane: Tuned, note: MidiNote, names: NoteNames): string =>
  [nameIn(lane, note, names), degreeOf(lane, note)].filter(Boolean).join(', ');
