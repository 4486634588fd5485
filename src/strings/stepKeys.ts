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
import { keyOf } from '../ui/keys';
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

/** Puts a hit on the step, or takes it off. */
const put = (store: Store, { laneId, step }: Place): void => {
  const on = isOn(lanePatternOf(selectPattern(store.getState())!, laneId), step);
  setStepShown(store, { laneId, step, on: !on });
  if (!on) hearHit(store, laneId, TRY_VELOCITY);
};

/** Gives what is selected a velocity, or the step, which gets a hit where it has none. */
const strikeAt = (store: Store, { laneId, step }: Place, velocity: number): void => {
  const { selection: spots } = store.getState().focus;
  const on = isOn(lanePatternOf(selectPattern(store.getState())!, laneId), step);
  if (spots.length) editShown(store, { edit: 'setVelocities', args: { spots, to: velocity } });
  else if (on) setVelocityShown(store, { laneId, step, velocity });
  else setStepShown(store, { laneId, step, on: true, velocity });
  hearHit(store, laneId, velocity);
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

/** Opens a lane in the drawer, and takes the focus there. */
const intoDrawer = (store: Store, laneId: string): void => {
  store.dispatch(laneOpened(laneId));
  if (!store.getState().look.drawer) store.dispatch(drawerTurned('hits'));
  toDrawer();
};

const flip = (store: Store, laneId: string, what: 'mute' | 'solo'): void => {
  const lane = laneOf(store, laneId)!;
  store.dispatch(laneChanged({ laneId, change: { [what]: !lane[what] } }));
};

const laneOf = (store: Store, laneId: string) =>
  store.getState().doc.beat?.lanes.find(({ id }) => id === laneId);

/** What the keys are about: what is chosen, or the step in focus. */
const aimed = (store: Store, { laneId, step }: Place): Spot[] => {
  const { selection: spots } = store.getState().focus;
  return spots.length ? spots : step >= 0 ? [{ laneId, step }] : [];
};

/** By how much a key nudges, in ms, and how many times as far with Shift. */
const NUDGE_MS = 1;
const NUDGE_FAR = 10;

const nudge = (store: Store, spots: Spot[], ms: number) =>
  editShown(store, { edit: 'nudgeByMs', args: { spots, ms } });

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Walks on, and takes the step that one comes to into the selection. */
const extend = (event: KeyboardEvent, store: Store, place: Place): void => {
  const { selection: spots } = store.getState().focus;
  walk(event, place);
  const now = placeOf(document.activeElement!);
  const both = [place, ...(now ? [now] : [])].map(({ laneId, step }) => ({ laneId, step }));
  const known = new Set(spots.map(({ laneId, step }) => `${step} ${laneId}`));
  store.dispatch(
    selectionMoved([...spots, ...both.filter(({ laneId, step }) => !known.has(`${step} ${laneId}`))]),
  );
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

/** It is pasted where the line is: walking to a step takes the line along, copying puts it behind what was copied. */
const aimedPaste = (store: Store, { laneId, step }: Place): Spot =>
  store.getState().focus.pasteAt ?? { laneId, step: Math.max(0, step) };

/** Those that work on the step in focus, or on what is selected. */
const ON_STEPS = [
  'extend',
  'move',
  'walk',
  'ends',
  'tune',
  'nudgeFar',
  'nudge',
  'remove',
  'deselect',
  'put',
  'velocity',
] as const;
const ON_LANES = [
  'open',
  'drawer',
  'hear',
  'mute',
  'solo',
  'selectAll',
  'selectLane',
  'copy',
  'cut',
  'paste',
  'duplicate',
] as const;
const HEARD = [...ON_STEPS, ...ON_LANES];
type Heard = (typeof HEARD)[number];

/** Those that do nothing where nothing is selected and no step is in focus. */
const NEEDS_SPOTS: ReadonlySet<Heard> = new Set(['tune', 'nudge', 'nudgeFar', 'remove', 'deselect']);

interface Work {
  event: KeyboardEvent;
  store: Store;
  place: Place;
  /** What it is about: what is selected, or the step in focus. */
  spots: Spot[];
}

/** @returns whether there was anything to do */
const DOES: Record<Heard, (work: Work) => boolean | void> = {
  walk: ({ event, place }) => walk(event, place),
  ends: ({ event, place }) => walk(event, place),
  extend: ({ event, store, place }) => (place.cell ? extend(event, store, place) : walk(event, place)),
  move: ({ event, store, place, spots }) =>
    place.cell !== null && moveChosen(store, spots, ...ARROWS[event.key]!),
  tune: ({ event, store, spots }) => tune(event, store, spots),
  nudge: ({ event, store, spots }) => nudge(store, spots, event.key === ',' ? -NUDGE_MS : NUDGE_MS),
  nudgeFar: ({ event, store, spots }) =>
    nudge(store, spots, (event.key === ',' || event.code === 'Comma' ? -NUDGE_MS : NUDGE_MS) * NUDGE_FAR),
  remove: ({ store, spots }) => {
    if (hitsOn(selectPattern(store.getState())!, spots).length) removeChosen(store, spots);
  },
  deselect: ({ store }) => void store.dispatch(selectionEnded()),
  put: ({ event, store, place }) => place.cell !== null && void (event.repeat || put(store, place)),
  velocity: ({ event, store, place }) =>
    place.cell !== null && strikeAt(store, place, digitVelocity(Number(event.key))),
  open: ({ store, place: { laneId } }) =>
    void store.dispatch(laneOpened(store.getState().focus.openLane === laneId ? null : laneId)),
  drawer: ({ store, place }) => intoDrawer(store, place.laneId),
  hear: ({ place }) => void strikeLane(place.laneId, 100),
  mute: ({ store, place: { laneId } }) => flip(store, laneId, 'mute'),
  solo: ({ store, place: { laneId } }) => flip(store, laneId, 'solo'),
  selectAll: ({ store }) => selectAll(store),
  selectLane: ({ store, place }) => selectLane(store, place.laneId),
  copy: ({ store, spots }) => void copyChosen(store, spots),
  cut: ({ store, spots }) => void (copyChosen(store, spots) && removeChosen(store, spots)),
  paste: ({ store, place }) => pasteAt(store, aimedPaste(store, place)),
  duplicate: ({ store, spots }) => duplicateChosen(store, spots),
};

/** The keys of the strings. */
export const stepKeys =
  (store: Store) =>
  (event: KeyboardEvent): void => {
    const place = placeOf(event.target);
    const id = place && keyOf(event, HEARD);
    if (!id || !selectPattern(store.getState()) || !laneOf(store, place.laneId)) return;
    const spots = aimed(store, place);
    if (NEEDS_SPOTS.has(id) && !spots.length) return;
    if (DOES[id]({ event, store, place, spots }) !== false) event.preventDefault();
  };
