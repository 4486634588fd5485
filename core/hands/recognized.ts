import type { Hand } from '../document/choices';
import { RUDIMENTS, type Rudiment } from './rudiments';
import type { StickStroke } from './sticking';

/**
 * Rudiments found in plain notes, by their rhythm, accents and grace strokes. Some are the same notes with other hands (a double
 * stroke roll and a single stroke roll): of those the one that comes first in the list is taken.
 */

/** A grace stroke stands so near before its main stroke, and is so much softer. */
const GRACE_MS = 45;
/** The first of two a little more. */
const FIRST_GRACE_MS = 60;
/** An accent is so much harder than the mean of main strokes. */
const ACCENT = 8;
const GRACE_SHARE = 0.75;
/** A stroke may be so far off, as a share of a step. */
const OFF = 0.14;

interface Main {
  at: number;
  ms: number;
  accent: boolean;
  graces: number[];
}

/** Main strokes with the grace strokes before them. @param order places of the strokes of one drum, by time */
const mainsOf = (strokes: readonly StickStroke[], order: readonly number[]): Main[] => {
  const out: Main[] = [];
  let graces: number[] = [];
  order.forEach((at, place) => {
    const { ms, velocity } = strokes[at]!;
    // A run of grace strokes leads up to the first that is no softer than what is before it.
    const louder = order
      .slice(place + 1, place + 3)
      .some(
        (next) =>
          strokes[next]!.ms - ms < (graces.length ? GRACE_MS : FIRST_GRACE_MS) &&
          velocity < GRACE_SHARE * strokes[next]!.velocity,
      );
    if (louder && graces.length < 2) graces.push(at);
    else {
      out.push({ at, ms, accent: false, graces });
      graces = [];
    }
  });
  const mean = out.reduce((sum, { at }) => sum + strokes[at]!.velocity, 0) / Math.max(1, out.length);
  for (const main of out) main.accent = strokes[main.at]!.velocity >= mean + ACCENT;
  return out;
};

/** How many strokes of a rudiment, once through, are there from a place on; 0 where it is not it. */
const matched = (mains: readonly Main[], from: number, { strokes, steps }: Rudiment): number => {
  const count = strokes.length;
  if (from + count > mains.length) return 0;
  const first = mains[from]!;
  const [a, b] = [strokes[0]!, strokes[1]!];
  const unit = (mains[from + 1]!.ms - first.ms) / (b.at - a.at);
  if (!(unit > 20 && unit < 1500)) return 0;
  const accented = strokes.some(({ accent }) => accent);
  for (let k = 0; k < count; k++) {
    const [one, main] = [strokes[k]!, mains[from + k]!];
    if (Math.abs(main.ms - first.ms - (one.at - a.at) * unit) > OFF * unit) return 0;
    if (main.graces.length !== one.graces) return 0;
    if (accented && main.accent !== one.accent) return 0;
    if (!accented && main.accent && !one.graces) return 0;
  }
  const after = mains[from + count];
  // What comes next keeps to its own length.
  if (after && after.ms - first.ms < (steps - a.at) * unit - OFF * unit) return 0;
  return count;
};

const other = (hand: Hand): Hand => (hand === 'R' ? 'L' : 'R');

/**
 * The hands of those strokes of one drum that are rudiments; all others are left open.
 *
 * @param order places of its strokes, by time
 * @param onFound told of each that is found
 */
export const recognized = (
  strokes: readonly StickStroke[],
  order: readonly number[],
  leftHanded = false,
  onFound?: (rudiment: Rudiment) => void,
): Map<number, Hand> => {
  const hands = new Map<number, Hand>();
  const mains = mainsOf(strokes, order);
  const turned = (hand: Hand): Hand => (leftHanded ? other(hand) : hand);
  for (let from = 0; from < mains.length;) {
    let [best, most]: [Rudiment | null, number] = [null, 0];
    for (const rudiment of RUDIMENTS) {
      const count = matched(mains, from, rudiment);
      if (count > most) [best, most] = [rudiment, count];
    }
    if (!best) {
      from += 1;
      continue;
    }
    onFound?.(best);
    best.strokes.forEach(({ hand }, k) => {
      const main = mains[from + k]!;
      hands.set(main.at, turned(hand));
      for (const grace of main.graces) hands.set(grace, other(turned(hand)));
    });
    from += most;
  }
  return hands;
};
