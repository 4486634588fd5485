import { fold } from '../../random/draw';
import type { PlainFeel } from '../../document/feelSchema';
import { QUARTER, type Ticks } from '../../units';
import { bandLooks, playedBy } from '../bandAt';
import type { FeelStage, FeltLane } from '../stage';

/** The farthest that the weaker hand comes late, in ms. */
export const MOST_LATE = 8;

const SIXTEENTH: Ticks = QUARTER / 4;

/** Two noises, each held to three standard deviations, and a quarter of a third one. */
const MOST_NOISE = 3 * Math.SQRT2 + 0.75;

/** How many sixteenths the drift comes round in; null where it goes on, as it did in every beat of the first version. */
const loopOf = ({ humanize }: PlainFeel, { random, pass }: FeltLane): number | null =>
  random === 1 || humanize.anew || pass === Infinity ? null : Math.max(1, Math.round(pass / SIXTEENTH));

/** Timing and velocity that no player keeps exactly. */
export const humanizeStage: FeelStage = {
  id: 'humanize',
  prepare: (feel, own, lane) => {
    const { timing, velocity, drift, seed, anew, soft = 0, hands = 0, leftHanded = false } = feel.humanize;
    const placed = lane.band?.(feel) ?? null;
    const spread = placed ? 0 : timing * (own.timing ?? 1);
    const force = velocity * (own.velocity ?? 1);
    const weaker = hands && lane.weaker ? lane.weaker : null;
    if (!spread && !force && !placed && !weaker) return null;
    const loop = loopOf(feel, lane);
    const shares = own.shares ?? (own.apart ? 0 : 1);
    return {
      humanizing: {
        timing: spread,
        velocity: force,
        drift,
        shares,
        key: fold(fold(0, seed), lane.key),
        pink: lane.pinks(seed, shares ? 0 : lane.key, loop),
        own: shares > 0 && shares < 1 ? lane.pinks(seed, lane.key, loop) : null,
        soft,
        hands,
        weaker: weaker && ((stroke) => weaker(stroke, leftHanded)),
        every: anew ? Infinity : lane.pass,
        player: placed && playedBy(placed, lane.id, lane.ticksPerMs, lane.most ?? lane.ticksPerMs(0)),
      },
      reachMs:
        (1 + soft) * MOST_NOISE * spread +
        (placed ? bandLooks(placed.band) : 0) +
        (weaker ? MOST_LATE * hands : 0),
    };
  },
};
