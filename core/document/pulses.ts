import { QUARTER, type Ticks } from '../units';
import { barTicks, isCompound, type Meter } from './meter';

/** A pulse of a bar: what a foot taps. */
export interface Pulse {
  from: Ticks;
  length: Ticks;
}

const EIGHTH: Ticks = QUARTER / 2;
const SIXTEENTH: Ticks = QUARTER / 4;

/** So many of a unit in groups of two or four; what is left over makes the last group longer. */
const grouped = (count: number, unit: Ticks, size: number): Pulse[] => {
  const groups = Math.max(1, Math.floor(count / size));
  return Array.from({ length: groups }, (_, at) => ({
    from: at * size * unit,
    length: (at === groups - 1 ? count - at * size : size) * unit,
  }));
};

/**
 * The pulses of a meter: dotted quarters in 6/8, 9/8 and 12/8, quarters in 4/4 and 3/2, pairs of eighths in 7/8 with the last
 * one of three, groups of four sixteenths.
 *
 * @example pulsesOf({ beats: 7, unit: 8 }).map(({ from }) => from) // [0, 960, 1920]
 */
export const pulsesOf = (meter: Meter): Pulse[] => {
  if (isCompound(meter)) return grouped(meter.beats, EIGHTH, 3);
  if (meter.unit === 8) return grouped(meter.beats, EIGHTH, 2);
  if (meter.unit === 16) return grouped(meter.beats, SIXTEENTH, 4);
  return grouped(Math.round(barTicks(meter) / QUARTER), QUARTER, 1);
};
