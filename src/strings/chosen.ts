import { lanePatternOf, patternTicks } from '../../core/document/defaults';
import { gridTicks } from '../../core/document/grid';
import { barTicks } from '../../core/document/meter';
import { copyHits, moveHits, pasteHits, type Box } from '../../core/edit/clip';
import { spotsWithin, type Spot } from '../../core/edit/spots';
import { editShown } from '../store/editing';
import { noticed } from '../store/slices';
import { pasteMoved, hitsSelected, selectionEnded, selectionMoved } from '../store/focus';
import { selectPattern, type Store } from '../store/store';
import { words } from '../words/strings';
import { hitsCopied } from '../store/copied';

/** What is done with the hits that are selected: by keys, from the drawer, and by the hand. */

const say = (store: Store, text: string) => store.dispatch(noticed({ text, subject: 'choice' }));

const laneIdsOf = (store: Store): string[] => store.getState().doc.beat!.lanes.map(({ id }) => id);

/** Selects everything within a box, and remembers its edges. */
export const selectBox = (store: Store, box: Box): void => {
  const pattern = selectPattern(store.getState())!;
  const spots = spotsWithin(pattern, box.laneIds, box.from, box.to);
  store.dispatch(hitsSelected({ spots, box }));
};

/** @param bar which bar, from 0 */
export const selectBar = (store: Store, bar: number): void => {
  const length = barTicks(selectPattern(store.getState())!.meter);
  selectBox(store, { laneIds: laneIdsOf(store), from: bar * length, to: (bar + 1) * length });
};

export const selectLane = (store: Store, laneId: string): void =>
  selectBox(store, { laneIds: [laneId], from: 0, to: patternTicks(selectPattern(store.getState())!) });

export const selectAll = (store: Store): void =>
  selectBox(store, {
    laneIds: laneIdsOf(store),
    from: 0,
    to: patternTicks(selectPattern(store.getState())!),
  });

/** The step of a lane that begins at a time, or as near to it as can be told: a clip may lie between steps. */
const spotAt = (store: Store, laneId: string, tick: number): Spot => ({
  laneId,
  step: tick / gridTicks(lanePatternOf(selectPattern(store.getState())!, laneId).grid),
});

/** Copies, with the empty edges of what was drawn around it; says so where there is nothing to copy. The line goes behind it. */
export const copyChosen = (store: Store, spots: Spot[]): boolean => {
  const state = store.getState();
  const lanes = laneIdsOf(store);
  const { box } = state.focus;
  const clip = copyHits(selectPattern(state)!, spots, lanes, box);
  if (!clip) {
    say(store, words.nothingWasCopiedThereIs);
    return false;
  }
  const top = lanes.find((id) =>
    box ? box.laneIds.includes(id) : spots.some(({ laneId }) => laneId === id),
  )!;
  const pattern = selectPattern(state)!;
  const from = box ? box.from : firstOf(pattern, spots);
  store.dispatch(hitsCopied(clip));
  store.dispatch(pasteMoved(spotAt(store, top, from + clip.length)));
  return true;
};

const firstOf = (pattern: Parameters<typeof lanePatternOf>[0], spots: Spot[]): number =>
  Math.min(...spots.map(({ laneId, step }) => step * gridTicks(lanePatternOf(pattern, laneId).grid)));

/** Pastes at a step, and selects what was pasted; says what was cut, or why nothing fits. */
export const pasteAt = (store: Store, at: Spot): void => {
  const state = store.getState();
  const { clip } = state.copied;
  if (!clip) return void say(store, words.nothingWasCopiedYetSelect);
  const pasted = pasteHits(selectPattern(state)!, clip, at, laneIdsOf(store));
  if (!pasted.ok) return void say(store, pasted.error);
  editShown(store, { edit: 'pasteHits', args: { clip, at } });
  const from = at.step * gridTicks(lanePatternOf(pasted.pattern, at.laneId).grid);
  store.dispatch(
    hitsSelected({ spots: pasted.spots, pasteAt: spotAt(store, at.laneId, from + clip.length) }),
  );
  if (pasted.told.length) say(store, pasted.told.join(' '));
};

/** Moves what is selected, and the selection with it. @param steps of the grid of the first lane that is selected */
export const moveChosen = (store: Store, spots: Spot[], steps: number, down: number): void => {
  const state = store.getState();
  const pattern = selectPattern(state)!;
  const [first] = spots;
  if (!first) return;
  const by = steps * gridTicks(lanePatternOf(pattern, first.laneId).grid);
  const moved = moveHits(pattern, spots, by, down, laneIdsOf(store));
  if (!moved.ok) return void say(store, moved.error);
  editShown(store, { edit: 'moveHits', args: { spots, by, lanes: down } });
  store.dispatch(selectionMoved(moved.spots));
  if (moved.told.length) say(store, moved.told.join(' '));
};

/** The same once more, one box later. */
export const duplicateChosen = (store: Store, spots: Spot[]): void => {
  if (copyChosen(store, spots)) pasteAt(store, store.getState().focus.pasteAt!);
};

export const removeChosen = (store: Store, spots: Spot[]): void => {
  editShown(store, { edit: 'removeHits', args: { spots } });
  store.dispatch(selectionEnded());
};
