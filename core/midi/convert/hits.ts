import type { Grid } from '../../document/grid';
import { gridTicks } from '../../document/grid';
import { placed } from '../../document/position';
import type { Hit } from '../../document/schema';
import { clamp, type Ticks, type Velocity } from '../../units';

/** A note on its way to a hit: in ticks of 960 to the quarter. */
export interface TimedNote {
  /** From where steps are counted; a note before that is an early first step. */
  from: Ticks;
  to: Ticks;
  velocity: Velocity;
}

/** The longest that a hit is, in steps. */
const MOST_STEPS = 64;

/**
 * A note as a hit that sounds where it sounded: the step that is nearest, the rest as nudge, its length in steps.
 *
 * @param shortest in steps: a hit is not nothing
 * @example hitOfNote({ from: 250, to: 370, velocity: 90 }, '1/16', 0.001).step // 1
 */
export const hitOfNote = ({ from, to, velocity }: TimedNote, grid: Grid, shortest: number): Hit => {
  const g = gridTicks(grid);
  // What lies before the first step was early for it.
  const place = from < 0 ? { step: 0, nudge: clamp(from / g, -0.5, 0) } : placed(from, grid);
  return {
    ...place,
    velocity: clamp(velocity, 1, 127),
    length: clamp((to - from) / g, shortest, MOST_STEPS),
    chance: 1,
  };
};
