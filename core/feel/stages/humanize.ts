import { fold } from '../../random/draw';
import type { PlainFeel } from '../../document/feelSchema';
import { QUARTER, type Ticks } from '../../units';
import type { FeelStage, FeltLane } from '../stage';

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
    const { timing, velocity, drift, seed, anew } = feel.humanize;
    const spread = timing * (own.timing ?? 1);
    const force = velocity * (own.velocity ?? 1);
    if (!spread && !force) return null;
    return {
      humanizing: {
        timing: spread,
        velocity: force,
        drift,
        key: fold(fold(0, seed), lane.key),
        pink: lane.pinks(seed, own.apart ? lane.key : 0, loopOf(feel, lane)),
        every: anew ? Infinity : lane.pass,
      },
      reachMs: MOST_NOISE * spread,
    };
  },
};
