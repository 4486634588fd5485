import type { Box } from '../../core/edit/clip';
import type { Spot } from '../../core/edit/spots';
import type { RootState } from '../store/store';
import { allShown } from '../web/shown';
import { laneDrawing } from './drawings';
import { INSET } from './geometry';

/** The edges of a box fall on sixteenths: it holds every sixteenth that it touches, to its end. */
const SNAP = 240;

interface Point {
  x: number;
  y: number;
}

/**
 * What a box holds that is drawn over the strings: its hits, and its edges with the empty steps within.
 *
 * @param points how many points a tick is on a lane
 */
export const boxBetween = (
  state: RootState,
  a: Point,
  b: Point,
  points: (lane: HTMLElement) => number,
): { spots: Spot[]; box: Box | null } => {
  const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
  const [top, bottom] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
  const spots: Spot[] = [];
  const laneIds: string[] = [];
  let [from, to] = [Infinity, -Infinity];
  for (const element of allShown('[data-lane]')) {
    const string = element.querySelector('.string')!.getBoundingClientRect();
    if (string.bottom < top || string.top > bottom) continue;
    const laneId = element.dataset['lane']!;
    const wide = points(element);
    const tickAt = (x: number) => (x - string.left) / wide - INSET;
    laneIds.push(laneId);
    from = Math.min(from, Math.floor(tickAt(left) / SNAP + 0.5) * SNAP);
    to = Math.max(to, Math.floor(tickAt(right) / SNAP + 1.5) * SNAP);
    const lane = state.doc.beat!.lanes.find(({ id }) => id === laneId)!;
    for (const cell of laneDrawing(state, lane)?.cells ?? [])
      if (cell.velocity > 0 && cell.right >= tickAt(left) && cell.left <= tickAt(right))
        spots.push({ laneId, step: cell.step });
  }
  return { spots, box: laneIds.length && to > from ? { laneIds, from: Math.max(0, from), to } : null };
};
