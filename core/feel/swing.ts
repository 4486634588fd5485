import { gridTicks } from '../beat/grid';
import { barTicks, isCompound, type Meter } from '../beat/meter';
import type { Swing } from '../beat/schema';
import type { Ticks } from '../units';

/** The stretch after which pairs are counted anew: the bar, or the dotted quarter for eighths in 6/8, 9/8 and 12/8. */
const span = (meter: Meter, swing: Swing): Ticks =>
  isCompound(meter) && swing.grid === '1/8' ? 1440 : barTicks(meter);

/**
 * Swing for one meter, made ready for many positions. What stands between the steps bends with them; order is kept.
 *
 * Inside a pair of steps of length g, at phase x from 0 to 2g: below g it becomes `x * s / 50`, from there on
 * `2g * s/100 + (x - g) * (100 - s) / 50`. A single step left over at the end of a bar stays straight.
 *
 * @returns from a position to where swing puts it, both in ticks from where play began, negative before it
 */
export const swingBend = (meter: Meter, swing: Swing): ((position: Ticks) => Ticks) => {
  const s = swing.percent;
  if (s === 50) return (position) => position;
  const g = gridTicks(swing.grid);
  const pair = 2 * g;
  const length = span(meter, swing);
  return (position) => {
    const start = Math.floor(position / length) * length;
    const inside = position - start;
    const before = Math.floor(inside / pair) * pair;
    if (before + pair > length) return position;
    const x = inside - before;
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
  swingBend(meter, swing)(position);
