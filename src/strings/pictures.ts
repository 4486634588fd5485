import type { Ticks } from '../../core/units';
import type { Bead, LaneDrawing } from './drawing';
import { AROUND } from './geometry';
import type { Painting } from './paint';

/** How far a bead reaches beyond its place at the most, so that it is painted in both of two bars. */
const REACH: Ticks = 120;

interface Bars {
  /** The length of a bar, of a beat and of the pattern. */
  bar: Ticks;
  beat: Ticks;
  total: Ticks;
}

/** The bar in which a step is touched: that in which its place on the straight grid lies. */
const barOf = (left: Ticks, right: Ticks, bar: Ticks): number =>
  Math.max(0, Math.floor((left + right) / 2 / bar + 1e-6));

/** A lane's drawing, bar by bar. */
export const picturesOf = (drawing: LaneDrawing, { bar, beat, total }: Bars): Painting[] => {
  const count = Math.ceil(total / bar - 1e-9);
  const pictures = Array.from({ length: count }, (_, at): Painting => {
    const last = (at + 1) * bar >= total;
    return {
      from: at * bar,
      length: last ? bar + AROUND : bar,
      cells: [],
      beads: [],
      repeats: [],
      knot: null,
      beat,
    };
  });
  const put = (bead: Bead, list: 'beads' | 'repeats') => {
    const first = Math.floor(bead.x / bar);
    const last = Math.floor((bead.x + 2 * REACH) / bar);
    for (let at = first; at <= last; at++) pictures[at]?.[list].push(bead);
  };
  for (const cell of drawing.cells) {
    pictures[barOf(cell.left, cell.right, bar)]?.cells.push(cell);
    for (const bead of cell.beads) put(bead, 'beads');
  }
  for (const bead of drawing.repeats) put(bead, 'repeats');
  const knotted = drawing.knot === null ? undefined : pictures[Math.floor((drawing.knot - 1) / bar)];
  if (knotted) knotted.knot = drawing.knot;
  return pictures;
};
