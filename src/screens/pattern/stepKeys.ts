import type { KeyboardEvent } from 'react';
import { partOf } from '../../../core/beat/defaults';
import { digitVelocity, isOn } from '../../../core/pattern/hits';
import { strikeLane } from '../../audio/player';
import { laneChanged, stepSet, velocitySet } from '../../state/doc';
import { viewChanged } from '../../state/slices';
import { selectPattern, type Store } from '../../state/store';

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
  const cells = lane?.querySelectorAll<HTMLElement>('[data-step]');
  const cell = cells?.[Math.min(step, cells.length - 1)];
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
  store.dispatch(on ? velocitySet({ ...where, velocity }) : stepSet({ ...where, on: true, velocity }));
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

/** The keys of the strings. */
export const stepKeys =
  (store: Store) =>
  (event: KeyboardEvent): void => {
    const place = placeOf(event.target);
    if (!place || event.ctrlKey || event.metaKey || event.altKey) return;
    if (walk(event, place) || editStep(event, store, place) || workLane(event, store, place))
      event.preventDefault();
  };
