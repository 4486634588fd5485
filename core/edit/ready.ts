import type { PatternEdit } from './edits';
import type { Spot } from './spots';
import { PRESS_ROLL, sloped } from '../document/rolls';

/** The arguments of an edit besides the hits or lanes that it is for. */
type Rest<E extends PatternEdit['edit']> = Omit<
  Extract<PatternEdit, { edit: E }>['args'],
  'spots' | 'laneIds'
>;

interface Ready<E extends PatternEdit['edit'] = PatternEdit['edit']> {
  edit: E;
  args: Rest<E>;
}

const ready = <E extends PatternEdit['edit']>(edit: E, args: Rest<E>): Ready => ({ edit, args }) as Ready;

/** A seventh softer, and as much harder. */
const SOFTER = 0.85;

/** Edits of hits that a button or a command makes as they stand: the drawer and the search take them from here. */
export const READY_FOR_HITS = {
  twoStrokes: ready('setRolls', { roll: sloped(2, 0) }),
  threeStrokes: ready('setRolls', { roll: sloped(3, 0) }),
  fourRising: ready('setRolls', { roll: sloped(4, 0.6) }),
  pressRoll: ready('setRolls', { roll: PRESS_ROLL }),
  noRoll: ready('setRolls', { roll: null }),
  noGrace: ready('setGraces', { grace: null }),
  softer: ready('scaleVelocities', { factor: SOFTER }),
  harder: ready('scaleVelocities', { factor: 1 / SOFTER }),
  closerTogether: ready('compressVelocities', { ratio: 0.5 }),
  furtherApart: ready('compressVelocities', { ratio: 1.5 }),
  msEarlier: ready('nudgeByMs', { ms: -1 }),
  msLater: ready('nudgeByMs', { ms: 1 }),
  onTheGrid: ready('setNudges', { to: 0 }),
  ringsOut: ready('setLengths', { length: null }),
  upToTheNext: ready('lengthsToNext', {}),
};

/** The same for lanes. */
export const READY_FOR_LANES = {
  asLongAsThePattern: ready('setPart', { change: { steps: null } }),
  stepLeft: ready('shift', { by: -1 }),
  stepRight: ready('shift', { by: 1 }),
  rotateLeft: ready('rotate', { by: -1 }),
  rotateRight: ready('rotate', { by: 1 }),
  reverse: ready('reverse', {}),
  mirror: ready('mirror', {}),
  double: ready('double', {}),
  halve: ready('halve', {}),
  halfTime: ready('stretch', { factor: 2 }),
  doubleTime: ready('stretch', { factor: 0.5 }),
  thinOut: ready('thin', {}),
  thicken: ready('thicken', {}),
  clear: ready('clearLanes', {}),
};

export type ReadyForHits = keyof typeof READY_FOR_HITS;
export type ReadyForLanes = keyof typeof READY_FOR_LANES;

/**
 * A ready edit of some hits.
 *
 * @example readyForHits('softer', []) // { edit: "scaleVelocities", args: { factor: 0.85, spots: [] } }
 */
export const readyForHits = (name: ReadyForHits, spots: Spot[]): PatternEdit => {
  const { edit, args } = READY_FOR_HITS[name];
  return { edit, args: { ...args, spots } } as PatternEdit;
};

/**
 * A ready edit of some lanes.
 *
 * @example readyForLanes('reverse', ['kick']) // { edit: "reverse", args: { laneIds: ["kick"] } }
 */
export const readyForLanes = (name: ReadyForLanes, laneIds: string[]): PatternEdit => {
  const { edit, args } = READY_FOR_LANES[name];
  return { edit, args: { ...args, laneIds } } as PatternEdit;
};
