import { gridTicks, type Grid } from '../document/grid';
import type { Ticks } from '../units';
import { barStart, type Bars } from './bars';

/** The nearest grid point, the later of two at the same distance. The grid begins anew at each bar line. */
const nearest = (bars: Bars, g: Ticks, position: Ticks): Ticks => {
  const span = bars.at(position);
  const start = barStart(span, position);
  const end = Math.min(start + span.bar, span.to);
  const point = start + Math.floor((position - start) / g + 0.5) * g;
  if (point >= end) return end;
  // The last point before the bar line may be nearer to it than a step.
  return end - position <= Math.abs(point - position) ? end : point;
};

/**
 * Draws positions towards the grid: with `q` the nearest grid point and `d = q - p`, `p + strength * d` where
 * `|d| <= window * g/2`, else `p`.
 *
 * @param strength 0 leaves all as it is, 1 puts it on the grid
 * @param window 0 to 1; how near a grid point something must be to be drawn to it
 * @example quantizer(steadyBars({ beats: 4, unit: 4 }), '1/16', 0.5, 1)(250) // 245
 */
export const quantizer = (
  bars: Bars,
  grid: Grid,
  strength: number,
  window: number,
): ((position: Ticks) => Ticks) => {
  const g = gridTicks(grid);
  const reach = (window * g) / 2 + 1e-9;
  return (position) => {
    const d = nearest(bars, g, position) - position;
    return Math.abs(d) <= reach ? position + strength * d : position;
  };
};
