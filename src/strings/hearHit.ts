import { strikeLane } from '../audio/player';
import type { Store } from '../store/store';

/** Strokes that follow one another faster than this would only blur, in ms. */
const APART_MS = 70;

let last = -Infinity;

/** Sounds a hit that was put down or struck harder, where that is wanted and nothing plays that would sound it anyway. */
export const hearHit = (
  store: Pick<Store, 'getState'>,
  laneId: string,
  velocity: number,
  pitch = 0,
): void => {
  const { hearEdits } = store.getState().input;
  const { playing } = store.getState().transport;
  const now = performance.now();
  if (!hearEdits || playing || now - last < APART_MS) return;
  last = now;
  // Hearing it is an extra: where there is no sound, the edit stands all the same.
  void strikeLane(laneId, velocity, pitch).catch(() => undefined);
};
