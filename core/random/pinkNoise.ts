import { modulo } from '../numbers';
import { draw, drawOn, fold, PURPOSE } from './draw';
import { MOST_NORMAL, normal } from './normal';

/** Lanes come to the same sixteenths one after another: so many are kept together, in so many pieces. */
const PIECE = 256;
const MOST_KNOWN = 256;
const NONE = new Float64Array(0);

const VOICES = 9;
const DRIFT = PURPOSE.drift;

/**
 * 1/f noise of mean 0 and standard deviation 1, held to ±3, over the sixteenths of the timeline: the sum of nine white
 * noises, of which the k-th is drawn anew every 2^k sixteenths (R. Voss's way, as M. Gardner described it in Scientific
 * American, April 1978), each with a phase of its own drawn from the seed.
 *
 * @param lane 0 for the kit's, a lane's key for one of its own
 * @returns from the number of a sixteenth to its value
 * @example pinkNoise(7, 0)(3) === pinkNoise(7, 0)(3) // true
 */
export const pinkNoise = (seed: number, lane: number): ((j: number) => number) => {
  const periods = Array.from({ length: VOICES }, (_, k) => 2 ** k);
  const phases = periods.map((period, k) => Math.floor(draw(seed, lane, k, 0, PURPOSE.driftPhase) * period));
  // A voice is drawn anew only where its value changes: mostly two of the nine from one sixteenth to the next.
  const drawn = periods.map(() => NaN);
  const values = new Float64Array(VOICES);
  const key = fold(fold(0, seed), lane);
  const known = new Map<number, Float64Array>();
  let last: Float64Array = NONE;
  let lastPlace = NaN;
  const sum = (j: number): number => {
    let all = 0;
    for (let k = 0; k < VOICES; k++) {
      const which = Math.floor((j + phases[k]!) / periods[k]!);
      if (which !== drawn[k]) {
        drawn[k] = which;
        values[k] = normal(drawOn(key, k, which, 0, 0, DRIFT));
      }
      all += values[k]!;
    }
    return Math.max(-MOST_NORMAL, Math.min(MOST_NORMAL, all / 3));
  };
  /** The piece of what is known that a sixteenth is in. */
  const pieceOf = (place: number): Float64Array => {
    if (place === lastPlace) return last;
    if (known.size > MOST_KNOWN) known.clear();
    const piece = known.get(place) ?? new Float64Array(PIECE).fill(NaN);
    known.set(place, piece);
    [last, lastPlace] = [piece, place];
    return piece;
  };
  return (j) => {
    const place = Math.floor(j / PIECE);
    const piece = pieceOf(place);
    const at = j - place * PIECE;
    const before = piece[at]!;
    return Number.isNaN(before) ? (piece[at] = sum(j)) : before;
  };
};

/**
 * 1/f noise that comes round: as `pinkNoise`, but its voices are counted modulo the loop, those longer than the loop are left
 * out, and the sum has mean 0 and standard deviation 1 over the loop, held to ±3.
 *
 * @param lane 0 for the kit's, a lane's key for one of its own
 * @param n the length of the loop in sixteenths, 1 or more
 * @returns from the number of a sixteenth, counted modulo n, to its value; 0 throughout where nothing varies
 * @example circularPink(7, 0, 16)(1) === circularPink(7, 0, 16)(17) // true
 */
export const circularPink = (seed: number, lane: number, n: number): ((j: number) => number) => {
  const key = fold(fold(0, seed), lane);
  const sums = new Float64Array(n);
  for (let k = 0; k < VOICES && 2 ** k <= n; k++) {
    const period = 2 ** k;
    const phase = Math.floor(draw(seed, lane, k, 0, PURPOSE.driftPhase) * period);
    for (let j = 0; j < n; j++)
      sums[j]! += normal(drawOn(key, k, Math.floor(((j + phase) % n) / period), 0, 0, DRIFT));
  }
  let mean = 0;
  for (const sum of sums) mean += sum / n;
  let variance = 0;
  for (const sum of sums) variance += (sum - mean) ** 2 / n;
  const scale = variance > 1e-18 ? 1 / Math.sqrt(variance) : 0;
  const values = sums.map((sum) => Math.max(-MOST_NORMAL, Math.min(MOST_NORMAL, (sum - mean) * scale)));
  return (j) => values[modulo(j, n)]!;
};
