import { stepSet } from '../store/doc';
import { store } from '../keeping/session';
import { takeTaps } from '../web/early';

/** Does again what was tapped in the open beat before the app was there. */
export const replayEarly = (): void => {
  const { beat } = store.getState().doc;
  if (!beat) return;
  for (const { pattern, taps } of takeTaps(beat.id))
    for (const { lane, step, on } of taps)
      store.dispatch(stepSet({ patternId: pattern, laneId: lane, step, on }));
};
