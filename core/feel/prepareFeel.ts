import { circularPink, pinkNoise } from '../random/pinkNoise';
import type { Stage } from '../document/choices';
import type { Feel, LaneFeel, PlainFeel } from '../document/feelSchema';
import type { Ms, Ticks } from '../units';
import type { FeltLane, Humanizing, Pinks, ReadyStage } from './stage';
import { FEEL_STAGES } from './stages';

/** One lane's feel, made ready. */
export interface PreparedFeel {
  ticksPerMs: (position: Ticks) => number;
  /** Whether notes within 35 ms stay together. */
  flams: boolean;
  /** By stage; those that have nothing to do are left out. */
  ready: Partial<Record<Stage, ReadyStage>>;
  /** The same in their order. */
  stages: ReadyStage[];
  /** By what a song multiplies the velocity of what enters at a position. */
  levelAt: ((position: Ticks) => number) | null;
  humanizing: Humanizing | null;
  /** The farthest that a stroke can be moved. */
  reach: Ticks;
}

/** A lane's feel, and another one that it is blended with. */
export interface LaneFeelPlan {
  a: PreparedFeel;
  b: PreparedFeel | null;
  /** How much of `b`, 0 to 1. */
  amount: number;
}

/**
 * Lanes that drift together share the noise that they drift by, and what has been worked out of it.
 *
 * @example sharedPinks()(7, 0, null)(3) === pinkNoise(7, 0)(3) // true
 */
export const sharedPinks = (): Pinks => {
  const made = new Map<string, (j: number) => number>();
  return (seed, lane, loop) => {
    const key = `${seed} ${lane} ${loop}`;
    const noise = made.get(key) ?? (loop === null ? pinkNoise(seed, lane) : circularPink(seed, lane, loop));
    made.set(key, noise);
    return noise;
  };
};

const unmoved = (position: Ticks): Ticks => position;
const NONE: LaneFeel = {};

const prepared = (feel: PlainFeel, lane: FeltLane): PreparedFeel => {
  const own = feel.lanes[lane.id] ?? NONE;
  const ready: PreparedFeel['ready'] = {};
  const stages: ReadyStage[] = [];
  let [reach, reachMs] = [0, 0];
  let humanizing: Humanizing | null = null;
  for (const { id, prepare } of FEEL_STAGES) {
    if (feel.off.includes(id)) continue;
    const stage = prepare(feel, own, lane);
    if (!stage) continue;
    ready[id] = stage;
    if (stage.moves || stage.strength || stage.delays) stages.push(stage);
    reach += stage.reach ?? 0;
    reachMs += stage.reachMs ?? 0;
    humanizing ??= stage.humanizing ?? null;
  }
  return {
    ticksPerMs: lane.ticksPerMs,
    flams: feel.quantize.flams,
    ready,
    stages,
    levelAt: lane.levelAt ?? null,
    humanizing,
    reach: reach + reachMs * (lane.most ?? lane.ticksPerMs(0)),
  };
};

/** Makes a feel ready for one lane. */
export const prepareFeel = (feel: Feel, lane: FeltLane): LaneFeelPlan => ({
  a: prepared(feel, lane),
  b: feel.blend && feel.blend.amount > 0 ? prepared(feel.blend.with, lane) : null,
  amount: feel.blend?.amount ?? 0,
});

/** Where a position stands as it comes to the base feel. */
export const quantizedAt = ({ ready }: PreparedFeel, position: Ticks): Ticks =>
  ready.quantize?.moves ? ready.quantize.moves(position) : position;

/** From a position to where the base feel takes it: quantize, ahead or behind and humanize are left out. */
export const baseBend = ({ a, b, amount }: LaneFeelPlan): ((position: Ticks) => Ticks) => {
  const first = a.ready.base?.moves ?? unmoved;
  if (!b) return first;
  const second = b.ready.base?.moves ?? unmoved;
  return (position) => (1 - amount) * first(position) + amount * second(position);
};

const offsetOf = ({ ready }: PreparedFeel): Ms => ready.ahead?.offset ?? 0;

/** A lane's own offset. */
export const laneOffset = ({ a, b, amount }: LaneFeelPlan): Ms =>
  b ? (1 - amount) * offsetOf(a) + amount * offsetOf(b) : offsetOf(a);

const noiseIn = ({ ready }: PreparedFeel): Ms => ready.humanize?.reachMs ?? 0;

/** The farthest that players have moved a stroke up to a position. */
export const wandered = ({ a, b }: LaneFeelPlan, upTo: Ticks): Ticks =>
  Math.max(a.humanizing?.player?.reach(upTo) ?? 0, b?.humanizing?.player?.reach(upTo) ?? 0);

/** The farthest that humanize can move a stroke. */
export const noiseReach = ({ a, b }: LaneFeelPlan): Ms => Math.max(noiseIn(a), b ? noiseIn(b) : 0);
