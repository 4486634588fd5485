import type { Velocity } from '../../../../core/units';
import { ticksPerMs } from '../../../../core/units';
import { playedTickAt, strikeLane } from '../../../audio/player';
import { editShown } from '../../../state/editing';
import { viewChanged, type PlayInSettings } from '../../../state/slices';
import { selectPattern, type Store } from '../../../state/store';
import { partOf, stepsOf } from '../../../../core/beat/defaults';

/** How what is played is taken down. */
export type PlayIn = PlayInSettings & { latency: number };

export interface Session {
  /** All of one recording is one step of the history. */
  gesture: string;
  cleared: Set<string>;
}

export const newSession = (): Session => ({ gesture: `play in ${Date.now()}`, cleared: new Set() });

/** How long a held key erases ahead of each look, in ms. */
export const ERASE_MS = 60;

/** Takes a stroke down where it sounded; nothing while it counts in. */
const takeDown = (
  store: Store,
  laneId: string,
  velocity: Velocity,
  time: number,
  how: PlayIn,
  session: Session,
) => {
  const heard = playedTickAt(time - how.latency);
  if (heard === null) return;
  // A stroke a little before the first beat is meant for it.
  if (heard < -120) return;
  const { gesture } = session;
  if (how.replace && !session.cleared.has(laneId))
    editShown(store, { edit: 'clearLanes', args: { laneIds: [laneId] } }, gesture);
  session.cleared.add(laneId);
  const tick = Math.max(0, heard);
  editShown(store, { edit: 'recordHit', args: { laneId, tick, velocity, quantize: how.quantize } }, gesture);
};

/** Puts a hit on the step that the cursor is on and goes to the next one; a rest only goes on. */
export const enterStep = (store: Store, laneId: string | null, velocity: Velocity): void => {
  const state = store.getState();
  const pattern = selectPattern(state)!;
  const lane = laneId ?? state.view.openLane ?? state.view.cursor?.laneId;
  if (!lane) return;
  const steps = stepsOf(partOf(pattern, lane), pattern);
  const step = (state.view.cursor?.step ?? 0) % steps;
  const at = { laneId: lane, step };
  if (laneId)
    editShown(store, {
      edit: 'pasteHits',
      args: {
        at,
        clip: {
          length: 240,
          rows: [
            {
              down: 0,
              grid: partOf(pattern, lane).grid,
              hits: [{ step: 0, nudge: 0, velocity, length: null, chance: 1 }],
            },
          ],
        },
      },
    });
  store.dispatch(viewChanged({ cursor: { laneId: lane, step: (step + 1) % steps } }));
};

/** What a struck pad or key does. @param time of the event, as `performance.now` has it */
export const struck = (
  store: Store,
  laneId: string,
  velocity: Velocity,
  time: number,
  how: PlayIn,
  session: Session,
): void => {
  const { playing } = store.getState().view;
  void strikeLane(laneId, velocity);
  if (how.stepwise && !playing) enterStep(store, laneId, velocity);
  else if (how.recording && playing) takeDown(store, laneId, velocity, time, how, session);
};

/** Erases what a lane plays just now. */
export const eraseNow = (store: Store, laneId: string, session: Session): void => {
  const tempo = store.getState().doc.beat!.tempo;
  const to = playedTickAt(performance.now());
  if (to === null || to < 0) return;
  const ahead = ERASE_MS * ticksPerMs(tempo);
  const args = { laneId, from: Math.max(0, to - ahead / 2), to: to + ahead };
  editShown(store, { edit: 'eraseBetween', args }, session.gesture);
};
