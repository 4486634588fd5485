import { Note, Scale, ScaleType } from 'tonal';
import type { MidiNote } from '../units';

/** Scales for tuned lanes; their names and notes are those of the `tonal` package. */

/**
 * The names of all scales there are.
 *
 * @example scaleNames().includes('minor pentatonic') // true
 */
export const scaleNames = (): string[] => [...new Set(ScaleType.all().map(({ name }) => name))].sort();

/**
 * The notes of a scale within an octave, as semitones above C; a sentence where there is no such scale.
 *
 * @param name root and scale: "C minor", "F# major pentatonic"
 * @example scaleOf('C minor') // { ok: true, value: [0, 2, 3, 5, 7, 8, 10] }
 */
export const scaleOf = (name: string): { ok: true; value: number[] } | { ok: false; error: string } => {
  const scale = Scale.get(name.trim());
  const classes = scale.notes.flatMap((note) => Note.chroma(note) ?? []);
  if (scale.empty || !scale.tonic || !classes.length)
    return {
      ok: false,
      error: `There is no scale “${name}”. A scale is a root and a name, such as “C minor” or “F# major pentatonic”.`,
    };
  return { ok: true, value: [...new Set(classes)].sort((a, b) => a - b) };
};

/**
 * The note numbers of a scale within a range.
 *
 * @param classes as `scaleOf` gives them
 * @example notesInScale([0, 4, 7], 60, 72) // [60, 64, 67, 72]
 */
export const notesInScale = (classes: readonly number[], low: MidiNote, high: MidiNote): MidiNote[] => {
  const out: MidiNote[] = [];
  for (let note = Math.ceil(low); note <= high; note++) if (classes.includes(note % 12)) out.push(note);
  return out;
};

/**
 * The note of a list that is nearest to a pitch, the lower of two that are as near; of those that are not taken yet.
 *
 * @returns undefined where all are taken
 * @example nearestNote([60, 64, 67], 62, new Set([60])) // 64
 */
export const nearestNote = (
  notes: readonly MidiNote[],
  pitch: number,
  taken: ReadonlySet<MidiNote> = new Set(),
): MidiNote | undefined => {
  let best: MidiNote | undefined;
  for (const note of notes)
    if (!taken.has(note) && (best === undefined || Math.abs(note - pitch) < Math.abs(best - pitch)))
      best = note;
  return best;
};
