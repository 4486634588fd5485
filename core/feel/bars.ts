import { lastNotAbove } from '../numbers';
import { barTicks, isCompound, type Meter } from '../document/meter';
import type { Ticks } from '../units';

/** A span of time with one meter. */
export interface MeterSpan {
  /** Where it begins, on a bar line, and where the next one begins. */
  from: Ticks;
  to: Ticks;
  bar: Ticks;
  compound: boolean;
}

/** Where the bar lines are. */
export interface Bars {
  /** The span that a position lies in; what lies before the first belongs to it. */
  at: (position: Ticks) => MeterSpan;
}

/** One meter throughout, bars counted from 0 both ways. @example steadyBars({ beats: 7, unit: 8 }).at(0).bar // 3360 */
export const steadyBars = (meter: Meter): Bars => {
  const all = { from: 0, to: Infinity, bar: barTicks(meter), compound: isCompound(meter) };
  return { at: () => all };
};

/**
 * Meters that change, as in a file. A change within a bar cuts that bar short.
 *
 * @param changes in order of time; the first one counts from 0, wherever it stands
 * @example
 * changingBars([{ at: 0, meter: { beats: 4, unit: 4 } }, { at: 3840, meter: { beats: 3, unit: 4 } }]).at(4000).bar
 * // 2880
 */
export const changingBars = (changes: { at: Ticks; meter: Meter }[]): Bars => {
  const spans = changes.map(({ at, meter }, index) => ({
    from: index ? at : 0,
    to: changes[index + 1]?.at ?? Infinity,
    bar: barTicks(meter),
    compound: isCompound(meter),
  }));
  const from = (place: number): Ticks => spans[place]!.from;
  return { at: (position) => spans[Math.max(0, lastNotAbove(spans.length, from, position))]! };
};

/** The bar line at or before a position. @example barStart(steadyBars({ beats: 4, unit: 4 }).at(0), 5000) // 3840 */
export const barStart = ({ from, bar }: MeterSpan, position: Ticks): Ticks =>
  from + Math.floor((position - from) / bar) * bar;

/**
 * The bar line after a position. Positions on a line by a rounding error are on it, so that walking from line to line
 * always gets on.
 *
 * @example nextBarLine(steadyBars({ beats: 4, unit: 4 }).at(0), 0) // 3840
 */
export const nextBarLine = ({ from, to, bar }: MeterSpan, position: Ticks): Ticks =>
  Math.min(to, from + (Math.floor((position - from) / bar + 1e-11) + 1) * bar);
