import { createSelector } from '@reduxjs/toolkit';
import { patternTicks } from '../../core/document/defaults';
import type { Pattern } from '../../core/document/schema';
import type { Around, PatternEdit } from '../../core/edit/edits';
import { hitsOn, sameSpot, spotsOf, type Spot } from '../../core/edit/spots';
import { type DocState, patternsEdited, stepSet, velocitySet } from './doc';
import { type FocusState, trialEnded } from './focus';
import { selectPattern, type RootState, type Store } from './store';

type Stored = Pick<Store, 'dispatch' | 'getState'>;

/** The patterns that an edit goes to besides the one shown. */
const others = ({ doc, focus }: RootState, shown: string): string[] =>
  focus.also.filter((id) => id !== shown && doc.beat?.patterns.some((pattern) => pattern.id === id));

/**
 * Sends an edit to the pattern shown, and to those that are edited with it.
 *
 * @param gesture edits of one gesture are one step of the history
 * @param anew each edit of the gesture is told from where it began
 */
export const editShown = (store: Stored, edit: PatternEdit, gesture?: string, anew?: boolean): void => {
  const state = store.getState();
  const pattern = selectPattern(state);
  if (!pattern) return;
  // What is tried was no edit: with the first real one it goes.
  if (state.focus.trial) store.dispatch(trialEnded());
  const patternIds = [pattern.id, ...others(state, pattern.id)];
  const around = patternIds.length > 1 ? aroundOf(state, pattern, edit) : undefined;
  store.dispatch(
    patternsEdited({
      patternIds,
      edit,
      ...(around && { around }),
      ...(gesture && { gesture }),
      ...(anew && { anew }),
    }),
  );
};

/** The box that the hits of an edit were chosen by, where they were. */
const aroundOf = ({ focus }: RootState, pattern: Pattern, { args }: PatternEdit): Around | undefined => {
  const { box, selection } = focus;
  if (!box || !('spots' in args) || args.spots.length !== selection.length) return undefined;
  const all = args.spots.every((spot, at) => sameSpot(spot, selection[at]!));
  return all ? { ...box, toEnd: box.to >= patternTicks(pattern) - 1e-6 } : undefined;
};

/** Puts hits onto a step or takes them off, in the pattern shown and those edited with it. */
export const setStepShown = (
  store: Stored,
  at: { laneId: string; step: number; on: boolean; velocity?: number },
  gesture?: string,
): void => {
  const state = store.getState();
  const pattern = selectPattern(state);
  if (!pattern) return;
  const also = others(state, pattern.id);
  store.dispatch(
    stepSet({ patternId: pattern.id, ...at, ...(gesture && { gesture }), ...(also.length && { also }) }),
  );
};

/** Sets the velocity of a step, likewise. */
export const setVelocityShown = (
  store: Stored,
  at: { laneId: string; step: number; velocity: number; place?: number },
): void => {
  const state = store.getState();
  const pattern = selectPattern(state);
  if (!pattern) return;
  const also = others(state, pattern.id);
  store.dispatch(velocitySet({ patternId: pattern.id, ...at, ...(also.length && { also }) }));
};

/** What an edit of hits is for. */
export interface Target {
  kind: 'chosen' | 'one' | 'lane' | 'all' | 'none';
  spots: Spot[];
}

/**
 * What the controls of hits are for, as it was chosen: all lanes, the open lane, or the selected hits; where none is selected,
 * the hit on the step that the hand or the keys were on last in the open lane. Never more than was asked for.
 */
export const targetOf = (state: { focus: FocusState; doc: Pick<DocState, 'beat'> }): Target => {
  const { selection: spots, cursor, openLane, scope } = state.focus;
  const pattern = selectPattern(state);
  if (!pattern) return { kind: 'none', spots: [] };
  if (scope === 'all')
    return { kind: 'all', spots: state.doc.beat!.lanes.flatMap(({ id }) => spotsOf(pattern, id)) };
  if (scope === 'lane') return { kind: 'lane', spots: openLane ? spotsOf(pattern, openLane) : [] };
  if (hitsOn(pattern, spots).length) return { kind: spots.length > 1 ? 'chosen' : 'one', spots };
  if (cursor && (!openLane || cursor.laneId === openLane) && hitsOn(pattern, [cursor]).length)
    return { kind: 'one', spots: [cursor] };
  return { kind: 'none', spots: [] };
};

/** The same target for as long as nothing that it follows from changes. */
export const selectTarget = createSelector(
  [({ focus }: RootState) => focus, ({ doc }: RootState) => doc.beat],
  (focus, beat) => targetOf({ focus, doc: { beat } }),
);
