import { gridTicks } from '../document/grid';
import type { Meter } from '../document/meter';
import type { Swing } from '../document/schema';
import type { Bpm, Ticks } from '../units';
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
 * @example swingBend(steadyBars({ beats: 4, unit: 4 }), { percent: 60, grid: '1/16' })(360) // 384
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
    const span = bars.at(position);
    const counted = span.compound && swing.grid === '1/8' ? DOTTED_QUARTER : span.bar;
    const start = span.from + Math.floor((position - span.from) / counted) * counted;
    const inside = position - start;
    const before = Math.floor(inside / pair) * pair;
    if (start + before + pair > Math.min(start + counted, span.to)) return position;
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

/** The marks that people know: how many equal parts the pair is divided into, and on which of them the second falls. */
export const SWING_MARKS = [
  { name: 'straight', percent: 50 },
  { name: 'septuplet', percent: 57.14 },
  { name: 'quintuplet', percent: 60 },
  { name: 'triplet', percent: 66.67 },
  { name: 'dotted', percent: 75 },
] as const;

/** How near a mark a swing is called by its name alone, in percent points. */
const AT_MARK = 0.25;

/** A swing in words. @example swingName(58.5) // "near septuplet" @example swingName(46) // "early" */
export const swingName = (percent: number): string => {
  if (percent < 50 - AT_MARK) return 'early';
  const mark = SWING_MARKS.reduce((best, one) =>
    Math.abs(one.percent - percent) < Math.abs(best.percent - percent) ? one : best,
  );
  return Math.abs(mark.percent - percent) <= AT_MARK ? mark.name : `near ${mark.name}`;
};

/** Between these tempos the ratio of long to short falls in a straight line, as it does with players. */
const SLOW: Bpm = 120;
const FAST: Bpm = 300;
const SLOW_RATIO = 3;

/**
 * The swing that follows a tempo: the ratio of long to short falls from 3 at 120 BPM to 1 at 300 and is held outside (after
 * A. Friberg and A. Sundström, Music Perception 19, 2002); an amount below 1 comes so far from an even pair.
 *
 * @param amount 0 to 1
 * @returns in percent, 50 to 75
 * @example tempoSwing(210, 1) // 66.66666666666667
 */
export const tempoSwing = (bpm: Bpm, amount: number): number => {
  const along = Math.min(1, Math.max(0, (bpm - SLOW) / (FAST - SLOW)));
  const ratio = 1 + amount * (SLOW_RATIO - 1) * (1 - along);
  return (100 * ratio) / (1 + ratio);
};

/**
 * The percent of a swing at a tempo: its own, or what follows from the tempo.
 *
 * @example swingPercentAt({ percent: 58, grid: '1/16' }, 120) // 58
 */
export const swingPercentAt = ({ percent, withTempo }: Swing, bpm: Bpm): number =>
  withTempo === undefined ? percent : tempoSwing(bpm, withTempo);
