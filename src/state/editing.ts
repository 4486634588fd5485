import type { PatternEdit } from '../../core/pattern/edits';
import { hitsOn, spotsOf, type Spot } from '../../core/pattern/spots';
import { patternsEdited } from './doc';
import { selectPattern, type RootState, type Store } from './store';

/** Sends an edit to the pattern shown, and to those that were chosen besides. */
export const editShown = (
  store: Pick<Store, 'dispatch' | 'getState'>,
  edit: PatternEdit,
  gesture?: string,
): void => {
  const state = store.getState();
  const pattern = selectPattern(state);
  if (!pattern) return;
  const patternIds = [...new Set([pattern.id, ...state.view.also])];
  store.dispatch(patternsEdited({ patternIds, edit, ...(gesture && { gesture }) }));
};

/** What an edit of hits is about. */
export interface Target {
  kind: 'chosen' | 'one' | 'lane';
  spots: Spot[];
}

/** The chosen hits; where there are none, the hit last touched in the open lane; else the whole open lane. */
export const targetOf = (state: RootState): Target => {
  const { spots, cursor, openLane } = state.view;
  const pattern = selectPattern(state);
  if (!pattern) return { kind: 'chosen', spots: [] };
  if (spots.length) return { kind: 'chosen', spots };
  if (cursor && (!openLane || cursor.laneId === openLane) && hitsOn(pattern, [cursor]).length)
    return { kind: 'one', spots: [cursor] };
  return { kind: 'lane', spots: openLane ? spotsOf(pattern, openLane) : [] };
};
