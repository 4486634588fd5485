import { gridTicks } from '../beat/grid';
import type { Meter } from '../beat/meter';
import type { Swing } from '../beat/schema';
import type { Ticks } from '../units';
import { steadyBars, type Bars } from './bars';

/** In 6/8, 9/8 and 12/8, pairs of eighths are counted anew from each dotted quarter. */
const DOTTED_QUARTER: Ticks = 1440;

/**
 * Swing made ready for many positions. What stands between the steps bends with them; order is kept.
 *
 * Inside a pair of steps of length g, at phase x from 0 to 2g: below g it becomes `x * s / 50`, from there on
 * `2g * s/100 + (x - g) * (100 - s) / 50`. A single step left over at the end of a bar stays straight.
 *
 * @param percentAt a swing that changes: the percent of the pair that begins at a position
 * @returns from a position to where swing puts it, both in ticks from where play began, negative before it
 */
export const swingBend = (
  bars: Bars,
  swing: Swing,
  percentAt: ((position: Ticks) => number) | null = null,
): ((position: Ticks) => Ticks) => {
  if (swing.percent === 50 && !percentAt) return (position) => position;
  const g = gridTicks(swing.grid);
  const pair = 2 * g;
  return (position) => {
    const stretch = bars.at(position);
    const span = stretch.compound && swing.grid === '1/8' ? DOTTED_QUARTER : stretch.bar;
    const start = stretch.from + Math.floor((position - stretch.from) / span) * span;
    const inside = position - start;
    const before = Math.floor(inside / pair) * pair;
    if (start + before + pair > Math.min(start + span, stretch.to)) return position;
    const x = inside - before;
    const s = percentAt ? percentAt(start + before) : swing.percent;
    const bent = x < g ? (x * s) / 50 : (pair * s) / 100 + ((x - g) * (100 - s)) / 50;
    return start + before + bent;
  };
};

/**
 * Where swing puts one position.
 *
 * @example swung(240, { beats: 4, unit: 4 }, { percent: 60, grid: '1/16' }) // 288
 */
export const swung = (position: Ticks, meter: Meter, swing: Swing): Ticks =>
  swingBend(steadyBars(meter), swing)(position);

/** How long the first of a pair is against the second. @example swingRatio(60) // 1.5 */
export const swingRatio = (percent: number): number => percent / (100 - percent);

/** By how much the second of a pair comes later than straight, in ticks. @example swingDelay({ percent: 60, grid: '1/16' }) // 48 */
export const swingDelay = ({ percent, grid }: Swing): Ticks => (2 * gridTicks(grid) * (percent - 50)) / 100;

/** The marks that people know. */
export const SWING_MARKS = [
  { name: 'straight', percent: 50 },
  { name: 'light', percent: 54 },
  { name: 'medium', percent: 58 },
  { name: 'triplet', percent: 66.67 },
  { name: 'hard', percent: 72 },
] as const;

/** The name of the mark that a swing lies next to. @example swingName(57) // "medium" */
export const swingName = (percent: number): string =>
  SWING_MARKS.reduce((best, mark) =>
    Math.abs(mark.percent - percent) < Math.abs(best.percent - percent) ? mark : best,
  ).name;
