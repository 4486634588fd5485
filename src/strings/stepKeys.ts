import type { KeyboardEvent } from 'react';
import { partOf } from '../../core/beat/defaults';
import { digitVelocity, isOn } from '../../core/pattern/hits';
import { copyHits, hitsOn, moveHits, pasteHits, spotsOf, type Spot } from '../../core/pattern/spots';
import { planLane } from '../../core/play/plan';
import { ticksPerMs } from '../../core/units';
import { strikeLane } from '../audio/player';
import { laneChanged, stepSet, velocitySet } from '../state/doc';
import { editShown } from '../state/editing';
import { noticed, viewChanged } from '../state/slices';
import { selectPattern, type Store } from '../state/store';

/** Which step the keys work on, found from where the focus is. */
interface Place {
  cell: HTMLElement | null;
  lane: HTMLElement;
  laneId: string;
  step: number;
}

const placeOf = (target: EventTarget): Place | null => {
  if (!(target instanceof Element)) return null;
  const lane = target.closest<HTMLElement>('[data-lane]');
  if (!lane) return null;
  const cell = target.closest<HTMLElement>('[data-step]');
  return { cell, lane, laneId: lane.dataset['lane']!, step: Number(cell?.dataset['step'] ?? -1) };
};

const focusStep = (lane: Element | null | undefined, step: number): boolean => {
  const cells = [...(lane?.querySelectorAll<HTMLElement>('[data-step]') ?? [])];
  const cell = cells.find((one) => Number(one.dataset['step']) === Math.min(step, cells.length - 1));
  cell?.focus();
  cell?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  return cell !== undefined;
};

const beside = (lane: Element, way: 'nextElementSibling' | 'previousElementSibling'): Element | null => {
  let at = lane[way];
  while (at && !at.hasAttribute('data-lane')) at = at[way];
  return at;
};

const walk = (event: KeyboardEvent, { lane, step, cell }: Place): boolean => {
  if (!cell) return false;
  switch (event.key) {
    case 'ArrowRight':
      return focusStep(lane, step + 1);
    case 'ArrowLeft':
      return focusStep(lane, Math.max(0, step - 1));
    case 'ArrowDown':
      return focusStep(beside(lane, 'nextElementSibling'), step);
    case 'ArrowUp':
      return focusStep(beside(lane, 'previousElementSibling'), step);
    case 'Home':
      return focusStep(lane, 0);
    case 'End':
      return focusStep(lane, Infinity);
    default:
      return false;
  }
};

const editStep = (event: KeyboardEvent, store: Store, { laneId, step, cell }: Place): boolean => {
  const pattern = selectPattern(store.getState());
  if (!cell || !pattern) return false;
  const on = isOn(partOf(pattern, laneId), step);
  const where = { patternId: pattern.id, laneId, step };
  if (event.key === 'Enter') {
    store.dispatch(stepSet({ ...where, on: !on }));
    return true;
  }
  if (!/^[1-9]$/.test(event.key) || event.shiftKey) return false;
  const velocity = digitVelocity(Number(event.key));
  const { spots } = store.getState().view;
  if (spots.length) editShown(store, { edit: 'setVelocities', args: { spots, to: velocity } });
  else store.dispatch(on ? velocitySet({ ...where, velocity }) : stepSet({ ...where, on: true, velocity }));
  return true;
};

const workLane = (event: KeyboardEvent, store: Store, { laneId }: Place): boolean => {
  const { doc, view } = store.getState();
  const lane = doc.beat?.lanes.find(({ id }) => id === laneId);
  if (!lane) return false;
  switch (event.key.toLowerCase()) {
    case 'h':
      void strikeLane(laneId, 100);
      return true;
    case 'o':
      store.dispatch(viewChanged({ openLane: view.openLane === laneId ? null : laneId }));
      return true;
    case 'm':
      store.dispatch(laneChanged({ laneId, change: { mute: !lane.mute } }));
      return true;
    case 's':
      store.dispatch(laneChanged({ laneId, change: { solo: !lane.solo } }));
      return true;
    default:
      return false;
  }
};

const say = (store: Store, text: string) => store.dispatch(noticed({ text, subject: 'choice' }));

/** What the keys are about: what is chosen, or the step in focus. */
const aimed = (store: Store, { laneId, step }: Place): Spot[] => {
  const { spots } = store.getState().view;
  return spots.length ? spots : step >= 0 ? [{ laneId, step }] : [];
};

/** Copies; says so where there is nothing to copy. */
export const copyChosen = (store: Store, spots: Spot[]): boolean => {
  const state = store.getState();
  const clip = copyHits(
    selectPattern(state)!,
    spots,
    state.doc.beat!.lanes.map(({ id }) => id),
  );
  if (clip) store.dispatch(viewChanged({ clip }));
  else say(store, 'Nothing was copied: there is no hit on what is chosen.');
  return clip !== null;
};

/** Pastes at a step, and chooses what was pasted; says why where nothing fits. */
export const pasteAt = (store: Store, at: Spot): void => {
  const state = store.getState();
  const { clip } = state.view;
  if (!clip) return void say(store, 'Nothing was copied yet: choose hits and copy them first.');
  const lanes = state.doc.beat!.lanes.map(({ id }) => id);
  const pasted = pasteHits(selectPattern(state)!, clip, at, lanes);
  if (!pasted.ok) return void say(store, pasted.error);
  editShown(store, { edit: 'pasteHits', args: { clip, at } });
  store.dispatch(viewChanged({ spots: pasted.spots }));
};

/** Moves what is chosen, and the choice with it. */
export const moveChosen = (store: Store, spots: Spot[], steps: number, down: number): void => {
  const state = store.getState();
  const lanes = state.doc.beat!.lanes.map(({ id }) => id);
  const moved = moveHits(selectPattern(state)!, spots, steps, down, lanes);
  if (!moved.ok) return void say(store, moved.error);
  editShown(store, { edit: 'moveHits', args: { spots, steps, lanes: down } });
  store.dispatch(viewChanged({ spots: moved.spots }));
};

/** The same once more, right after itself. */
export const duplicateChosen = (store: Store, spots: Spot[]): void => {
  if (!copyChosen(store, spots)) return;
  const { clip } = store.getState().view;
  const lanes = store.getState().doc.beat!.lanes.map(({ id }) => id);
  const top = spots.reduce((best, one) =>
    lanes.indexOf(one.laneId) < lanes.indexOf(best.laneId) ? one : best,
  );
  pasteAt(store, { laneId: top.laneId, step: Math.min(...spots.map(({ step }) => step)) + clip!.width });
};

export const removeChosen = (store: Store, spots: Spot[]): void =>
  editShown(store, { edit: 'removeHits', args: { spots } });

const NUDGE_MS = 1;

const nudge = (store: Store, spots: Spot[], ms: number) => {
  const state = store.getState();
  const beat = state.doc.beat!;
  const lane = beat.lanes.find(({ id }) => id === spots[0]!.laneId)!;
  const step = planLane(beat, selectPattern(state)!, lane).step;
  editShown(store, { edit: 'nudgeHits', args: { spots, by: (ms * ticksPerMs(beat.tempo)) / step } });
};

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const moveOrExtend = (event: KeyboardEvent, store: Store, place: Place): boolean => {
  const arrow = ARROWS[event.key];
  if (!arrow || !place.cell) return false;
  if (event.altKey) {
    moveChosen(store, aimed(store, place), ...arrow);
    return true;
  }
  if (!event.shiftKey) return false;
  const { spots } = store.getState().view;
  walk(event, place);
  const now = placeOf(document.activeElement!);
  const both = [place, ...(now ? [now] : [])].map(({ laneId, step }) => ({ laneId, step }));
  const known = new Set(spots.map(({ laneId, step }) => `${step} ${laneId}`));
  store.dispatch(
    viewChanged({ spots: [...spots, ...both.filter(({ laneId, step }) => !known.has(`${step} ${laneId}`))] }),
  );
  return true;
};

const workChosen = (event: KeyboardEvent, store: Store, place: Place): boolean => {
  const spots = aimed(store, place);
  const pattern = selectPattern(store.getState());
  if (!spots.length || !pattern) return false;
  switch (event.key) {
    case 'Delete':
    case 'Backspace':
      if (hitsOn(pattern, spots).length) removeChosen(store, spots);
      return true;
    case ',':
    case '.':
      nudge(store, spots, (event.key === ',' ? -NUDGE_MS : NUDGE_MS) * (event.shiftKey ? 10 : 1));
      return true;
    case 'Escape':
      store.dispatch(viewChanged({ spots: [] }));
      return true;
    default:
      return false;
  }
};

const command = (event: KeyboardEvent, store: Store, place: Place): boolean => {
  const pattern = selectPattern(store.getState());
  if (!pattern) return false;
  const spots = aimed(store, place);
  switch (event.key.toLowerCase()) {
    case 'a':
      store.dispatch(viewChanged({ spots: spotsOf(pattern, place.laneId) }));
      return true;
    case 'c':
      copyChosen(store, spots);
      return true;
    case 'x':
      if (copyChosen(store, spots)) removeChosen(store, spots);
      return true;
    case 'v':
      pasteAt(store, { laneId: place.laneId, step: Math.max(0, place.step) });
      return true;
    case 'd':
      duplicateChosen(store, spots);
      return true;
    default:
      return false;
  }
};

/** The keys of the strings. */
export const stepKeys =
  (store: Store) =>
  (event: KeyboardEvent): void => {
    const place = placeOf(event.target);
    if (!place) return;
    const done =
      event.ctrlKey || event.metaKey
        ? command(event, store, place)
        : moveOrExtend(event, store, place) ||
          (!event.altKey &&
            (walk(event, place) ||
              workChosen(event, store, place) ||
              editStep(event, store, place) ||
              workLane(event, store, place)));
    if (done) event.preventDefault();
  };
