import type { Hit, Roll, Spacing } from '../document/schema';
import type { StrokeKind, FeltStroke } from '../feel/struck';
import type { Ticks, Velocity } from '../units';
import { draw, hashText, PURPOSE } from '../random/draw';
import { readingOrder } from './reading';
import type { LanePlan } from './plan';

/** A stroke of a lane's part: one blow of a stick, with what the stages of feel make of it. */
export interface Stroke extends FeltStroke {
  lead: Stroke | null;
  into: Stroke | null;
  /** In ticks; null rings out. */
  length: Ticks | null;
  /** Whether the sound ends with it. The strokes of a roll ring into one another. */
  cut: boolean;
  /** Which place of the round's reading order this is, from 0: some orders come to a step more than once. */
  readIndex: number;
}

const kindOf = (stroke: number): StrokeKind => (stroke < 0 ? 'grace' : stroke > 0 ? 'roll' : 'main');

/** Another stroke of the same hit. Made as every stroke is: objects of one shape are worked through many times faster. */
const strokeLike = (
  main: Stroke,
  at: Ticks,
  velocity: Velocity,
  length: Ticks | null,
  stroke: number,
): Stroke =>
  newStroke(at, velocity, length, main.cut, {
    gridTick: main.gridTick,
    cycle: main.cycle,
    readIndex: main.readIndex,
    step: main.step,
    hitIndex: main.hitIndex,
    kind: kindOf(stroke),
    stroke,
    sounds: main.sounds,
    pitch: main.pitch,
  });

type Identity = Pick<
  Stroke,
  'gridTick' | 'cycle' | 'readIndex' | 'step' | 'hitIndex' | 'kind' | 'stroke' | 'sounds' | 'pitch'
>;

/**
 * Nothing yet, and no whole number to the engine: where a field begins as a whole number and a fraction is put into it
 * later, the engine changes over every single object as it is first touched, at some microseconds each.
 */
const FRACTION = -0;

/** A stroke before its feel. */
export const newStroke = (
  at: Ticks,
  velocity: Velocity,
  length: Ticks | null,
  cut: boolean,
  { gridTick, cycle, readIndex, step, hitIndex, kind, stroke, sounds, pitch }: Identity,
): Stroke => ({
  at,
  velocity,
  tick: FRACTION,
  force: FRACTION,
  tie: null,
  lead: null,
  pitch,
  delay: FRACTION,
  otherDelay: FRACTION,
  cycle,
  step,
  hitIndex,
  kind,
  stroke,
  sounds,
  into: null,
  moved: FRACTION,
  length,
  cut,
  gridTick,
  readIndex,
});

/**
 * The first stroke of all has fractions in every place where one may come later: the engine remembers by it what the fields
 * hold, and need not change over strokes that began with whole numbers.
 */
newStroke(0.5, 0.5, null, false, {
  gridTick: 0.5,
  cycle: 0,
  readIndex: 0,
  step: 0,
  hitIndex: 0,
  kind: 'main',
  stroke: 0,
  sounds: true,
  pitch: 0,
});

const graceOf = (hit: Hit, main: Stroke): Stroke[] =>
  hit.grace!.map((grace, index) => {
    const stroke = strokeLike(main, main.at, main.velocity * grace.level, main.length, -1 - index);
    stroke.tie = { main, apart: -grace.before, share: grace.level };
    return stroke;
  });

/** How far into the roll a stroke falls, 0 to 1: `x^(2^-curve)`, so that 0 is even and the strokes close up above it. */
const along = (x: number, curve: number): number => Math.pow(x, Math.pow(2, -curve));

/** How much longer the first stroke of a pair is than the second. */
const LONG: Record<Spacing, number> = { even: 1, triplet: 2, dotted: 3 };

/** Where the strokes of a roll begin and the last ends, 0 to 1, before its curve. */
const spaced = (count: number, spacing: Spacing): number[] => {
  const edges = [0];
  for (let i = 0; i < count; i++) edges.push(edges[i]! + (i % 2 ? 1 : LONG[spacing]));
  return edges.map((edge) => edge / edges[count]!);
};

/**
 * Where the strokes of a roll begin and how long each is, before the feel.
 *
 * @param span how long the whole roll is, above 0
 * @returns one entry a stroke, `from` counted from the roll's start
 * @example rollStrokes({ curve: 0, levels: [1, 1] }, 240) // [{ from: 0, length: 120 }, { from: 120, length: 120 }]
 */
export const rollStrokes = (
  { levels, curve, spacing = 'even' }: Roll,
  span: Ticks,
): { from: Ticks; length: Ticks }[] => {
  const edges = spaced(levels.length, spacing);
  return levels.map((_, index) => {
    const from = along(edges[index]!, curve);
    return { from: span * from, length: span * (along(edges[index + 1]!, curve) - from) };
  });
};

const rollOf = (hit: Hit, main: Stroke, span: Ticks): Stroke[] => {
  const { levels } = hit.roll!;
  const strokes = rollStrokes(hit.roll!, span).map(({ from, length }, index): Stroke =>
    strokeLike(main, main.at + from, main.velocity * levels[index]!, length, index),
  );
  for (const stroke of strokes) stroke.lead = strokes[0]!;
  return strokes;
};

/** A roll ends at the lane's next hit and at its round's end. */
const rollSpan = (lane: LanePlan, hit: Hit, at: Ticks, next: Ticks): Ticks =>
  Math.max(1, Math.min((hit.length ?? 1) * lane.step, next - at));

const roundStrokes = (
  lane: LanePlan,
  cycle: number,
  from: Ticks,
  to: Ticks,
  take: (stroke: Stroke) => void,
): void => {
  const start = cycle * lane.cycleTicks;
  const order =
    lane.direction === 'forward'
      ? null
      : readingOrder(lane.direction, lane.steps, cycle, lane.seed, lane.key);
  const places = order ? order.length : lane.steps;
  const first = Math.max(0, Math.ceil((from - start) / lane.step - 1e-9));
  for (let i = first; i < places; i++) {
    const base = start + i * lane.step;
    if (base >= to) break;
    if (base >= start + lane.cycleTicks - 1e-6) break;
    const step = order ? order[i]! : i;
    const hits = lane.byStep[step];
    if (hits)
      hits.forEach((hit, hitIndex) => giveHit(lane, hit, { base, cycle, step, hitIndex, i, order }, take));
  }
};

interface Where {
  base: Ticks;
  cycle: number;
  step: number;
  hitIndex: number;
  i: number;
  order: number[] | null;
}

/** By what a lane nudges a step besides the hit's own nudge. */
const nudgeOf = (lane: LanePlan, step: number): number =>
  lane.shift + (lane.isOffbeat(step) ? lane.offbeat : 0);

const inPass = ({ passes }: Hit, cycle: number): boolean => !passes || passes.on.includes(cycle % passes.of);

/** Whether a hit sounds in a round, by its passes and its chance, or by those of the hit that it was written from. */
const isStruck = (lane: LanePlan, hit: Hit, { cycle, step, hitIndex }: Where): boolean => {
  const { follows, chance } = hit;
  if (!follows)
    return (
      inPass(hit, cycle) &&
      (chance >= 1 || draw(lane.seed, lane.key, cycle, step, hitIndex, 0, PURPOSE.chance) < chance)
    );
  const round = cycle * follows.every + follows.from;
  if (round < 0 || !inPass(hit, round)) return false;
  const key = follows.lane === undefined ? lane.key : hashText(follows.lane);
  return chance >= 1 || draw(lane.seed, key, round, follows.step, follows.place, 0, PURPOSE.chance) < chance;
};

/** Where the next hit of the lane in this round begins, or where the cycle ends. */
const nextAt = (lane: LanePlan, hit: Hit, where: Where): Ticks => {
  const start = where.cycle * lane.cycleTicks;
  const beside = lane.byStep[where.step]![where.hitIndex + 1];
  if (beside) return where.base + (beside.nudge + nudgeOf(lane, where.step)) * lane.step;
  const places = where.order ? where.order.length : lane.steps;
  for (let i = where.i + 1; i < places; i++) {
    const step = where.order ? where.order[i]! : i;
    const hits = lane.byStep[step];
    if (hits) return start + (i + hits[0]!.nudge + nudgeOf(lane, step)) * lane.step;
  }
  return start + lane.cycleTicks;
};

const giveHit = (lane: LanePlan, hit: Hit, where: Where, take: (stroke: Stroke) => void): void => {
  const { base, cycle, step, hitIndex } = where;
  const sounds = isStruck(lane, hit, where);
  const main = newStroke(
    base + (hit.nudge + nudgeOf(lane, step)) * lane.step,
    hit.velocity,
    hit.length === null ? null : hit.length * lane.step,
    hit.length !== null && !hit.roll,
    {
      gridTick: base,
      cycle,
      readIndex: where.i,
      step,
      hitIndex,
      kind: 'main',
      stroke: 0,
      sounds,
      pitch: hit.pitch ?? 0,
    },
  );
  const strokes = hit.roll
    ? rollOf(hit, main, rollSpan(lane, hit, main.at, nextAt(lane, hit, where)))
    : [main];
  strokes.forEach(take);
  if (hit.grace) graceOf(hit, strokes[0]!).forEach(take);
};

/**
 * Gives the strokes of the steps that begin within a stretch of time, before moves and feel. A nudge may carry a stroke out
 * of the stretch by half a step, a roll by its span. They are given one by one and not as a list: in a long file the
 * list would cost more than all that is done with it.
 *
 * @param from included, to excluded, both from where play began
 */
export const writtenStrokes = (
  lane: LanePlan,
  from: Ticks,
  to: Ticks,
  take: (stroke: Stroke) => void,
): void => {
  const first = Math.max(0, Math.floor(from / lane.cycleTicks));
  for (let cycle = first; cycle * lane.cycleTicks < to; cycle++) roundStrokes(lane, cycle, from, to, take);
};
