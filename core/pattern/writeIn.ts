import { feelOf, partOf } from '../beat/defaults';
import { newFeel } from '../beat/feelDefaults';
import type { Feel, LaneFeel, PlainFeel } from '../beat/feelSchema';
import type { Beat, Hit, Part, Pattern } from '../beat/schema';
import { planLane, type LanePlan } from '../play/plan';
import { firstRound } from '../play/play';
import type { Stroke } from '../play/strokes';
import { readingOrder } from '../play/reading';
import { held } from '../units';
import { setPattern } from './beatEdits';
import { withPart } from './hits';

/** Where in its round a stroke sounds, in steps. */
const placeOf = (lane: LanePlan, { tick, round }: Stroke): number =>
  (tick - round * lane.roundTicks) / lane.step;

/** The step nearest to where a stroke sounds, and the rest as nudge; orders drawn by chance keep their step. */
const nearestStep = (lane: LanePlan, order: number[], stroke: Stroke): Pick<Hit, 'step' | 'nudge'> => {
  const place = placeOf(lane, stroke);
  const drawn = lane.direction === 'random' || lane.direction === 'walk';
  const nearest = drawn ? stroke.turn : Math.floor(place + 0.5);
  const at = ((nearest % order.length) + order.length) % order.length;
  return { step: order[at]!, nudge: held(place - nearest, -0.5, 0.5) };
};

const velocityOf = (force: number): number => held(Math.round(force), 1, 127);

/** A hit as its main stroke sounds; its other strokes keep their levels as they sound. */
const written = (lane: LanePlan, order: number[], hit: Hit, strokes: Stroke[]): Hit => {
  const first = strokes.find(({ stroke }) => stroke === 0)!;
  const velocity = velocityOf((hit.velocity * first.force) / Math.max(1e-9, first.velocity));
  const levelOf = (which: number, level: number): number => {
    const stroke = strokes.find((one) => one.stroke === which);
    return stroke ? held(stroke.force, 1, 127) / velocity : level;
  };
  const { roll, grace } = hit;
  return {
    ...hit,
    ...nearestStep(lane, order, first),
    velocity,
    ...(roll && { roll: { ...roll, levels: roll.levels.map((level, at) => levelOf(at, level)) } }),
    ...(grace && { grace: grace.map((one, at) => ({ ...one, level: levelOf(-1 - at, one.level) })) }),
  };
};

/** Every stroke a hit by itself, with its hit's chance and passes. */
const asSingles = (lane: LanePlan, order: number[], hit: Hit, strokes: Stroke[]): Hit[] =>
  strokes
    .filter(({ into }) => !into)
    .map((stroke) => ({
      ...nearestStep(lane, order, stroke),
      velocity: velocityOf(stroke.force),
      length: stroke.length === null || stroke.stroke < 0 ? null : stroke.length / lane.step,
      chance: hit.chance,
      ...(hit.passes && { passes: hit.passes }),
    }));

const writePart = (beat: Beat, pattern: Pattern, laneId: string, single: boolean): Part => {
  const part = partOf(pattern, laneId);
  const lane = planLane(
    beat,
    pattern,
    beat.lanes.find(({ id }) => id === laneId)!,
  );
  const order = readingOrder(lane.direction, lane.steps, 0, lane.seed, lane.key);
  const byHit = new Map<Hit, Stroke[]>();
  for (const stroke of firstRound(lane)) {
    const hit = lane.byStep[stroke.step]![stroke.place]!;
    const list = byHit.get(hit) ?? [];
    // There and back comes to a step twice; what it does first is written.
    if (list.length && list[0]!.turn !== stroke.turn) continue;
    byHit.set(hit, [...list, stroke]);
  }
  const hits = part.hits.flatMap((hit) => {
    const strokes = byHit.get(hit);
    if (!strokes) return [hit];
    return single ? asSingles(lane, order, hit, strokes) : [written(lane, order, hit, strokes)];
  });
  const { shift: _shift, offbeat: _offbeat, ...kept } = part;
  return { ...kept, hits: hits.sort((a, b) => a.step + a.nudge - b.step - b.nudge) };
};

/** A straight feel in which the takes of the one before can still be had. */
const straightened = (feel: Feel): Feel => ({
  ...newFeel(),
  humanize: { ...feel.humanize, timing: 0, velocity: 0 },
});

const plainLaneStraightened = (beat: Beat, feel: PlainFeel, laneId: string): PlainFeel => {
  const straight: LaneFeel = {
    base: 'straight',
    timing: 0,
    velocity: 0,
    ...(feel.level > 0 && feel.level !== 1 && { level: held(1 / feel.level, 0, 2) }),
  };
  const quantized = feel.quantize.lanes ?? beat.lanes.map(({ id }) => id);
  return {
    ...feel,
    quantize: { ...feel.quantize, lanes: quantized.filter((id) => id !== laneId) },
    lanes: { ...feel.lanes, [laneId]: straight },
  };
};

/** One lane straight, the others as they were. */
export const laneStraightened = (beat: Beat, { blend, ...feel }: Feel, laneId: string): Feel => ({
  ...plainLaneStraightened(beat, feel, laneId),
  ...(blend && { blend: { ...blend, with: plainLaneStraightened(beat, blend.with, laneId) } }),
});

/** Gives a feel to a pattern: to the beat where no other pattern follows the beat's. */
const giveFeel = (beat: Beat, pattern: Pattern, feel: Feel): Beat => {
  const alone = !pattern.feel && beat.patterns.every((one) => one.id === pattern.id || one.feel);
  return alone ? setPattern({ ...beat, feel }, pattern) : setPattern(beat, { ...pattern, feel });
};

/**
 * Puts the feel into the hits as nudge and velocity: each hit gets the step nearest to where it sounds in the first round.
 * The feel is then straight, for the lane or for all.
 *
 * @param laneId null for all lanes
 * @param single rolls and flams become single hits
 */
export const writeIn = (beat: Beat, patternId: string, laneId: string | null, single: boolean): Beat => {
  const pattern = beat.patterns.find(({ id }) => id === patternId);
  if (!pattern) return beat;
  const feel = feelOf(beat, pattern);
  const lanes = laneId === null ? beat.lanes.map(({ id }) => id) : [laneId];
  const done = lanes
    .filter((id) => partOf(pattern, id).hits.length)
    .reduce((now, id) => withPart(now, id, writePart(beat, pattern, id, single)), pattern);
  return giveFeel(beat, done, laneId === null ? straightened(feel) : laneStraightened(beat, feel, laneId));
};
