import { beatTicks } from '../document/meter';
import { positionOf } from '../document/position';
import { footOf, SAME_LIMB_MS } from '../hands/kitPlan';
import { sticking, unplayable, type StickStroke } from '../hands/sticking';
import { ticksPerMs, type Ms } from '../units';
import type { Groove } from './groove';

/** Whether one drummer can play a groove, with two hands and two feet. */
export interface Playability extends ReturnType<typeof unplayable> {
  strokes: number;
}

interface Placed extends StickStroke {
  lane: number;
  hit: number;
}

/** The strokes of a groove's drums, as one drummer would have them; what has pitches, or no drum's note, is not among them. */
const strokesOf = (groove: Groove): Placed[] => {
  const perMs = ticksPerMs(groove.bpm);
  return groove.lanes.flatMap(({ instrument, part, unknown, tuned }, lane) =>
    unknown || tuned
      ? []
      : part.hits.map((hit, at): Placed => {
          const tick = positionOf(hit, part.grid);
          return { ms: tick / perMs, at: tick, velocity: hit.velocity, instrument, lane, hit: at };
        }),
  );
};

/** Whether anything could be beyond a drummer: where two hands have no more than two strokes in any such time, nothing is. */
const isCrowded = (strokes: Placed[], way: Ms): boolean => {
  const times = (foot: boolean) =>
    strokes
      .filter(({ instrument }) => !!footOf(instrument) === foot)
      .map(({ ms }) => ms)
      .sort((a, b) => a - b);
  const hands = times(false);
  const feet = times(true);
  return (
    hands.some((ms, at) => at >= 2 && ms - hands[at - 2]! < way) ||
    feet.some((ms, at) => at >= 1 && ms - feet[at - 1]! < SAME_LIMB_MS)
  );
};

/** The longest way between two drums takes a hand so long. */
const FARTHEST_MS: Ms = 250;

/**
 * How much of a groove is beyond one drummer.
 *
 * @example playability(groove).all // 0
 */
export const playability = (groove: Groove): Playability => {
  const strokes = strokesOf(groove);
  const clear = { tooMany: 0, tooSoon: 0, tooFar: 0, foot: 0, all: 0 };
  if (!isCrowded(strokes, FARTHEST_MS)) return { ...clear, strokes: strokes.length };
  return {
    ...unplayable(sticking(strokes, { beat: beatTicks(groove.meter) })),
    strokes: strokes.length,
  };
};

/** So often strokes are left out and hands found anew: without a stroke, others may be played by other hands. */
const ROUNDS = 4;

/**
 * A groove without what one drummer cannot play: of strokes at once the hardest stay.
 *
 * @example mended(groove) === groove // true
 */
export const mended = (groove: Groove): Groove => {
  let now = groove;
  for (let round = 0; round < ROUNDS; round++) {
    const strokes = strokesOf(now);
    if (!isCrowded(strokes, SAME_LIMB_MS)) return now;
    const stuck = sticking(strokes, { beat: beatTicks(now.meter) });
    const gone = new Set(
      strokes.flatMap(({ lane, hit }, at) => (stuck[at]!.fault ? [`${lane} ${hit}`] : [])),
    );
    if (!gone.size) return now;
    const lanes = now.lanes.map((one, lane) => ({
      ...one,
      part: { ...one.part, hits: one.part.hits.filter((_, hit) => !gone.has(`${lane} ${hit}`)) },
    }));
    now = { ...now, lanes };
  }
  return now;
};
