import { clamp, type Ticks } from '../units';
import { gridTicks, type Grid } from './grid';
import type { Hit } from './schema';

/**
 * Step and nudge of a position: the step nearest to it, and the rest.
 *
 * @param position in ticks, from 0
 * @example placed(288, '1/16') // { step: 1, nudge: 0.2 }
 */
export const placed = (position: Ticks, grid: Grid): Pick<Hit, 'step' | 'nudge'> => {
  const at = position / gridTicks(grid);
  const step = Math.max(0, Math.round(at));
  return { step, nudge: clamp(at - step, -0.5, 0.5) };
};

/**
 * Step and nudge of a position within a loop: never a step past its last one, which would not be played.
 *
 * @param position in ticks, 0 to half a step past the last one
 * @param steps how many steps the loop has
 * @example placedWithin(3780, '1/16', 16) // { step: 15, nudge: 0.5 }
 */
export const placedWithin = (position: Ticks, grid: Grid, steps: number): Pick<Hit, 'step' | 'nudge'> => {
  const at = position / gridTicks(grid);
  const step = clamp(Math.round(at), 0, steps - 1);
  return { step, nudge: clamp(at - step, -0.5, 0.5) };
};

/** In ticks from the groove's start. @example positionOf({ step: 1, nudge: 0.2 }, '1/16') // 288 */
export const positionOf = ({ step, nudge }: Pick<Hit, 'step' | 'nudge'>, grid: Grid): Ticks =>
  (step + nudge) * gridTicks(grid);

/**
 * In order of time, as parts hold them.
 *
 * @example inOrder([newHit(4), newHit(0)]).map(({ step }) => step) // [0, 4]
 */
export const inOrder = (hits: Hit[]): Hit[] =>
  [...hits].sort((a, b) => a.step + a.nudge - (b.step + b.nudge));
