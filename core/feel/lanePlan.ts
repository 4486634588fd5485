import { isStraight, gridTicks, type Grid } from '../document/grid';
import type { Feel, LaneFeel, PlainFeel, Swing } from '../document/feelSchema';
import type { DrumGroup, Stage } from '../document/choices';
import { QUARTER, type Ms, type Ticks } from '../units';
import type { Bars } from './bars';
import { circularPink, pinkNoise } from '../random/noise';
import { fold } from '../random/draw';
import { quantizer } from './quantize';
import type { Humanizing, LaneStages, Stages } from './stages';
import { swingBend, swingPercentAt } from './swing';
import { templateBend, templateForce } from './templateBend';

/** What a feel is made ready for: one lane of a pattern, or one of a file. */
export interface FeltLane {
  id: string;
  /** The lane's id as a number, for what is drawn at random. */
  key: number;
  grid: Grid;
  /** The group of drums that it is of, for templates with curves of their own; null where that is not known. */
  group: DrumGroup | null;
  /** The version of what is drawn at random. */
  random: 1 | 2;
  bars: Bars;
  ticksPerMs: (position: Ticks) => number;
  /** The mean velocity of its hits. */
  mean: number;
  /** Makes 1/f noise, or gives that which another lane has. */
  pinks: Pinks;
  /** The length of a pass. */
  pass: Ticks;
  /** The most that `ticksPerMs` gives; left out, it is the same everywhere. */
  most?: number;
  /** What a song makes of the feel at a position: the swing of all lanes, and by what velocities are multiplied. */
  swingAt?: ((position: Ticks) => number) | null;
  levelAt?: ((position: Ticks) => number) | null;
}

/** 1/f noise by seed and lane; of a loop of so many sixteenths, or without end. */
export type Pinks = (seed: number, lane: number, loop: number | null) => (j: number) => number;

/** Lanes that drift together share the noise that they drift by, and what has been worked out of it. */
export const sharedPinks = (): Pinks => {
  const made = new Map<string, (j: number) => number>();
  return (seed, lane, loop) => {
    const key = `${seed} ${lane} ${loop}`;
    const noise = made.get(key) ?? (loop === null ? pinkNoise(seed, lane) : circularPink(seed, lane, loop));
    made.set(key, noise);
    return noise;
  };
};

const straight = (position: Ticks): Ticks => position;
const NONE: LaneFeel = {};
const SIXTEENTH: Ticks = QUARTER / 4;

/** What a lane follows: its own base feel, or that of all lanes, which other grids than straight ones take no swing of. */
const baseOf = (feel: PlainFeel, own: LaneFeel, grid: Grid) => {
  const base = own.base ?? feel.base;
  const swing = own.swing ?? feel.swing;
  const mine = own.base === 'swing' && own.swing !== undefined;
  if (base === 'swing' && !mine && !isStraight(grid)) return { base: 'straight', swing } as const;
  return { base, swing } as const;
};

/** The swing that bends a lane; null where it is straight or follows a template. */
export const laneSwing = (feel: PlainFeel, laneId: string, grid: Grid): Swing | null => {
  const { base, swing } = baseOf(feel, feel.lanes[laneId] ?? NONE, grid);
  return base === 'swing' && !feel.off.includes('base') ? swing : null;
};

const quantizeOf = (feel: PlainFeel, lane: FeltLane): Pick<Stages, 'quantize'> & { reach: Ticks } => {
  const { grid, strength, window, lanes } = feel.quantize;
  if (strength === 0 || (lanes && !lanes.includes(lane.id))) return { quantize: null, reach: 0 };
  return {
    quantize: quantizer(lane.bars, grid, strength, window),
    reach: (strength * window * gridTicks(grid)) / 2,
  };
};

/** A swing that changes is for the lanes that follow the swing of all, or none. */
const turnedSwing = (feel: PlainFeel, own: LaneFeel, lane: FeltLane) =>
  lane.swingAt && feel.base !== 'template' && !own.base && !own.swing && isStraight(lane.grid)
    ? lane.swingAt
    : null;

/** The percent of a swing that follows the tempo, at each position; null where it does not. */
const withTempo = (swing: Swing, { ticksPerMs }: FeltLane): ((position: Ticks) => number) | null =>
  swing.withTempo === undefined
    ? null
    : (position) => swingPercentAt(swing, (ticksPerMs(position) * 60000) / QUARTER);

const bendOf = (
  feel: PlainFeel,
  own: LaneFeel,
  lane: FeltLane,
): Pick<Stages, 'bend' | 'force'> & { reach: Ticks } => {
  const turned = turnedSwing(feel, own, lane);
  const { base, swing } = turned
    ? { base: 'swing' as const, swing: feel.swing }
    : baseOf(feel, own, lane.grid);
  if (base === 'swing') {
    const percentAt = turned ?? withTempo(swing, lane);
    return {
      bend: swingBend(lane.bars, swing, percentAt),
      force: null,
      reach: swing.percent === 50 && !percentAt ? 0 : gridTicks(swing.grid),
    };
  }
  const { template, timing, velocity, runsOn = false } = own.template ?? feel.template;
  if (base === 'straight' || !template) return { bend: straight, force: null, reach: 0 };
  const count = { bars: lane.bars, pass: lane.pass, runsOn };
  return {
    bend: timing ? templateBend(template, timing, count, lane.group) : straight,
    force: velocity ? templateForce(template, velocity, count, lane.group) : null,
    reach: 0.48 * gridTicks(template.grid),
  };
};

const dynamicsOf = (feel: PlainFeel, own: LaneFeel, mean: number): Stages['dynamics'] => {
  const contrast = own.contrast ?? 1;
  const level = (own.level ?? 1) * feel.level;
  return contrast === 1 && level === 1 ? null : { mean, contrast, level };
};

/** How many sixteenths the drift comes round in; null where it goes on, as it did in every beat of the first version. */
const loopOf = ({ humanize }: PlainFeel, { random, pass }: FeltLane): number | null =>
  random === 1 || humanize.anew || pass === Infinity ? null : Math.max(1, Math.round(pass / SIXTEENTH));

const humanizeOf = (feel: PlainFeel, own: LaneFeel, lane: FeltLane): Humanizing | null => {
  const { timing, velocity, drift, seed, anew } = feel.humanize;
  const spread = timing * (own.timing ?? 1);
  const force = velocity * (own.velocity ?? 1);
  if (!spread && !force) return null;
  return {
    timing: spread,
    velocity: force,
    drift,
    key: fold(fold(0, seed), lane.key),
    pink: lane.pinks(seed, own.apart ? lane.key : 0, loopOf(feel, lane)),
    every: anew ? Infinity : lane.pass,
  };
};

/** Two noises, each held to three standard deviations, and a quarter of a third one. */
const MOST_NOISE = 3 * Math.SQRT2 + 0.75;

/** The farthest that humanize can move a stroke. */
export const noiseReach = ({ humanize }: Stages): Ms => (humanize ? MOST_NOISE * humanize.timing : 0);

const plainStages = (feel: PlainFeel, lane: FeltLane): Stages => {
  const own = feel.lanes[lane.id] ?? NONE;
  const on = (stage: Stage) => !feel.off.includes(stage);
  const quantize = on('quantize') ? quantizeOf(feel, lane) : { quantize: null, reach: 0 };
  const base = on('base') ? bendOf(feel, own, lane) : { bend: straight, force: null, reach: 0 };
  const ahead = on('ahead') ? (own.offset ?? 0) : 0;
  const stages: Stages = {
    ticksPerMs: lane.ticksPerMs,
    flams: feel.quantize.flams,
    quantize: quantize.quantize,
    bend: base.bend,
    force: base.force,
    ahead,
    dynamics: on('dynamics') ? dynamicsOf(feel, own, lane.mean) : null,
    levelAt: lane.levelAt ?? null,
    humanize: on('humanize') ? humanizeOf(feel, own, lane) : null,
    reach: 0,
  };
  const ms = Math.abs(ahead) + noiseReach(stages);
  return { ...stages, reach: quantize.reach + base.reach + ms * (lane.most ?? lane.ticksPerMs(0)) };
};

/** Makes a feel ready for one lane. */
export const laneStages = (feel: Feel, lane: FeltLane): LaneStages => ({
  a: plainStages(feel, lane),
  b: feel.blend && feel.blend.amount > 0 ? plainStages(feel.blend.with, lane) : null,
  amount: feel.blend?.amount ?? 0,
});

/** From a position to where quantize and the base feel take it, ahead or behind and humanize left out. */
export const baseBend = ({ a, b, amount }: LaneStages): ((position: Ticks) => Ticks) =>
  b ? (position) => (1 - amount) * a.bend(position) + amount * b.bend(position) : a.bend;

/** A lane's own offset, in ms. */
export const laneOffset = ({ a, b, amount }: LaneStages): Ms =>
  b ? (1 - amount) * a.ahead + amount * b.ahead : a.ahead;
