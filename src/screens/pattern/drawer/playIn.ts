import type { Semitones, Ticks, Velocity } from '../../../../core/units';
import { ticksPerMs } from '../../../../core/units';
import { heardAt, strikeLane } from '../../../audio/player';
import type { PatternEdit } from '../../../../core/edit/edits';
import { patternsEdited } from '../../../state/doc';
import { editShown } from '../../../state/editing';
import { viewChanged, type PlayInSettings } from '../../../state/slices';
import { createLearner } from '../../../state/ownFeel';
import { browserStorage } from '../../../state/storage';
import { drumGroupOf } from '../../../../core/document/drumGroups';
import { selectPattern, type Store } from '../../../state/store';
import { gridTicks } from '../../../../core/document/grid';
import { lanePatternOf, stepsOf } from '../../../../core/document/defaults';

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

const learner = createLearner(browserStorage());

/** Keeps a stroke as it was played, where that is wanted. */
const learn = (store: Store, laneId: string, at: number, velocity: Velocity, session: Session): void => {
  const { view, doc } = store.getState();
  const lane = doc.beat?.lanes.find(({ id }) => id === laneId);
  const pattern = selectPattern(store.getState());
  if (!view.learnFeel || !lane || lane.tuning || !pattern) return;
  const group = drumGroupOf(lane.instrument);
  if (group)
    learner.hear(session.gesture, { bpm: doc.beat!.tempo, meter: pattern.meter }, { at, velocity, group });
};

/** Takes a stroke down where it sounded; nothing while it counts in. */
const takeDown = (
  store: Store,
  laneId: string,
  velocity: Velocity,
  time: number,
  how: PlayIn,
  session: Session,
  pitch: Semitones,
) => {
  const heard = heardAt(time - how.latency);
  if (heard === null) return;
  // A stroke a little before the first beat is meant for it.
  if (heard.tick < -120) return;
  const take = (edit: PatternEdit) => takeInto(store, heard.patternId, edit, session.gesture);
  const key = `${heard.patternId ?? ''} ${laneId}`;
  if (how.replace && !session.cleared.has(key)) take({ edit: 'clearLanes', args: { laneIds: [laneId] } });
  session.cleared.add(key);
  learn(store, laneId, heard.tick, velocity, session);
  const tick = Math.max(0, heard.tick);
  take({
    edit: 'recordHit',
    args: { laneId, tick, velocity, quantize: how.quantize, ...(pitch && { pitch }) },
  });
};

/** Takes a repeat down on its very place, a moment before it is due: the pattern plays it. */
export const takeAt = (
  store: Store,
  laneId: string,
  tick: Ticks,
  velocity: Velocity,
  pitch: Semitones,
  session: Session,
): void => {
  if (tick < 0) return;
  const args = { laneId, tick, velocity, quantize: 0, straight: true, ...(pitch && { pitch }) };
  takeInto(
    store,
    heardAt(performance.now())?.patternId ?? null,
    { edit: 'recordHit', args },
    session.gesture,
  );
};

/** What is struck goes into the pattern that was heard then: while another waits for its turn, or has just come, that is not the one shown. */
const takeInto = (store: Store, patternId: string | null, edit: PatternEdit, gesture: string): void => {
  const { doc, view } = store.getState();
  const other =
    patternId !== null &&
    patternId !== selectPattern(store.getState())?.id &&
    !view.also.includes(patternId) &&
    doc.beat?.patterns.some(({ id }) => id === patternId);
  if (other) store.dispatch(patternsEdited({ patternIds: [patternId], edit, gesture }));
  else editShown(store, edit, gesture);
};

/** Goes on to the next step: a rest, or the end of what was struck together. */
export const nextStep = (store: Store): void => {
  const state = store.getState();
  const pattern = selectPattern(state)!;
  const laneId = state.view.cursor?.laneId ?? state.view.openLane;
  if (!laneId) return;
  const steps = stepsOf(lanePatternOf(pattern, laneId), pattern);
  store.dispatch(viewChanged({ cursor: { laneId, step: ((state.view.cursor?.step ?? 0) + 1) % steps } }));
};

/** Puts a hit on the step that the cursor is on. */
export const enterStep = (store: Store, laneId: string, velocity: Velocity, pitch: Semitones = 0): void => {
  const state = store.getState();
  const pattern = selectPattern(state)!;
  const { grid, ...part } = lanePatternOf(pattern, laneId);
  const step = (state.view.cursor?.step ?? 0) % stepsOf({ grid, ...part }, pattern);
  const hits = [{ step: 0, nudge: 0, velocity, length: null, chance: 1, ...(pitch && { pitch }) }];
  const clip = { length: gridTicks(grid), rows: [{ down: 0, grid, hits }] };
  editShown(store, { edit: 'pasteHits', args: { at: { laneId, step }, clip } });
  store.dispatch(viewChanged({ cursor: { laneId, step } }));
};

/** What a struck pad or key does. @param time of the event, as `performance.now` has it */
export const struck = (
  store: Store,
  laneId: string,
  velocity: Velocity,
  time: number,
  how: PlayIn,
  session: Session,
  pitch: Semitones = 0,
): void => {
  const { playing } = store.getState().view;
  void strikeLane(laneId, velocity, pitch);
  if (how.stepwise && !playing) enterStep(store, laneId, velocity, pitch);
  else if (how.recording && playing) takeDown(store, laneId, velocity, time, how, session, pitch);
};

/** Erases what a lane plays just now. */
export const eraseNow = (store: Store, laneId: string, session: Session): void => {
  const tempo = store.getState().doc.beat!.tempo;
  const heard = heardAt(performance.now());
  if (heard === null || heard.tick < 0) return;
  const to = heard.tick;
  const ahead = ERASE_MS * ticksPerMs(tempo);
  const args = { laneId, from: Math.max(0, to - ahead / 2), to: to + ahead };
  takeInto(store, heard.patternId, { edit: 'eraseBetween', args }, session.gesture);
};
