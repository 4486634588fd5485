import type { Ticks } from '../units';
import { QUARTER } from '../units';

/** A time signature: so many beats of a note value (2 half, 4 quarter, 8 eighth, 16 sixteenth). */
export interface Meter {
  beats: number;
  unit: 2 | 4 | 8 | 16;
}

/**
 * The length of a bar.
 *
 * @example barTicks({ beats: 7, unit: 8 }) // 3360
 */
export const barTicks = (meter: Meter): Ticks => (meter.beats * QUARTER * 4) / meter.unit;

/** 6/8, 9/8 and 12/8: counted in dotted quarters. @example isCompound({ beats: 6, unit: 8 }) // true */
export const isCompound = (meter: Meter): boolean =>
  meter.unit === 8 && meter.beats % 3 === 0 && meter.beats > 3;

/**
 * The length of what a listener counts as one beat: a dotted quarter in 6/8, the written unit elsewhere.
 *
 * @example beatTicks({ beats: 6, unit: 8 }) // 1440
 */
export const beatTicks = (meter: Meter): Ticks => ((QUARTER * 4) / meter.unit) * (isCompound(meter) ? 3 : 1);

/** As it is written. @example meterText({ beats: 6, unit: 8 }) // "6/8" */
export const meterText = (meter: Meter): string => `${meter.beats}/${meter.unit}`;
