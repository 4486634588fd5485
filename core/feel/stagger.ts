import type { Stagger } from '../document/schema';
import { gridTicks } from '../document/grid';
import type { Ms, Ticks } from '../units';
import type { PreparedFeel } from './prepareFeel';

/** Each next stroke of some lanes taken together later than the one before. */

const SIXTEENTH: Ticks = gridTicks('1/16');

/**
 * The delay of the c-th stroke, counted from 0, in what the stagger is told in.
 *
 * @example staggerDelay({ lanes: null, by: { count: 3, each: 100 }, unit: 'ms', random: 0, randomFirst: false }, 4) // 100
 */
export const staggerDelay = ({ by }: Stagger, c: number): number =>
  'list' in by ? by.list[c % by.list.length]! : (c % by.count) * by.each;

/** A delay in ticks. @param ticksPerMs where the stroke stands */
export const staggerTicks = ({ unit }: Stagger, delay: number, ticksPerMs: number): Ticks =>
  unit === 'ms' ? delay * ticksPerMs : (delay / 100) * SIXTEENTH;

/** The longest that a stroke can be held back, in ms or in ticks. */
export const staggerReach = (stagger: Stagger): { reachMs: Ms } | { reach: Ticks } => {
  const { by, random, unit } = stagger;
  const most = ('list' in by ? Math.max(...by.list) : (by.count - 1) * by.each) + random;
  return unit === 'ms' ? { reachMs: most } : { reach: (most / 100) * SIXTEENTH };
};

/** Strokes at one time are counted from the lowest note to the highest. */
const NEAR = 1e-6;

/** From one place to another, by note; there are few. */
const sortByNote = <C>(strokes: C[], from: number, to: number, noteOf: (stroke: C) => number): void => {
  for (let at = from + 1; at < to; at++) {
    const one = strokes[at]!;
    let before = at - 1;
    for (; before >= from && noteOf(strokes[before]!) > noteOf(one); before--)
      strokes[before + 1] = strokes[before]!;
    strokes[before + 1] = one;
  }
};

/**
 * Puts strokes into the order in which they are counted, in place.
 *
 * @example
 * inCountingOrder([{ tick: 0, note: 38 }, { tick: 0, note: 36 }], ({ note }) => note).map(({ note }) => note)
 * // [36, 38]
 */
export const inCountingOrder = <C extends { tick: Ticks }>(
  strokes: C[],
  noteOf: (stroke: C) => number,
): C[] => {
  strokes.sort((a, b) => a.tick - b.tick);
  for (let from = 0; from < strokes.length;) {
    let to = from + 1;
    while (to < strokes.length && strokes[to]!.tick - strokes[to - 1]!.tick < NEAR) to += 1;
    sortByNote(strokes, from, to, noteOf);
    from = to;
  }
  return strokes;
};

/** Where a stroke stands as it comes to the stage. */
export const beforeStagger = ({ stages }: Pick<PreparedFeel, 'stages'>, at: Ticks): Ticks => {
  let tick = at;
  for (const { moves, delays } of stages) {
    if (delays) break;
    if (moves) tick = moves(tick);
  }
  return tick;
};
