import { gridTicks, GRIDS, type Grid } from '../document/grid';
import { inOrder, placedWithin } from '../document/position';
import type { Hit } from '../document/schema';
import { clamp, type Ticks } from '../units';

/** A hit with the time at which it belongs; its length is in steps of the grid that it came from. */
export interface TimedHit {
  /** In ticks from the start. Below 0 it is early for the first step. */
  at: Ticks;
  hit: Hit;
}

/** Hits on a grid that can hold every one of them. */
export interface LaidOut {
  grid: Grid;
  hits: Hit[];
}

/** A position counts as reached from this near, in ticks. */
const NEAR = 1e-6;
/** The last step that a hit may have, and the longest that it may be. */
const LAST_STEP = 4095;
const LONGEST = 64;

/** The finest grids of all, where those of one's own kind are still too coarse. */
const FINEST: Grid[] = ['1/64', '1/64T'];

/** A grid and the finer ones of its kind, then the finest of all. */
const finerGrids = (grid: Grid): Grid[] => {
  const bend = /[TDQ]?$/.exec(grid)![0];
  const kin = GRIDS.filter((one) => /[TDQ]?$/.exec(one)![0] === bend && gridTicks(one) < gridTicks(grid));
  const finest = FINEST.filter((one) => gridTicks(one) < gridTicks(grid) && !kin.includes(one));
  return [grid, ...kin.sort((a, b) => gridTicks(b) - gridTicks(a)), ...finest];
};

const stepsIn = (length: Ticks, grid: Grid): number =>
  Math.max(1, Math.ceil(length / gridTicks(grid) - 1e-9));

/** How far a grid reaches: a hit stands half a step past the last step at the most. */
const reachOf = (length: Ticks, grid: Grid): Ticks => (stepsIn(length, grid) - 0.5) * gridTicks(grid);

const lengthOn = ({ length, roll }: Hit, from: Grid, to: Grid): number | null => {
  if (from === to) return length;
  // A roll without a length of its own is one step long: that of the grid that it was written on.
  if (length === null && !roll) return null;
  return ((length ?? 1) * gridTicks(from)) / gridTicks(to);
};

/**
 * Puts hits on a grid so that each stands at its time to the tick. Close to the end a grid may be too coarse: what stands
 * there would belong to a step past the last one, and would not be played. Then the next finer grid is taken, straight ones
 * down to 1/64, triplets down to 1/64T. What even those cannot reach, the last 20 ticks at the most, becomes an early
 * first step, which sounds in the same place of a loop.
 *
 * @param from the grid that is wanted, and of which the lengths of the hits are steps
 * @param length of the loop, in ticks; hits at `length` or later are left out
 * @example layOut([{ at: 3720, hit: newHit(0) }], '1/16', 3840).grid // "1/16"
 * @example layOut([{ at: 3780, hit: newHit(0) }], '1/16', 3840).grid // "1/32"
 */
export const layOut = (timed: readonly TimedHit[], from: Grid, length: Ticks): LaidOut => {
  const inside = timed.filter(({ at }) => at < length - NEAR);
  const last = inside.reduce((most, { at }) => Math.max(most, at), 0);
  const early = inside.reduce((least, { at }) => Math.min(least, at), 0);
  const fits = (grid: Grid): boolean =>
    early >= -gridTicks(grid) / 2 - NEAR &&
    stepsIn(length, grid) <= LAST_STEP + 1 &&
    inside.every(({ hit }) => (lengthOn(hit, from, grid) ?? 0) <= LONGEST || grid === from);
  const able = finerGrids(from).filter(fits);
  const grid = able.find((one) => last <= reachOf(length, one) + NEAR) ?? able.at(-1) ?? from;
  const steps = stepsIn(length, grid);
  const hits = inside.map(({ at, hit }): Hit => {
    const past = at > reachOf(length, grid) + NEAR;
    const own = lengthOn(hit, from, grid);
    return {
      ...hit,
      ...placedWithin(past ? at - length : at, grid, steps),
      length: own === null ? null : clamp(own, 1e-3, LONGEST),
    };
  });
  return { grid, hits: inOrder(hits) };
};
