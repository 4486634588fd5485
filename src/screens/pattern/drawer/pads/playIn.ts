import type { Semitones, Ticks, Velocity } from '../../../../../core/units';
import { ticksPerMs } from '../../../../../core/units';
import { heardAt, strikeLane } from '../../../../audio/player';
import type { PatternEdit } from '../../../../../core/edit/edits';
import { patternsEdited } from '../../../../store/doc';
import { editShown } from '../../../../store/editing';
import { cursorMoved } from '../../../../store/focus';
import { type PlayInSettings } from '../../../../store/input';
import { createLearner } from '../../../../keeping/ownFeel';
import { browserStorage } from '../../../../keeping/storage';
import { drumGroupOf } from '../../../../../core/document/drumGroups';
import { selectPattern, type Store } from '../../../../store/store';
import { gridTicks } from '../../../../../core/document/grid';
import { lanePatternOf, stepsOf } from '../../../../../core/document/defaults';
import { placePlayed } from '../../../../../core/edit/record';
import { modulo } from '../../../../../core/numbers';
import { rateOf } from '../../../../../core/play/reading';

/** How what is played is taken down. */
export type PlayIn = PlayInSettings & { latency: number };

export interface Session {
  /** All of one recording is one step of the history. */
  gesture: string;
  /** By pattern and lane: where the last stroke was taken down, and the steps that strokes were. */
  lanes: Map<string, { tick: Ticks; step: number; own: Set<number> }>;
}

export const newSession = (): Session => ({ gesture: `play in ${Date.now()}`, lanes: new Map() });

/** How long a held key erases ahead of each look, in ms. */
export const ERASE_MS = 60;

const learner = createLearner(browserStorage());

/** Keeps a stroke as it was played, where that is wanted. */
const learn = (store: Store, laneId: string, at: number, velocity: Velocity, session: Session): void => {
  const { input, doc } = store.getState();
  const lane = doc.beat?.lanes.find(({ id }) => id === laneId);
  const pattern = selectPattern(store.getState());
  if (!input.learnFeel || !lane || lane.tuning || !pattern) return;
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
  learn(store, laneId, heard.tick, velocity, session);
  // What repeats while it is held stands on the steps of its grid, its first stroke too.
  const held = how.repeat !== null && gridTicks(how.repeat);
  const tick = held ? Math.floor(Math.max(0, heard.tick) / held + 0.5) * held : Math.max(0, heard.tick);
  const passed = passedOver(
    store,
    laneId,
    { tick, velocity, quantize: how.quantize },
    heard.patternId,
    session,
  );
  if (how.replace && passed.length)
    take({ edit: 'removeHits', args: { spots: passed.map((step) => ({ laneId, step })) } });
  take({
    edit: 'recordHit',
    args: {
      laneId,
      tick,
      velocity,
      quantize: held ? 0 : how.quantize,
      ...(held && { straight: true }),
      ...(pitch && { pitch }),
    },
  });
};

/**
 * The steps that a lane was read over since its last stroke of this recording, and that of the stroke itself: what is
 * recorded in the place of what was there. What the recording has put there stays.
 */
const passedOver = (
  store: Store,
  laneId: string,
  played: { tick: Ticks; velocity: Velocity; quantize: number },
  patternId: string | null,
  session: Session,
): number[] => {
  const state = store.getState();
  const beat = state.doc.beat!;
  const pattern = beat.patterns.find(({ id }) => id === patternId) ?? selectPattern(state)!;
  const part = lanePatternOf(pattern, laneId);
  const steps = stepsOf(part, pattern);
  const { step } = placePlayed(beat, pattern, { laneId, ...played });
  const key = `${pattern.id} ${laneId}`;
  const before = session.lanes.get(key);
  const own = before?.own ?? new Set<number>();
  session.lanes.set(key, { tick: played.tick, step, own: new Set([...own, step]) });
  const round = (steps * gridTicks(part.grid)) / rateOf(part.rate);
  const back = part.direction === 'backward';
  const steady = back || part.direction === 'forward';
  const since = before && steady ? modulo(back ? before.step - step : step - before.step, steps) : 0;
  const many = before && steady && played.tick - before.tick >= round - 1e-6 ? steps : since;
  const passed = Array.from({ length: Math.max(1, many) }, (_, at) =>
    modulo(back ? step + at : step - at, steps),
  );
  return passed.filter((one) => !own.has(one) && part.hits.some((hit) => hit.step === one));
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
  const { doc, focus } = store.getState();
  const other =
    patternId !== null &&
    patternId !== selectPattern(store.getState())?.id &&
    !focus.also.includes(patternId) &&
    doc.beat?.patterns.some(({ id }) => id === patternId);
  if (other) store.dispatch(patternsEdited({ patternIds: [patternId], edit, gesture }));
  else editShown(store, edit, gesture);
};

/** Goes on to the next step: a rest, or the end of what was struck together. */
export const nextStep = (store: Store): void => {
  const state = store.getState();
  const pattern = selectPattern(state)!;
  const laneId = state.focus.cursor?.laneId ?? state.focus.openLane;
  if (!laneId) return;
  const steps = stepsOf(lanePatternOf(pattern, laneId), pattern);
  store.dispatch(cursorMoved({ cursor: { laneId, step: ((state.focus.cursor?.step ?? 0) + 1) % steps } }));
};

/** Puts a hit on the step that the cursor is on. */
export const enterStep = (store: Store, laneId: string, velocity: Velocity, pitch: Semitones = 0): void => {
  const state = store.getState();
  const pattern = selectPattern(state)!;
  const { grid, ...part } = lanePatternOf(pattern, laneId);
  const step = (state.focus.cursor?.step ?? 0) % stepsOf({ grid, ...part }, pattern);
  const hits = [{ step: 0, nudge: 0, velocity, length: null, chance: 1, ...(pitch && { pitch }) }];
  const clip = { length: gridTicks(grid), rows: [{ down: 0, grid, hits }] };
  editShown(store, { edit: 'pasteHits', args: { at: { laneId, step }, clip } });
  store.dispatch(cursorMoved({ cursor: { laneId, step } }));
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
  const { playing } = store.getState().transport;
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
