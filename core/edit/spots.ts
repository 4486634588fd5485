import { inOrder } from '../document/position';
import { withLanePattern } from '../document/defaults';
import { newHit, lanePatternOf, stepsOf } from '../document/defaults';
import type { Grace, Hit, Pattern, Roll } from '../document/schema';
import { gridTicks } from '../document/grid';
import { clamp, type Ticks } from '../units';

/** A step of a lane, or one of the hits on it; what is selected on the strings is a list of them. */
export interface Spot {
  laneId: string;
  /** From 0. */
  step: number;
  /** Which of the step's hits, in order of time; left out, all of them. */
  place?: number;
}

const keyOf = (laneId: string, step: number): string => `${step} ${laneId}`;

/**
 * Whether two are the same step, or the same hit of it.
 *
 * @example sameSpot({ laneId: 'kick', step: 0 }, { laneId: 'kick', step: 0 }) // true
 */
export const sameSpot = (a: Spot, b: Spot): boolean =>
  a.laneId === b.laneId && a.step === b.step && a.place === b.place;

/** The hits on chosen steps, in order of lane and time. @example hitsOn(pattern, [spots[0]!]).length // 1 */
export const hitsOn = (pattern: Pattern, spots: Spot[]): { laneId: string; hit: Hit }[] => {
  const wanted = new Map<string, Set<number> | null>();
  for (const { laneId, step, place } of spots) {
    const key = keyOf(laneId, step);
    const known = wanted.get(key);
    if (place === undefined || known === null) wanted.set(key, null);
    else wanted.set(key, new Set([...(known ?? []), place]));
  }
  return [...new Set(spots.map(({ laneId }) => laneId))].flatMap((laneId) => {
    let [step, place] = [-1, 0];
    // Hits stand in order of time, so those of a step come one after the other, but for nudges that cross.
    const places = new Map<Hit, number>();
    const { hits } = lanePatternOf(pattern, laneId);
    for (const hit of [...hits].sort((a, b) => a.step - b.step || a.nudge - b.nudge)) {
      place = hit.step === step ? place + 1 : 0;
      step = hit.step;
      places.set(hit, place);
    }
    return hits
      .filter((hit) => {
        const of = wanted.get(keyOf(laneId, hit.step));
        return of === null || of?.has(places.get(hit)!);
      })
      .map((hit) => ({ laneId, hit }));
  });
};

/**
 * Every hit of a lane as chosen steps, those that its loop has.
 *
 * @example spotsOf(pattern, 'snare').map(({ step }) => step) // [4, 12]
 */
export const spotsOf = (pattern: Pattern, laneId: string): Spot[] => {
  const part = lanePatternOf(pattern, laneId);
  const steps = stepsOf(part, pattern);
  return [...new Set(part.hits.map(({ step }) => step))]
    .filter((step) => step < steps)
    .map((step) => ({ laneId, step }));
};

/**
 * The hits of some lanes whose steps begin within a stretch of time, told from the pattern's start.
 *
 * @example spotsWithin(pattern, ['kick', 'snare'], 0, 1920).length // 3
 */
export const spotsWithin = (pattern: Pattern, laneIds: string[], from: Ticks, to: Ticks): Spot[] =>
  laneIds.flatMap((laneId) => {
    const g = gridTicks(lanePatternOf(pattern, laneId).grid);
    return spotsOf(pattern, laneId).filter(({ step }) => step * g >= from - 1e-6 && step * g < to - 1e-6);
  });

/**
 * Changes the hits on chosen steps; a change to null takes a hit away. The rest of the pattern stays the same.
 *
 * @param change is given the hit, its place among those chosen, from 0, and how many there are
 * @example changeHits(pattern, spots, () => null).parts['kick']!.hits // []
 */
export const changeHits = (
  pattern: Pattern,
  spots: Spot[],
  change: (hit: Hit, at: number, count: number) => Hit | null,
): Pattern => {
  const chosen = hitsOn(pattern, spots);
  if (!chosen.length) return pattern;
  const changed = new Map<Hit, Hit | null>();
  // Ramps run in time, whatever the lane.
  const inTime = [...chosen].sort((a, b) => a.hit.step + a.hit.nudge - (b.hit.step + b.hit.nudge));
  inTime.forEach(({ hit }, at) => changed.set(hit, change(hit, at, inTime.length)));
  let out = pattern;
  for (const laneId of new Set(spots.map((spot) => spot.laneId))) {
    const part = lanePatternOf(out, laneId);
    const hits = part.hits.flatMap((hit) => {
      if (!changed.has(hit)) return [hit];
      const now = changed.get(hit);
      return now ? [now] : [];
    });
    const same = hits.length === part.hits.length && hits.every((hit, at) => hit === part.hits[at]);
    if (!same) out = withLanePattern(out, laneId, { ...part, hits: inOrder(hits) });
  }
  return out;
};

const velocity = (value: number): number => Math.round(clamp(value, 1, 127));

/** Sets every velocity. @example setVelocities(pattern, spots, 40).parts['kick']!.hits[0]!.velocity // 40 */
export const setVelocities = (pattern: Pattern, spots: Spot[], to: number): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, velocity: velocity(to) }));

/**
 * Velocities from the first hit in time to the last.
 *
 * @example
 * rampVelocities(pattern, spots, 40, 120).parts['kick']!.hits.map(({ velocity }) => velocity)
 * // [40, 67, 93, 120]
 */
export const rampVelocities = (pattern: Pattern, spots: Spot[], from: number, to: number): Pattern =>
  changeHits(pattern, spots, (hit, at, count) => ({
    ...hit,
    velocity: velocity(from + ((to - from) * at) / Math.max(1, count - 1)),
  }));

/** Multiplies velocities. @example scaleVelocities(pattern, spots, 0.5).parts['kick']!.hits[0]!.velocity // 48 */
export const scaleVelocities = (pattern: Pattern, spots: Spot[], factor: number): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, velocity: velocity(hit.velocity * factor) }));

/**
 * Brings velocities nearer to their mean, or parts them.
 *
 * @param ratio 0 makes all alike, 1 changes nothing
 * @example
 * compressVelocities(rampVelocities(pattern, spots, 40, 120), spots, 0.5).parts['kick']!.hits.map(({ velocity }) => velocity)
 * // [60, 74, 87, 100]
 */
export const compressVelocities = (pattern: Pattern, spots: Spot[], ratio: number): Pattern => {
  const all = hitsOn(pattern, spots).map(({ hit }) => hit.velocity);
  const mean = all.reduce((sum, one) => sum + one, 0) / Math.max(1, all.length);
  return changeHits(pattern, spots, (hit) => ({
    ...hit,
    velocity: velocity(mean + (hit.velocity - mean) * ratio),
  }));
};

/** By how much all can be changed together, so that none leaves its range and all keep their differences. */
const together = (values: number[], by: number, least: number, most: number): number =>
  values.reduce((left, value) => Math.min(most - value, Math.max(least - value, left)), by);

/**
 * Changes velocities by the same amount: their differences stay, and none leaves 1 to 127.
 *
 * @example shiftVelocities(pattern, spots, 100).parts['kick']!.hits[0]!.velocity // 127
 */
export const shiftVelocities = (pattern: Pattern, spots: Spot[], by: number): Pattern => {
  const all = hitsOn(pattern, spots).map(({ hit }) => hit.velocity);
  const amount = together(all, Math.round(by), 1, 127);
  return amount
    ? changeHits(pattern, spots, (hit) => ({ ...hit, velocity: hit.velocity + amount }))
    : pattern;
};

/**
 * Nudges hits by the same time, whatever the grid of their lane: their differences stay, and none leaves its step.
 *
 * @param stepTicks the length of a step of each lane as it is read
 * @param by in ticks, negative is earlier
 * @example nudgeTogether(pattern, spots, 24, () => 240).parts['kick']!.hits[0]!.nudge // 0.1
 */
export const nudgeTogether = (
  pattern: Pattern,
  spots: Spot[],
  by: Ticks,
  stepTicks: (laneId: string) => Ticks,
): Pattern => {
  const chosen = hitsOn(pattern, spots);
  let amount = by;
  for (const { laneId, hit } of chosen) {
    const step = stepTicks(laneId);
    amount = together([hit.nudge * step], amount, -0.5 * step, 0.5 * step);
  }
  if (!amount) return pattern;
  const lanes = new Map(chosen.map(({ hit, laneId }) => [hit, laneId]));
  return changeHits(pattern, spots, (hit) => ({
    ...hit,
    nudge: clamp(hit.nudge + amount / stepTicks(lanes.get(hit)!), -0.5, 0.5) + 0,
  }));
};

/**
 * Nudges hits by a fraction of their step; beyond half a step they stay at it.
 *
 * @example nudgeHits(pattern, spots, 0.25).parts['kick']!.hits[0]!.nudge // 0.25
 */
export const nudgeHits = (pattern: Pattern, spots: Spot[], by: number): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, nudge: clamp(hit.nudge + by, -0.5, 0.5) + 0 }));

/**
 * Sets the nudge of hits, in steps, held to half a step either way.
 *
 * @example setNudges(pattern, spots, -0.25).parts['kick']!.hits[0]!.nudge // -0.25
 */
export const setNudges = (pattern: Pattern, spots: Spot[], to: number): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, nudge: clamp(to, -0.5, 0.5) + 0 }));

/**
 * @param length in steps, above 0 to 64; null rings out
 *
 * @example setLengths(pattern, spots, 2).parts['kick']!.hits[0]!.length // 2
 */
export const setLengths = (pattern: Pattern, spots: Spot[], length: number | null): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, length: length === null ? null : clamp(length, 0.05, 64) }));

/**
 * Lets each hit last up to the next one of its lane.
 *
 * @example lengthsToNext(pattern, spots).parts['kick']!.hits[0]!.length // 4
 */
export const lengthsToNext = (pattern: Pattern, spots: Spot[]): Pattern => {
  const next = new Map<Hit, number>();
  for (const laneId of new Set(spots.map((spot) => spot.laneId))) {
    const part = lanePatternOf(pattern, laneId);
    const end = stepsOf(part, pattern);
    part.hits.forEach((hit, at) => {
      const after = part.hits[at + 1];
      next.set(hit, (after ? after.step + after.nudge : end) - hit.step - hit.nudge);
    });
  }
  return changeHits(pattern, spots, (hit) => ({ ...hit, length: clamp(next.get(hit) ?? 1, 0.05, 64) }));
};

/**
 * Sets how often hits sound, from 0 to 1.
 *
 * @example setChances(pattern, spots, 0.5).parts['kick']!.hits[0]!.chance // 0.5
 */
export const setChances = (pattern: Pattern, spots: Spot[], chance: number): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, chance: clamp(chance, 0, 1) }));

/**
 * @param passes on which rounds of a cycle of 2 to 8 the hits sound; null for every round
 *
 * @example setPasses(pattern, spots, { of: 2, on: [1] }).parts['kick']!.hits[0]!.passes // { of: 2, on: [1] }
 */
export const setPasses = (pattern: Pattern, spots: Spot[], passes: Hit['passes'] | null): Pattern =>
  changeHits(pattern, spots, ({ passes: _, ...hit }) => (passes ? { ...hit, passes } : hit));

/**
 * Makes hits rolls, or single hits again by null.
 *
 * @example setRolls(pattern, spots, sloped(3, 0)).parts['kick']!.hits[0]!.roll!.levels.length // 3
 */
export const setRolls = (pattern: Pattern, spots: Spot[], roll: Roll | null): Pattern =>
  changeHits(pattern, spots, ({ roll: _, ...hit }) => (roll ? { ...hit, roll } : hit));

/** Gives hits grace strokes, or takes them by null. */
export const setGraces = (pattern: Pattern, spots: Spot[], grace: Grace[] | null): Pattern =>
  changeHits(pattern, spots, ({ grace: _, ...hit }) => (grace?.length ? { ...hit, grace } : hit));

/**
 * Tunes hits, in semitones against their lane's note; 0 is that note.
 *
 * @example setPitches(pattern, spots, 7).parts['kick']!.hits[0]!.pitch // 7
 */
export const setPitches = (pattern: Pattern, spots: Spot[], to: number): Pattern =>
  changeHits(pattern, spots, ({ pitch: _, ...hit }) => (to ? { ...hit, pitch: Math.round(to) } : hit));

/**
 * Tunes hits higher or lower by the same amount; none leaves what MIDI has against its lane's note.
 *
 * @example shiftPitches(pattern, spots, -12).parts['kick']!.hits[0]!.pitch // -12
 */
export const shiftPitches = (pattern: Pattern, spots: Spot[], by: number): Pattern => {
  const all = hitsOn(pattern, spots).map(({ hit }) => hit.pitch ?? 0);
  const amount = together(all, Math.round(by), -127, 127);
  return changeHits(pattern, spots, ({ pitch = 0, ...hit }) =>
    pitch + amount ? { ...hit, pitch: pitch + amount } : hit,
  );
};

/**
 * Takes hits off their steps.
 *
 * @example removeHits(pattern, [spots[0]!]).parts['kick']!.hits.map(({ step }) => step) // [4, 8, 12]
 */
export const removeHits = (pattern: Pattern, spots: Spot[]): Pattern =>
  changeHits(pattern, spots, () => null);

/**
 * Puts a hit on every nth step, beginning with one of them.
 *
 * @param every 1 to 64
 * @example fillEvery(pattern, 'clap', 4, 0, 16).parts['clap']!.hits.map(({ step }) => step) // [0, 4, 8, 12]
 */
export const fillEvery = (
  pattern: Pattern,
  laneId: string,
  every: number,
  from: number,
  to: number,
): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  const taken = new Set(part.hits.map(({ step }) => step));
  const added: Hit[] = [];
  for (let step = from; step < stepsOf(part, pattern); step += Math.max(1, Math.round(every)))
    if (!taken.has(step)) added.push(newHit(step, to));
  return added.length
    ? withLanePattern(pattern, laneId, { ...part, hits: inOrder([...part.hits, ...added]) })
    : pattern;
};
