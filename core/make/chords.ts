import { Chord, Note } from 'tonal';
import type { MidiNote } from '../units';

/** Chords for tuned lanes: by name or by steps of a scale. */

export interface Voiced {
  /** How often the lowest note goes an octave up. */
  inversion: number;
  /** Every second note goes so many octaves up. */
  spread: number;
  /** The root an octave lower besides. */
  doubled: boolean;
}

export const PLAIN_CHORD: Voiced = { inversion: 0, spread: 0, doubled: false };

/** Notes, and how many lie beyond what MIDI has; or why there are none. */
export type Notes = { ok: true; value: MidiNote[]; beyond: number } | { ok: false; error: string };

/** Notes that each stand above the one before, the first at or above a note. */
const stacked = (classes: readonly number[], low: MidiNote): MidiNote[] => {
  let last = low - 1;
  return classes.map((chroma) => {
    const up = (((chroma - last - 1) % 12) + 12) % 12;
    last += up + 1;
    return last;
  });
};

const voiced = (notes: MidiNote[], { inversion, spread, doubled }: Voiced): MidiNote[] => {
  const root = notes[0]!;
  let out = [...notes];
  for (let i = 0; i < inversion; i++) out = [...out.slice(1), out[0]! + 12].sort((a, b) => a - b);
  out = out.map((note, at) => (at % 2 ? note + 12 * spread : note));
  if (doubled) out.push(root - 12);
  return [...new Set(out)].sort((a, b) => a - b);
};

const inRange = (notes: MidiNote[]): MidiNote[] => notes.filter((note) => note >= 0 && note <= 127);

/**
 * The note numbers of a chord by its name.
 *
 * @param name "Cm7", "F#", "Bbmaj9": those that the `tonal` package knows
 * @param low the chord's root is the first note of its name at or above this note number
 * @returns in order, those from 0 to 127; a sentence where there is no such chord
 * @example chordNotes('Cm7', 60) // { ok: true, value: [60, 63, 67, 70], beyond: 0 }
 */
export const chordNotes = (name: string, low: MidiNote, how: Voiced = PLAIN_CHORD): Notes => {
  const chord = Chord.get(name.trim());
  const classes = chord.notes.flatMap((note) => Note.chroma(note) ?? []);
  if (chord.empty || !chord.tonic || !classes.length)
    return {
      ok: false,
      error: `There is no chord “${name}”. A chord is written as “Cm7”, “F#” or “Bbmaj9”.`,
    };
  const all = voiced(stacked(classes, low), how);
  const value = inRange(all);
  return { ok: true, value, beyond: all.length - value.length };
};

/**
 * The note numbers of a chord made of steps of a scale.
 *
 * @param classes the scale, as semitones above C, in order
 * @param root the note that step 1 is, as semitones above C
 * @param steps from 1: 1, 3, 5 is a triad on the root, 2, 4, 6 one on the second step
 * @example scaleChord([0, 2, 4, 5, 7, 9, 11], 0, [1, 3, 5], 60) // [60, 64, 67]
 */
export const scaleChord = (
  classes: readonly number[],
  root: number,
  steps: readonly number[],
  low: MidiNote,
  how: Voiced = PLAIN_CHORD,
): MidiNote[] => {
  const from = classes.indexOf(root);
  const turned = [...classes.slice(Math.max(0, from)), ...classes.slice(0, Math.max(0, from))];
  const first = stacked(turned, low);
  const notes = steps.map((step) => {
    const at = step - 1;
    const octave = Math.floor(at / first.length);
    return first[at - octave * first.length]! + 12 * octave;
  });
  return inRange(
    voiced(
      [...new Set(notes)].sort((a, b) => a - b),
      how,
    ),
  );
};

/**
 * The reading of a row of chord names: each with its notes, a bar line or a dash keeping the one before.
 *
 * @example chordRow('Cm7 - F', 60).map(({ name }) => name) // ["Cm7", "Cm7", "F"]
 */
export const chordRow = (
  text: string,
  low: MidiNote,
  how: Voiced = PLAIN_CHORD,
): { name: string; notes: Notes }[] => {
  const names = text.split(/[\s|,]+/).filter(Boolean);
  const out: { name: string; notes: Notes }[] = [];
  for (const name of names) {
    const before = out[out.length - 1];
    out.push(name === '-' && before ? before : { name, notes: chordNotes(name, low, how) });
  }
  return out;
};
