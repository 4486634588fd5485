import { modulo } from '../numbers';
import { draw, PURPOSE } from '../random/draw';
import type { Velocity } from '../units';

/** A rhythm from a ring of slots, some of which are struck. */

/** From one slot to as many as there are listed at once. */
export const RING_SLOTS = { least: 1, most: 24, whole: true } as const;

/** Strikes and slots as bits of a number: slot 0 is the highest of `slots` bits. */
type Mask = number;

const bit = (slots: number, slot: number): Mask => 1 << (slots - 1 - slot);

/** The slots that are struck, in their order. */
const slotsOfMask = (mask: Mask, slots: number): number[] =>
  Array.from({ length: slots }, (_, slot) => slot).filter((slot) => mask & bit(slots, slot));

const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : a);

/** How many numbers up to `n` share no factor with it. */
const phi = (n: number): number => {
  let count = 0;
  for (let i = 1; i <= n; i++) if (gcd(i, n) === 1) count += 1;
  return count;
};

const choose = (n: number, k: number): number => {
  let out = 1;
  for (let i = 1; i <= k; i++) out = (out * (n - k + i)) / i;
  return Math.round(out);
};

/**
 * How many ways there are to strike `strikes` of `slots`, those that are rotations of one another counted once: binary
 * necklaces, 1/n * sum over d | gcd(n, k) of phi(d) * C(n/d, k/d).
 *
 * @param slots 1 to 24
 * @param strikes 0 to `slots`
 * @example arrangementCount(16, 5) // 273
 */
export const arrangementCount = (slots: number, strikes: number): number => {
  const common = gcd(slots, strikes);
  let sum = 0;
  for (let d = 1; d <= common; d++) if (common % d === 0) sum += phi(d) * choose(slots / d, strikes / d);
  return sum / slots;
};

/**
 * The most even rhythm of all: slot i is struck if (i * k) mod n < k.
 *
 * @example euclideanSlots(8, 3) // [0, 3, 6]
 */
export const euclideanSlots = (slots: number, strikes: number): number[] =>
  Array.from({ length: slots }, (_, slot) => slot).filter((slot) => (slot * strikes) % slots < strikes);

/**
 * Every necklace once, as the lists of its gaps that are the greatest of all their rotations: after F. Ruskey, C. Savage and
 * T. Wang, "Generating necklaces", Journal of Algorithms 13, 1992, with greater gaps first.
 */
const eachNecklace = (slots: number, strikes: number, give: (gaps: Int8Array) => void): void => {
  // gaps[0] stands before the first one, so that the first may be anything.
  const gaps = new Int8Array(strikes + 1);
  gaps[0] = slots;
  const next = (at: number, period: number, left: number): void => {
    if (at > strikes) {
      if (left === 0 && strikes % period === 0) give(gaps);
      return;
    }
    const rest = strikes - at;
    const most = Math.min(gaps[at - period]!, left - rest);
    // What is left over must fit into gaps no greater than the first.
    const first = at === 1 ? slots : gaps[1]!;
    for (let gap = most; gap >= 1 && left - gap <= rest * Math.min(first, at === 1 ? gap : first); gap--) {
      gaps[at] = gap;
      next(at + 1, gap === gaps[at - period] ? period : at, left - gap);
    }
  };
  next(1, 1, slots);
};

/** Sums of sines that agree to nine decimals are one. */
const NINE = 1e9;

/** How even a rhythm is: the sum over all pairs of strikes of sin(pi * distance / n). */
const evenness = (places: Int8Array, strikes: number, sines: Float64Array): number => {
  let sum = 0;
  for (let i = 1; i < strikes; i++) for (let j = 0; j < i; j++) sum += sines[places[i]! - places[j]!]!;
  return Math.round(sum * NINE);
};

/**
 * All arrangements of strikes on a ring, from even to clustered: by the sum over all pairs of strikes of sin(pi * distance / n),
 * greatest first, equal ones by their gaps, greatest first. The first is the Euclidean rhythm (Demaine et al., "The distance
 * geometry of music", Computational Geometry 42, 2009).
 *
 * @param slots 1 to 24
 * @param strikes 0 to `slots`
 * @returns a number for each, to be read by `arrangementSlots`
 * @example arrangements(8, 3).length // 7
 */
export const arrangements = (slots: number, strikes: number): Uint32Array => {
  if (strikes === 0) return Uint32Array.of(0);
  const count = arrangementCount(slots, strikes);
  const masks = new Uint32Array(count);
  const even = new Float64Array(count);
  const sines = Float64Array.from({ length: slots }, (_, d) => Math.sin((Math.PI * d) / slots));
  const places = new Int8Array(strikes);
  let size = 0;
  eachNecklace(slots, strikes, (gaps) => {
    let mask = 0;
    let slot = 0;
    for (let i = 0; i < strikes; i++) {
      places[i] = slot;
      mask |= bit(slots, slot);
      slot += gaps[i + 1]!;
    }
    masks[size] = mask;
    even[size] = evenness(places, strikes, sines);
    size += 1;
  });
  // A greater gap leaves the next strike for later: of two numbers the one with the greater gaps is the smaller.
  const order = Uint32Array.from(masks, (_, at) => at).sort(
    (a, b) => even[b]! - even[a]! || masks[a]! - masks[b]!,
  );
  return Uint32Array.from(order, (at) => masks[at]!);
};

/**
 * The struck slots of one arrangement, beginning with slot 0.
 *
 * @param mask one of those that `arrangements` gives
 * @example arrangementSlots(arrangements(8, 3)[1]!, 8) // [0, 4, 6]
 */
export const arrangementSlots = (mask: number, slots: number): number[] => slotsOfMask(mask, slots);

/**
 * Turns a ring: strikes come so many slots later, round the ring.
 *
 * @example rotatedSlots([0, 3, 6], 8, 1) // [1, 4, 7]
 */
export const rotatedSlots = (struck: readonly number[], slots: number, by: number): number[] =>
  struck.map((slot) => modulo(slot + by, slots)).sort((a, b) => a - b);

/** How the strikes of a ring are played. */
export interface RingPlay {
  velocity: Velocity;
  accent: Velocity;
  /** Every so many strikes one has the accent; 0 is none. */
  every: number;
  /** The strike that the accents are counted from, from 0; those before it have one too where it is their turn. */
  from: number;
  /** The chance that a strike becomes several strokes, 0 to 1, and how many. */
  doubling: number;
  into: 2 | 3;
}

export interface RingHit {
  slot: number;
  /** Which time round the ring, from 0. */
  round: number;
  velocity: Velocity;
  /** 1, or as many as doubling makes of it. */
  strokes: number;
}

/**
 * The hits of a ring that is gone round again and again, cut at an end. Accents are counted anew in each round, so that a ring
 * sounds alike however often it is gone round.
 *
 * @param struck the slots that are struck, in their order
 * @param total how many slots there are in all
 * @param seed what is doubled follows from it, and from `key`, the lane's id as a number
 * @example
 * ringHits([0, 3, 6], 8, 8, { velocity: 100, accent: 120, every: 2, from: 0, doubling: 0, into: 2 }, 1, 0).map(({ velocity }) => velocity)
 * // [120, 100, 120]
 */
export const ringHits = (
  struck: readonly number[],
  slots: number,
  total: number,
  play: RingPlay,
  seed: number,
  key: number,
): RingHit[] => {
  const out: RingHit[] = [];
  for (let round = 0; round * slots < total; round++)
    struck.forEach((slot, strike) => {
      if (round * slots + slot >= total) return;
      const accented = play.every > 0 && modulo(strike - play.from, play.every) === 0;
      const doubled = draw(seed, key, round, slot, PURPOSE.ringDouble) < play.doubling;
      out.push({
        slot,
        round,
        velocity: accented ? play.accent : play.velocity,
        strokes: doubled ? play.into : 1,
      });
    });
  return out;
};

/**
 * The slots of a ring that are not struck.
 *
 * @example restSlots([0, 3, 6], 8) // [1, 2, 4, 5, 7]
 */
export const restSlots = (struck: readonly number[], slots: number): number[] =>
  Array.from({ length: slots }, (_, slot) => slot).filter((slot) => !struck.includes(slot));

/**
 * Deals strikes to several lanes in turn.
 *
 * @param lanes how many, 1 or more
 * @example dealt([0, 3, 6], 2) // [[0, 6], [3]]
 */
export const dealt = <T>(strikes: readonly T[], lanes: number): T[][] =>
  Array.from({ length: lanes }, (_, lane) => strikes.filter((_strike, at) => at % lanes === lane));

/**
 * Which arrangement some struck slots are, and by how much it is turned.
 *
 * @returns the arrangement's own slots, the first of them 0, and the number that `arrangements` has for it
 * @example arrangementOf([1, 4, 7], 8).struck // [0, 3, 6]
 */
export const arrangementOf = (
  struck: readonly number[],
  slots: number,
): { struck: number[]; rotate: number; mask: number } => {
  if (!struck.length) return { struck: [], rotate: 0, mask: 0 };
  const turned = struck.map((first) => {
    const own = rotatedSlots(struck, slots, -first);
    return { struck: own, rotate: first, mask: own.reduce((mask, slot) => mask | bit(slots, slot), 0) >>> 0 };
  });
  return turned.reduce((best, one) => (one.mask < best.mask ? one : best));
};
