import { modulo } from '../numbers';
import { drawOn, PURPOSE } from '../random/draw';
import type { Ms, Ticks } from '../units';
import { eachCluster, FLAM_MS } from './clusters';
import { normal } from '../random/noise';

/**
 * The stages of feel, in their order, for the strokes of one lane: the same code for what is heard, drawn and written,
 * for beats and for files.
 */

/** What a stroke is of its hit: the blow itself, a grace stroke before it, or what a roll adds to it. */
export type StrokeKind = 'main' | 'grace' | 'roll';

/** A stroke on its way through the stages: one blow of a stick. */
export interface Struck {
  /** Where it enters, and how hard. */
  at: Ticks;
  velocity: number;
  /** Where it has come to, and how hard it is by now; not rounded. */
  tick: Ticks;
  force: number;
  /** The stroke that it goes with at a fixed distance: grace strokes, and the softer notes of a flam. */
  tie: Tie | null;
  /** The first stroke of its roll, which leads itself; null where there is no roll. */
  lead: Struck | null;
  cycle: number;
  step: number;
  hitIndex: number;
  kind: StrokeKind;
  /** Which of its hit's strokes it is, for what is drawn at random: 0 the main one, 1 and on a roll's, -1 and on the grace strokes. */
  stroke: number;
  /** False where chance leaves it out: it is carried along to be drawn, and moves no other. */
  sounds: boolean;
  /** The straight position that it belongs to. */
  gridTick: Ticks;
  /** The stroke that it has become one with, being less than 1 ms from it. */
  into: Struck | null;
  /** By how far timing noise moves it. */
  moved: Ticks;
}

/** What ties a stroke to its main stroke: the distance from it in ms, negative before it, and its level against it. */
export interface Tie {
  main: Struck;
  apart: Ms;
  share: number;
}

/** What humanize needs to know of a lane. */
export interface Humanizing {
  /** Standard deviations, scaled for the lane: in ms, and in steps of velocity. */
  timing: Ms;
  velocity: number;
  /** The share of the timing that hangs together, 0 to 1. */
  drift: number;
  /** Seed and lane, folded together. */
  key: number;
  pink: (j: number) => number;
  /** After this long it repeats itself; Infinity where each pass is drawn anew. */
  every: Ticks;
}

/** One lane's feel, made ready. What is null has nothing to do. */
export interface Stages {
  ticksPerMs: (position: Ticks) => number;
  /** Whether notes within 35 ms stay together. */
  flams: boolean;
  quantize: ((position: Ticks) => Ticks) | null;
  bend: (position: Ticks) => Ticks;
  /** The template's factor for velocity. */
  force: ((position: Ticks) => number) | null;
  ahead: Ms;
  dynamics: { mean: number; contrast: number; level: number } | null;
  /** By what a song multiplies the velocity of what enters at a position. */
  levelAt: ((position: Ticks) => number) | null;
  humanize: Humanizing | null;
  /** The farthest that a stroke can be moved. */
  reach: Ticks;
}

/** A lane's feel, and another one that it is blended with. */
export interface LaneStages {
  a: Stages;
  b: Stages | null;
  /** How much of `b`, 0 to 1. */
  amount: number;
}

/** A stroke is moved by at most this part of its distance to its neighbour. */
const ROOM = 0.45;

const entered = (stages: Stages, stroke: Struck): Ticks =>
  stages.quantize ? stages.quantize(stroke.at) : stroke.at;

/** Stages 1 to 3 for a stroke that goes through them by itself. */
const bent = (stages: Stages, stroke: Struck): void => {
  const p = entered(stages, stroke);
  const hitIndex = stages.bend(p);
  stroke.tick = stages.ahead ? hitIndex + stages.ahead * stages.ticksPerMs(hitIndex) : hitIndex;
  let v = stroke.velocity;
  if (stages.force) v *= stages.force(stroke.lead ? entered(stages, stroke.lead) : p);
  const { dynamics } = stages;
  stroke.force = dynamics ? (dynamics.mean + dynamics.contrast * (v - dynamics.mean)) * dynamics.level : v;
  if (stages.levelAt) stroke.force *= stages.levelAt(p);
};

const throughBoth = ({ a, b, amount }: LaneStages, stroke: Struck): void => {
  bent(a, stroke);
  if (!b) return;
  const { tick, force } = stroke;
  bent(b, stroke);
  stroke.tick = (1 - amount) * tick + amount * stroke.tick;
  stroke.force = (1 - amount) * force + amount * stroke.force;
};

const follow = (stages: Stages, stroke: Struck, { main, apart, share }: Tie): void => {
  stroke.tick = main.tick + apart * stages.ticksPerMs(main.tick);
  stroke.force = main.force * share;
};

/** Whether any two stand near enough to be a flam: mostly none do, and there is nothing to look for. */
const anyNear = (stages: Stages, strokes: Struck[]): boolean => {
  let before = -Infinity;
  for (const one of strokes) {
    if (one.tie || one.lead || !one.sounds) continue;
    // Out of order, or near: both are looked at more closely.
    if (one.at - before <= FLAM_MS * stages.ticksPerMs(before) + 1e-9) return true;
    before = one.at;
  }
  return false;
};

/** Ties the softer notes of flams to their main notes. */
const tie = (stages: Stages, strokes: Struck[]): void => {
  if (!anyNear(stages, strokes)) return;
  const singles = strokes.filter((one) => one.sounds && !one.tie && !one.lead).sort((x, y) => x.at - y.at);
  eachCluster(singles, stages.ticksPerMs, (from, to, main) => {
    const strongest = singles[main]!;
    for (let i = from; i < to; i++) {
      const one = singles[i]!;
      if (i === main) continue;
      one.tie = {
        main: strongest,
        apart: (one.at - strongest.at) / stages.ticksPerMs(strongest.at),
        share: one.velocity / strongest.velocity,
      };
    }
  });
};

const byTick = (a: Struck, b: Struck): number =>
  a.tick - b.tick || a.cycle - b.cycle || a.step - b.step || a.hitIndex - b.hitIndex || a.stroke - b.stroke;

const sorted = (strokes: Struck[]): Struck[] => {
  for (let i = 1; i < strokes.length; i++)
    if (byTick(strokes[i - 1]!, strokes[i]!) > 0) return [...strokes].sort(byTick);
  return strokes;
};

/** Two hits that were written so near, and that the feel has left as they were to one another. */
const asWritten = (before: Struck, one: Struck): boolean =>
  one.at - before.at > 1e-6 &&
  Math.abs(one.tick - before.tick - (one.at - before.at)) < 1e-6 &&
  !one.lead &&
  !before.lead;

/**
 * Strokes that the feel brought less than 1 ms apart become one, the louder. Hits that were recorded so near stay two:
 * a file that is taken in and written out again has lost nothing.
 *
 * @param end where a loop ends: what comes after it is no part of the loop and swallows nothing of it
 */
const merge = (stages: Stages, strokes: Struck[], end: Ticks): Struck[] => {
  const out: Struck[] = [];
  let last: Struck | null = null;
  for (const one of strokes) {
    const before: Struck | undefined = out[out.length - 1];
    const near: boolean =
      !!last &&
      one.tick - last.tick < stages.ticksPerMs(last.tick) &&
      isPast(one, end) === isPast(last, end) &&
      !asWritten(last, one);
    if (!before || !near) out.push(one);
    else if (one.force > before.force) {
      before.into = one;
      out[out.length - 1] = one;
    } else one.into = before;
    last = one;
  }
  return out;
};

const TIMING = PURPOSE.timing;
const VELOCITY = PURPOSE.velocity;
const STROKE = PURPOSE.stroke;

const sixteenth = (tick: Ticks): number => Math.floor(tick / 240 + 0.5);

const white = (h: Humanizing, { cycle, step, hitIndex, stroke }: Struck, purpose: number): number =>
  normal(drawOn(h.key, h.every === Infinity ? cycle : 0, step, hitIndex, stroke, purpose));

const within = (tick: Ticks, every: Ticks): Ticks => (every === Infinity ? tick : modulo(tick, every));

/** The timing noise of a stroke, in ms: a roll's strokes share that of its first, and have a quarter of their own. */
const noiseOf = (h: Humanizing, stroke: Struck): Ms => {
  const lead = stroke.lead ?? stroke;
  const own = Math.sqrt(1 - h.drift) * white(h, lead, TIMING);
  const shared = h.drift > 0 ? Math.sqrt(h.drift) * h.pink(sixteenth(within(lead.tick, h.every))) : 0;
  const quarter = stroke !== lead ? 0.25 * white(h, stroke, STROKE) : 0;
  return h.timing * (own + shared + quarter);
};

const forceNoise = (h: Humanizing, stroke: Struck): number =>
  h.velocity ? h.velocity * white(h, stroke, VELOCITY) : 0;

const blended = (
  { a, b, amount }: LaneStages,
  stroke: Struck,
  of: (h: Humanizing, stroke: Struck) => number,
): number => {
  const first = a.humanize ? of(a.humanize, stroke) : 0;
  if (!b) return first;
  return (1 - amount) * first + amount * (b.humanize ? of(b.humanize, stroke) : 0);
};

/** Moves what sounds, each held off its neighbours on both sides. */
const humanize = (stages: LaneStages, heard: Struck[]): void => {
  let before = -Infinity;
  heard.forEach((one, i) => {
    const here = one.tick;
    const next = heard[i + 1]?.tick ?? Infinity;
    one.moved = Math.max(ROOM * (before - here), Math.min(ROOM * (next - here), one.moved));
    one.force += blended(stages, one, forceNoise);
    before = here;
  });
};

/** What became one with another goes with it. */
const movedWith = (one: Struck): Ticks => {
  let root = one;
  while (root.into) root = root.into;
  return (root.tie?.main ?? root).moved;
};

const bendAll = (lane: LaneStages, strokes: Struck[]): void => {
  for (const one of strokes) if (!one.tie) throughBoth(lane, one);
};

const followAll = (stages: Stages, strokes: Struck[]): void => {
  for (const one of strokes) if (one.tie) follow(stages, one, one.tie);
};

const sounding = (strokes: Struck[]): Struck[] => {
  const out: Struck[] = [];
  for (const one of strokes) if (one.sounds) out.push(one);
  return out;
};

const untied = (strokes: Struck[]): Struck[] => {
  const out: Struck[] = [];
  for (const one of strokes) if (!one.tie) out.push(one);
  return out;
};

const drawNoise = (lane: LaneStages, mains: Struck[]): void => {
  for (const one of mains) {
    // What does not sound has no neighbours to keep off, and stays with this; it is struck as unevenly as all else.
    one.moved = blended(lane, one, noiseOf) * lane.a.ticksPerMs(one.tick);
    if (!one.sounds) one.force += blended(lane, one, forceNoise);
  }
};

const moveAll = (mains: Struck[]): void => {
  for (const one of mains) one.tick += one.into ? movedWith(one) : one.moved;
};

/** Whether a stroke belongs to a step that begins at or after a loop's end. */
export const isPast = ({ gridTick }: Struck, end: Ticks): boolean => gridTick >= end - 1e-6;

/**
 * Takes the strokes of one lane through the stages, in hitIndex. In many short steps rather than one long function, which
 * the engine has been seen to give up on.
 *
 * @param strokes in any order, grace strokes with their main strokes; each gets where it sounds and how hard, and which
 *   one it has become one with
 * @param end where a loop ends, if it is one
 */
export const feelStrokes = (lane: LaneStages, strokes: Struck[], end: Ticks = Infinity): void => {
  const { a, b } = lane;
  const nearer = b && lane.amount > 0.5 ? b : a;
  if (nearer.flams) tie(a, strokes);
  bendAll(lane, strokes);
  followAll(a, strokes);
  const heard = merge(a, sorted(sounding(strokes)), end);
  if (!a.humanize && !b?.humanize) return;
  const mains = untied(strokes);
  drawNoise(lane, mains);
  humanize(lane, untied(heard));
  moveAll(mains);
  followAll(a, strokes);
};

/** How far around a stroke one has to look to know what becomes of it, in ms: the longest flam on either side. */
export const LOOK_MS = 5 * FLAM_MS;
export const ROOM_SHARE = ROOM;
