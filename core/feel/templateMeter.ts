import type { Shape } from '../document/feelSchema';
import { gridTicks } from '../document/grid';
import { barTicks, type Meter } from '../document/meter';

/** Meters that a template may be meant for, the likeliest first. */
const LIKELY: Meter[] = [
  { beats: 4, unit: 4 },
  { beats: 3, unit: 4 },
  { beats: 7, unit: 8 },
  { beats: 5, unit: 4 },
  { beats: 5, unit: 8 },
  { beats: 9, unit: 8 },
  { beats: 11, unit: 8 },
];

/** Triplets of eighths in 4/4 are as long as 12/8 has eighths; six eighths are 6/8 rather than 3/4. */
const COMPOUND: Meter[] = [
  { beats: 6, unit: 8 },
  { beats: 12, unit: 8 },
  { beats: 9, unit: 8 },
];

const wholeBars = (length: number, meter: Meter): boolean => {
  const bars = length / barTicks(meter);
  return bars >= 1 && Math.abs(bars - Math.round(bars)) < 1e-9;
};

/**
 * The meter that a template was made in: what it says itself, else the likeliest of which it is whole bars long, else 4/4 where
 * it goes into a bar of it.
 *
 * @example meterOfShape({ grid: '1/16', slots: new Array(14).fill(null) }) // { beats: 7, unit: 8 }
 */
export const meterOfShape = ({ grid, slots, meter }: Pick<Shape, 'grid' | 'slots' | 'meter'>): Meter => {
  if (meter) return meter;
  const length = slots.length * gridTicks(grid);
  const first = grid === '1/8' ? [LIKELY[0]!, ...COMPOUND] : [];
  return [...first, ...LIKELY].find((one) => wholeBars(length, one)) ?? LIKELY[0]!;
};
