import type { InstrumentId } from '../document/instruments';

/** Drums that stand for one another: each is struck by the same limb and means the same in a beat. All others are their own kind. */
const KINDS: InstrumentId[][] = [
  ['kick', 'kick.second'],
  ['snare', 'snare.second', 'snare.rimshot'],
  ['hat.open', 'hat.half'],
  ['ride', 'ride.second'],
  ['crash', 'crash.second', 'china', 'splash'],
  ['tom.high', 'tom.highMid', 'tom.mid'],
  ['tom.low', 'tom.floor', 'tom.floorLow'],
  ['shaker', 'maracas', 'cabasa'],
  ['woodblock.high', 'woodblock.low', 'claves'],
  ['conga.open', 'conga.low'],
];

/**
 * Whether a line written for one drum may be played on another: a ride never on a crash, a snare never on a clap, what a foot
 * plays never by hand.
 *
 * @example isOfKind('ride', 'ride.second') // true
 * @example isOfKind('ride', 'crash') // false
 */
export const isOfKind = (a: InstrumentId, b: InstrumentId): boolean =>
  a === b || KINDS.some((kind) => kind.includes(a) && kind.includes(b));
