import type { KeyboardEvent } from 'react';
import { lanePatternOf } from '../../core/document/defaults';
import { digitVelocity, isOn } from '../../core/edit/hits';
import { hitsOn, type Spot } from '../../core/edit/spots';
import { strikeLane } from '../audio/player';
import { laneChanged } from '../store/doc';
import { editShown, setStepShown, setVelocityShown } from '../store/editing';
import { selectionMoved, laneOpened, selectionEnded } from '../store/focus';
import { selectPattern, type Store } from '../store/store';
import { firstShown } from '../web/shown';
import {
  copyChosen,
  duplicateChosen,
  moveChosen,
  pasteAt,
  removeChosen,
  selectAll,
  selectLane,
} from './chosen';
import { hearHit } from './hearHit';
import { drawerTurned } from '../store/look';

/** The velocity of a hit that a key puts down, to be heard. */
const TRY_VELOCITY = 96;

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

const focusName = (lane: Element | null): boolean => {
  const name = lane?.querySelector<HTMLElement>('.name-button');
  name?.focus();
  return name != null;
};

/** From a lane's name to the other names, and onto its string. */
const walkNames = (event: KeyboardEvent, { lane }: Place): boolean => {
  switch (event.key) {
    case 'ArrowRight':
      return focusStep(lane, 0);
    case 'ArrowDown':
      return focusName(beside(lane, 'nextElementSibling'));
    case 'ArrowUp':
      return focusName(beside(lane, 'previousElementSibling'));
    default:
      return false;
  }
};

const walk = (event: KeyboardEvent, place: Place): boolean => {
  const { lane, step, cell } = place;
  if (!cell) return walkNames(event, place);
  switch (event.key) {
    case 'ArrowRight':
      return focusStep(lane, step + 1);
    case 'ArrowLeft':
      return step > 0 ? focusStep(lane, step - 1) : focusName(lane);
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
  const on = isOn(lanePatternOf(pattern, laneId), step);
  const where = { laneId, step };
  if (event.key === 'Enter' || event.key === ' ') {
    if (!event.repeat) setStepShown(store, { ...where, on: !on });
    if (!on && !event.repeat) hearHit(store, laneId, TRY_VELOCITY);
    return true;
  }
  if (!/^[1-9]$/.test(event.key) || event.shiftKey || event.altKey) return false;
  const velocity = digitVelocity(Number(event.key));
  const { selection: spots } = store.getState().focus;
  if (spots.length) editShown(store, { edit: 'setVelocities', args: { spots, to: velocity } });
  else if (on) setVelocityShown(store, { ...where, velocity });
  else setStepShown(store, { ...where, on: true, velocity });
  hearHit(store, laneId, velocity);
  return true;
};

/** How long the drawer may take until it is there. */
const DRAWER_MS = 3000;

/** Takes the focus into the drawer, as soon as it is there. */
const toDrawer = (): void => {
  const until = performance.now() + DRAWER_MS;
  const look = () => {
    const tab = firstShown('#drawer [role=tab][aria-selected=true]');
    if (tab) tab.focus();
    else if (performance.now() < until) requestAnimationFrame(look);
  };
  look();
};

/** From the drawer back to where one was on the strings. */
export const backToStrings = (): void => {
  const open = firstShown('.lane.open');
  const last = firstShown('[data-step][tabindex="0"]');
  if (last && (!open || open.contains(last))) last.focus();
  else if (!focusStep(open, 0)) last?.focus();
};

const workLane = (event: KeyboardEvent, store: Store, { laneId }: Place): boolean => {
  const { doc, focus, look } = store.getState();
  const lane = doc.beat?.lanes.find(({ id }) => id === laneId);
  if (!lane) return false;
  switch (event.key.toLowerCase()) {
    case 'h':
      void strikeLane(laneId, 100);
      return true;
    case 'o':
      store.dispatch(laneOpened(focus.openLane === laneId ? null : laneId));
      return true;
    case 'd':
      store.dispatch(laneOpened(laneId));
      if (!look.drawer) store.dispatch(drawerTurned('hits'));
      toDrawer();
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

/** What the keys are about: what is chosen, or the step in focus. */
const aimed = (store: Store, { laneId, step }: Place): Spot[] => {
  const { selection: spots } = store.getState().focus;
  return spots.length ? spots : step >= 0 ? [{ laneId, step }] : [];
};

const NUDGE_MS = 1;

const nudge = (store: Store, spots: Spot[], ms: number) =>
  editShown(store, { edit: 'nudgeByMs', args: { spots, ms } });

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
  const { selection: spots } = store.getState().focus;
  walk(event, place);
  const now = placeOf(document.activeElement!);
  const both = [place, ...(now ? [now] : [])].map(({ laneId, step }) => ({ laneId, step }));
  const known = new Set(spots.map(({ laneId, step }) => `${step} ${laneId}`));
  store.dispatch(
    selectionMoved([...spots, ...both.filter(({ laneId, step }) => !known.has(`${step} ${laneId}`))]),
  );
  return true;
};

/** Along the notes of a tuned lane whose height is pitch; several hits keep what they are apart. */
const tune = (event: KeyboardEvent, store: Store, spots: Spot[]): boolean => {
  const { heights } = store.getState().focus;
  const up = event.key === 'PageUp';
  if (!heights || (!up && event.key !== 'PageDown')) return false;
  const first = hitsOn(selectPattern(store.getState())!, spots).find(
    ({ laneId }) => laneId === heights.laneId,
  );
  if (!first) return false;
  const now = heights.note + (first.hit.pitch ?? 0);
  const next = up ? heights.notes.find((note) => note > now) : heights.notes.findLast((note) => note < now);
  if (next === undefined) return true;
  editShown(store, { edit: 'shiftPitches', args: { spots, by: next - now } });
  hearHit(store, heights.laneId, first.hit.velocity, next - heights.note);
  return true;
};

const workChosen = (event: KeyboardEvent, store: Store, place: Place): boolean => {
  const spots = aimed(store, place);
  const pattern = selectPattern(store.getState());
  if (!spots.length || !pattern) return false;
  if (tune(event, store, spots)) return true;
  // With Shift they are other signs: then they go by their place on the keyboard.
  const earlier = event.key === ',' || (event.shiftKey && event.code === 'Comma');
  if (earlier || event.key === '.' || (event.shiftKey && event.code === 'Period')) {
    nudge(store, spots, (earlier ? -NUDGE_MS : NUDGE_MS) * (event.shiftKey ? 10 : 1));
    return true;
  }
  switch (event.key) {
    case 'Delete':
    case 'Backspace':
      if (hitsOn(pattern, spots).length) removeChosen(store, spots);
      return true;
    case 'Escape':
      store.dispatch(selectionEnded());
      return true;
    default:
      return false;
  }
};

/** It is pasted where the line is: walking to a step takes the line along, copying puts it behind what was copied. */
const aimedPaste = (store: Store, { laneId, step }: Place): Spot =>
  store.getState().focus.pasteAt ?? { laneId, step: Math.max(0, step) };

const command = (event: KeyboardEvent, store: Store, place: Place): boolean => {
  const pattern = selectPattern(store.getState());
  if (!pattern) return false;
  const spots = aimed(store, place);
  switch (event.key.toLowerCase()) {
    case 'a':
      if (event.shiftKey) selectAll(store);
      else selectLane(store, place.laneId);
      return true;
    case 'c':
      copyChosen(store, spots);
      return true;
    case 'x':
      if (copyChosen(store, spots)) removeChosen(store, spots);
      return true;
    case 'v':
      pasteAt(store, aimedPaste(store, place));
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
