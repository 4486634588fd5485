/**
 * Every random number is a pure function of what it is drawn for, so that any stretch of the timeline can be computed
 * alone and agrees with the whole. No library offers a keyed hash over a few integers at this cost, and its results
 * are part of the file format: a beat carries the version (`random: 1`) under which it was made.
 */

/** The purpose of a random number; numbers for different purposes are independent. */
export const PURPOSE = {
  chance: 1,
  order: 2,
  walk: 3,
  timing: 4,
  velocity: 5,
  drift: 6,
  driftPhase: 7,
  stroke: 8,
  /** Draws of moves. */
  stagger: 9,
  spark: 10,
  detour: 11,
  /** Of a player: the error of its hands. */
  touch: 12,
  /** Draws of makers: how many hits, where, how hard; and of a variation which hit, what becomes of it, and where to. */
  makeCount: 101,
  makePlace: 102,
  makeVelocity: 103,
  varyChoose: 104,
  varyKind: 105,
  varyWhere: 106,
  ringDouble: 107,
  /** Of bands: whether a candidate is struck, whether it is held over, and how it is played. */
  bandStruck: 108,
  bandHeld: 109,
  bandVelocity: 110,
  bandPitch: 111,
  bandLength: 112,
  bandChance: 113,
  bandNudge: 114,
  bandWalk: 115,
  /** Of a whole beat: whether a place is struck, how hard, how far off, which groove is followed. */
  beatStruck: 116,
  beatVelocity: 117,
  beatTiming: 118,
  beatSource: 119,
  /** Which of several is given. */
  beatChoice: 120,
  /** Of a sound: which of its strikes. */
  strike: 121,
  /** Of a voice: which of its layers. */
  layer: 122,
} as const;

/** The finalizer of MurmurHash3 (A. Appleby, public domain): every bit of the input reaches every bit of the output. */
const mix = (value: number): number => {
  let h = value | 0;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return h ^ (h >>> 16);
};

const GOLDEN = 0x9e3779b9;

/**
 * Mixes integers into one of 32 bits.
 *
 * @example hash(1, 2) === hash(1, 2) // true
 */
export const hash = (...keys: number[]): number => {
  let h = 0;
  for (const key of keys) h = fold(h, key);
  return h >>> 0;
};

/** Mixes one more integer into what the ones before it gave. @example fold(0, 7) === fold(0, 7) // true */
export const fold = (h: number, key: number): number => mix(Math.imul(h, 5) + GOLDEN + mix(key | 0));

/** The number from 0 up to 1 that keys folded together give. @example drawFrom(fold(fold(0, 7), 3)) === draw(7, 3) // true */
export const drawFrom = (folded: number): number => (folded >>> 0) / 4294967296;

/**
 * The number that `draw(seed, lane, round, step, place, stroke, purpose)` gives, where the first two have been folded
 * together beforehand: most of what is drawn is drawn for one lane.
 *
 * @example drawOn(fold(fold(0, 7), 3), 0, 4, 0, 0, 1) === draw(7, 3, 0, 4, 0, 0, 1) // true
 */
export const drawOn = (
  seedAndLane: number,
  round: number,
  step: number,
  place: number,
  stroke: number,
  purpose: number,
): number => drawFrom(fold(fold(fold(fold(fold(seedAndLane, round), step), place), stroke), purpose));

/** A lane's id as a number. @example hashText('kick') === hashText('kick') // true */
export const hashText = (text: string): number => {
  let h = text.length;
  for (let i = 0; i < text.length; i++) h = hash(h, text.charCodeAt(i));
  return h;
};

/**
 * A number from 0 up to, but not including, 1.
 *
 * @param keys seed, lane, round, step, place within the step, stroke, purpose
 * @example draw(7, 3, 0, 4, 0, 0, 1) < 1 // true
 */
export const draw = (...keys: number[]): number => hash(...keys) / 4294967296;
