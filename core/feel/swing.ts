import { gridTicks } from '../beat/grid';
import { barTicks, isCompound, type Meter } from '../beat/meter';
import type { Swing } from '../beat/schema';
import type { Ticks } from '../units';

/** The stretch after which pairs are counted anew: the bar, or the dotted quarter for eighths in 6/8, 9/8 and 12/8. */
const span = (meter: Meter, swing: Swing): Ticks =>
  isCompound(meter) && swing.grid === '1/8' ? 1440 : barTicks(meter);

/**
 * Where swing puts a position. What stands between the steps bends with them; order is kept.
 *
 * Inside a pair of steps of length g, at phase x from 0 to 2g: below g it becomes `x * s / 50`, from there on
 * `2g * s/100 + (x - g) * (100 - s) / 50`. A single step left over at the end of a bar stays straight.
 *
 * @param position from where play began; negative before it
 * @returns the position in ticks
 * @example swung(240, { beats: 4, unit: 4 }, { percent: 60, grid: '1/16' }) // 288
 */
export const swung = (position: Ticks, meter: Meter, swing: Swing): Ticks => {
  const s = swing.percent;
  if (s === 50) return position;
  const g = gridTicks(swing.grid);
  const length = span(meter, swing);
  const start = Math.floor(position / length) * length;
  const inside = position - start;
  const pair = Math.floor(inside / (2 * g));
  if ((pair + 1) * 2 * g > length) return position;
  const x = inside - pair * 2 * g;
  const bent = x < g ? (x * s) / 50 : (2 * g * s) / 100 + ((x - g) * (100 - s)) / 50;
  return start + pair * 2 * g + bent;
};
