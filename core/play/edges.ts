import { modulo } from '../numbers';
import { clamp, type Ticks } from '../units';
import type { Note } from './notes';

/**
 * The treatment of a note at an edge of what is played, once for everything that plays: it is held at the start, comes round
 * in a loop or is held at its edges, ends before the next one of its lane, and is cut at the end. Between the regions of a
 * timeline there is no edge: what the feel moves sounds in the region before or after.
 */

/** The treatment of a note that the feel carries over the edge of a loop. */
export type LoopEdges = 'wrap' | 'hold';

/** A note that would sound before play begins sounds as it begins; it ends where it would have ended. */
export const heldAtStart = (note: Note, start: Ticks): void => {
  if (note.tick >= start) return;
  note.length = Math.max(1, note.length + note.tick - start);
  note.tick = start;
  note.moved = true;
};

/** A note that the feel carries past an edge of a loop comes in at the other one, or is held at it. */
export const atLoopEdges = (note: Note, length: Ticks, edges: LoopEdges): void => {
  if (note.tick >= 0 && note.tick < length) return;
  note.moved = true;
  note.tick = edges === 'wrap' ? modulo(note.tick, length) : clamp(note.tick, 0, length - 1);
};

/** The same by pitch. */
const endedByOwn = (notes: Note[]): Note[] => {
  const last = new Map<number, Note>();
  for (const note of notes) {
    const before = last.get(note.note);
    if (before) before.length = Math.min(before.length, note.tick - before.tick);
    last.set(note.note, note);
  }
  return notes;
};

/**
 * A note ends where the next one on its lane begins, at the latest; on a lane that plays several pitches, the next of its own.
 *
 * @param notes of one lane, in order of time
 * @example endedByNext(allNotes(planPasses(beat, pattern, 1), 'wrap').slice(0, 1)).length // 1
 */
export const endedByNext = (notes: Note[]): Note[] => {
  const pitched = notes.some(({ pitch }) => pitch !== notes[0]!.pitch);
  if (pitched) return endedByOwn(notes);
  for (let i = 0; i + 1 < notes.length; i++) {
    const note = notes[i]!;
    note.length = Math.min(note.length, notes[i + 1]!.tick - note.tick);
  }
  return notes;
};

/** Nothing sounds past the end. */
export const cutAtEnd = (notes: Note[], end: Ticks): void => {
  for (const note of notes) note.length = Math.min(note.length, end - note.tick);
};
