import { extractTemplate, findGrid } from '../analysis/extractTemplate';
import type { Performance } from '../analysis/performance';
import { gridTicks } from '../document/grid';
import type { Shape } from '../document/feelSchema';
import { barTicks, type Meter } from '../document/meter';
import type { Loop } from '../document/schema';
import { steadyBars } from '../feel/bars';
import { ticksPerMs } from '../units';

/**
 * The timing of a loop as a template, with its accents; null where nothing stands in it.
 *
 * @param strengths how strong each slice begins, 0 to 1
 */
export const loopTemplate = (
  name: string,
  { marks, end, bars, tempo }: Loop,
  strengths: readonly number[],
  meter: Meter,
): Shape | null => {
  const length = bars * barTicks(meter);
  const performance: Performance = {
    notes: marks.map((mark, at) => ({
      at: (mark / end) * length,
      velocity: Math.max(1, Math.round(127 * Math.min(1, strengths[at] ?? 1))),
      lane: 'loop',
    })),
    bars: steadyBars(meter),
    meter,
    ticksPerMs: () => ticksPerMs(tempo),
    length,
  };
  const found = findGrid(performance);
  // A coarser grid would take two of a pair of sixteenths for one.
  const grid = found === '1/8' ? '1/16' : found;
  const round = Math.min(length, Math.max(gridTicks(grid), barTicks(meter)));
  return extractTemplate(name, performance, { grid, length: round });
};
