import { SOUND } from '../document/choices';
import type { Seconds } from '../units';
import type { Onset } from './onsets';

/**
 * A loop divided evenly.
 *
 * @param parts 1 to 64
 * @example evenMarks(2, 4) // [0, 0.5, 1, 1.5]
 */
export const evenMarks = (seconds: Seconds, parts: number): Seconds[] => {
  const count = Math.max(1, Math.min(SOUND.marks, Math.round(parts)));
  return Array.from({ length: count }, (_, at) => (at * seconds) / count);
};

/** A first hit so near to the start is the start. */
const START = 0.03;

/**
 * Where a loop is cut at its hits: each begins a slice, and the loop's start does. Where there are more than a loop may have, the
 * strongest count.
 *
 * @example marksAt([{ at: 0.01, strength: 1 }, { at: 0.5, strength: 1 }], 1) // [0, 0.5]
 */
export const marksAt = (onsets: readonly Onset[], seconds: Seconds): Seconds[] => {
  const inside = onsets.filter(({ at }) => at > START && at < seconds - 0.005);
  const strongest = [...inside].sort((a, b) => b.strength - a.strength).slice(0, SOUND.marks - 1);
  return [0, ...strongest.map(({ at }) => at).sort((a, b) => a - b)];
};

/** Marks may be no nearer to one another. */
const NEAREST: Seconds = 0.005;

const free = (marks: readonly Seconds[], at: Seconds, end: Seconds, but = -1): boolean =>
  at >= 0 &&
  at <= end - NEAREST &&
  marks.every((mark, place) => place === but || Math.abs(mark - at) >= NEAREST);

/** With one more mark; as they were where there is no room. @example withMark([0, 1], 0.5, 2) // [0, 0.5, 1] */
export const withMark = (marks: readonly Seconds[], at: Seconds, end: Seconds): Seconds[] =>
  marks.length < SOUND.marks && free(marks, at, end) ? [...marks, at].sort((a, b) => a - b) : [...marks];

/** Without one; the first stays. @example withoutMark([0, 1], 1) // [0] */
export const withoutMark = (marks: readonly Seconds[], place: number): Seconds[] =>
  place > 0 ? marks.filter((_, at) => at !== place) : [...marks];

/** One moved, between its neighbours. @example movedMark([0, 1, 2], 1, 5, 3)[1]!.toFixed(3) // "1.995" */
export const movedMark = (marks: readonly Seconds[], place: number, to: Seconds, end: Seconds): Seconds[] => {
  const least = place ? marks[place - 1]! + NEAREST : 0;
  const most = (marks[place + 1] ?? end) - NEAREST;
  return marks.map((mark, at) => (at === place ? Math.min(most, Math.max(least, to)) : mark));
};
