import { newHit, partOf, stepsOf } from '../beat/defaults';
import type { Grace, Hit, Pattern, Roll } from '../beat/schema';
import { held } from '../units';
import { withPart } from './hits';

/** A step of a lane; what is chosen on the strings is a list of them. */
export interface Spot {
  laneId: string;
  /** From 0. */
  step: number;
}

const keyOf = (laneId: string, step: number): string => `${step} ${laneId}`;

const inOrder = (hits: Hit[]): Hit[] => [...hits].sort((a, b) => a.step + a.nudge - (b.step + b.nudge));

/** The hits on chosen steps, in order of lane and time. */
export const hitsOn = (pattern: Pattern, spots: Spot[]): { laneId: string; hit: Hit }[] => {
  const wanted = new Set(spots.map(({ laneId, step }) => keyOf(laneId, step)));
  return [...new Set(spots.map(({ laneId }) => laneId))].flatMap((laneId) =>
    partOf(pattern, laneId)
      .hits.filter((hit) => wanted.has(keyOf(laneId, hit.step)))
      .map((hit) => ({ laneId, hit })),
  );
};

/** Every hit of a lane as chosen steps. */
export const spotsOf = (pattern: Pattern, laneId: string): Spot[] =>
  [...new Set(partOf(pattern, laneId).hits.map(({ step }) => step))].map((step) => ({ laneId, step }));

/**
 * Changes the hits on chosen steps; a change to null takes a hit away. The rest of the pattern stays the same.
 *
 * @param change is given the hit, its place among those chosen, from 0, and how many there are
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
    const part = partOf(out, laneId);
    const hits = part.hits.flatMap((hit) => {
      if (!changed.has(hit)) return [hit];
      const now = changed.get(hit);
      return now ? [now] : [];
    });
    const same = hits.length === part.hits.length && hits.every((hit, at) => hit === part.hits[at]);
    if (!same) out = withPart(out, laneId, { ...part, hits: inOrder(hits) });
  }
  return out;
};

const velocity = (value: number): number => Math.round(held(value, 1, 127));

/** Sets every velocity. */
export const setVelocities = (pattern: Pattern, spots: Spot[], to: number): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, velocity: velocity(to) }));

/** Velocities from the first hit in time to the last. @example rampVelocities(pattern, spots, 40, 120) */
export const rampVelocities = (pattern: Pattern, spots: Spot[], from: number, to: number): Pattern =>
  changeHits(pattern, spots, (hit, at, count) => ({
    ...hit,
    velocity: velocity(from + ((to - from) * at) / Math.max(1, count - 1)),
  }));

/** Multiplies velocities. */
export const scaleVelocities = (pattern: Pattern, spots: Spot[], factor: number): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, velocity: velocity(hit.velocity * factor) }));

/** Brings velocities nearer to their mean, or parts them. @param ratio 0 makes all alike, 1 changes nothing */
export const compressVelocities = (pattern: Pattern, spots: Spot[], ratio: number): Pattern => {
  const all = hitsOn(pattern, spots).map(({ hit }) => hit.velocity);
  const mean = all.reduce((sum, one) => sum + one, 0) / Math.max(1, all.length);
  return changeHits(pattern, spots, (hit) => ({
    ...hit,
    velocity: velocity(mean + (hit.velocity - mean) * ratio),
  }));
};

/** Nudges hits by a fraction of their step; beyond half a step they stay at it. */
export const nudgeHits = (pattern: Pattern, spots: Spot[], by: number): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, nudge: held(hit.nudge + by, -0.5, 0.5) + 0 }));

export const setNudges = (pattern: Pattern, spots: Spot[], to: number): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, nudge: held(to, -0.5, 0.5) + 0 }));

/** @param length in steps, above 0 to 64; null rings out */
export const setLengths = (pattern: Pattern, spots: Spot[], length: number | null): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, length: length === null ? null : held(length, 0.05, 64) }));

/** Lets each hit last up to the next one of its lane. */
export const lengthsToNext = (pattern: Pattern, spots: Spot[]): Pattern => {
  const next = new Map<Hit, number>();
  for (const laneId of new Set(spots.map((spot) => spot.laneId))) {
    const part = partOf(pattern, laneId);
    const end = stepsOf(part, pattern);
    part.hits.forEach((hit, at) => {
      const after = part.hits[at + 1];
      next.set(hit, (after ? after.step + after.nudge : end) - hit.step - hit.nudge);
    });
  }
  return changeHits(pattern, spots, (hit) => ({ ...hit, length: held(next.get(hit) ?? 1, 0.05, 64) }));
};

export const setChances = (pattern: Pattern, spots: Spot[], chance: number): Pattern =>
  changeHits(pattern, spots, (hit) => ({ ...hit, chance: held(chance, 0, 1) }));

/** @param passes on which rounds of a cycle of 2 to 8 the hits sound; null for every round */
export const setPasses = (pattern: Pattern, spots: Spot[], passes: Hit['passes'] | null): Pattern =>
  changeHits(pattern, spots, ({ passes: _, ...hit }) => (passes ? { ...hit, passes } : hit));

export const setRolls = (pattern: Pattern, spots: Spot[], roll: Roll | null): Pattern =>
  changeHits(pattern, spots, ({ roll: _, ...hit }) => (roll ? { ...hit, roll } : hit));

export const setGraces = (pattern: Pattern, spots: Spot[], grace: Grace[] | null): Pattern =>
  changeHits(pattern, spots, ({ grace: _, ...hit }) => (grace?.length ? { ...hit, grace } : hit));

export const removeHits = (pattern: Pattern, spots: Spot[]): Pattern =>
  changeHits(pattern, spots, () => null);

/** Hits that were copied, apart from where they came from. */
export interface Clip {
  /** How many steps it spans. */
  width: number;
  /** One for each lane, from the topmost; `down` is how many lanes below the topmost one. */
  rows: { down: number; hits: Hit[] }[];
}

/** Copies what is chosen. @param lanes the ids of the beat's lanes in order; null where nothing is chosen */
export const copyHits = (pattern: Pattern, spots: Spot[], lanes: string[]): Clip | null => {
  const chosen = hitsOn(pattern, spots);
  if (!chosen.length) return null;
  const steps = spots.map(({ step }) => step);
  const from = Math.min(...steps);
  const top = Math.min(...chosen.map(({ laneId }) => lanes.indexOf(laneId)));
  const rows = new Map<number, Hit[]>();
  for (const { laneId, hit } of chosen) {
    const down = lanes.indexOf(laneId) - top;
    rows.set(down, [...(rows.get(down) ?? []), { ...hit, step: hit.step - from }]);
  }
  return {
    width: Math.max(...steps) - from + 1,
    rows: [...rows].map(([down, hits]) => ({ down, hits })),
  };
};

export type Pasted = { ok: true; pattern: Pattern; spots: Spot[] } | { ok: false; error: string };

/**
 * Puts copied hits from a step on, the topmost row onto the lane given; nudge, rolls and the rest come along. What stands
 * on the steps pasted onto gives way. What would come after a lane's end is left out.
 *
 * @returns the pattern and where the hits are now, or why nothing fits
 */
export const pasteHits = (pattern: Pattern, clip: Clip, at: Spot, lanes: string[]): Pasted => {
  const top = lanes.indexOf(at.laneId);
  let out = pattern;
  const spots: Spot[] = [];
  for (const { down, hits } of clip.rows) {
    const laneId = lanes[top + down];
    if (top < 0 || laneId === undefined) continue;
    const part = partOf(out, laneId);
    const end = stepsOf(part, out);
    const fit = hits.map((hit) => ({ ...hit, step: hit.step + at.step })).filter(({ step }) => step < end);
    if (!fit.length) continue;
    const taken = new Set(fit.map(({ step }) => step));
    const kept = part.hits.filter(({ step }) => !taken.has(step));
    out = withPart(out, laneId, { ...part, hits: inOrder([...kept, ...fit]) });
    for (const step of taken) spots.push({ laneId, step });
  }
  if (spots.length) return { ok: true, pattern: out, spots };
  return {
    ok: false,
    error: 'Nothing was pasted: no copied hit would come before the end of its lane there.',
  };
};

/** Moves hits by steps and lanes; those that would leave the lane or the beat stay where they are, all together. */
export const moveHits = (
  pattern: Pattern,
  spots: Spot[],
  bySteps: number,
  byLanes: number,
  lanes: string[],
): Pasted => {
  const clip = copyHits(pattern, spots, lanes);
  if (!clip) return { ok: false, error: 'Nothing was moved: no hit is chosen.' };
  const moved = hitsOn(pattern, spots).map(({ laneId, hit }) => ({
    laneId: lanes[lanes.indexOf(laneId) + byLanes],
    step: hit.step + bySteps,
  }));
  const fits = moved.every(
    ({ laneId, step }) =>
      laneId !== undefined && step >= 0 && step < stepsOf(partOf(pattern, laneId), pattern),
  );
  if (!fits) return { ok: false, error: 'Nothing was moved: some hit would leave the pattern.' };
  const top = Math.min(...hitsOn(pattern, spots).map(({ laneId }) => lanes.indexOf(laneId)));
  const from = Math.min(...spots.map(({ step }) => step));
  return pasteHits(
    removeHits(pattern, spots),
    clip,
    { laneId: lanes[top + byLanes]!, step: from + bySteps },
    lanes,
  );
};

/** Puts a hit on every nth step, beginning with one of them. @param every 1 to 64 */
export const fillEvery = (
  pattern: Pattern,
  laneId: string,
  every: number,
  from: number,
  to: number,
): Pattern => {
  const part = partOf(pattern, laneId);
  const taken = new Set(part.hits.map(({ step }) => step));
  const added: Hit[] = [];
  for (let step = from; step < stepsOf(part, pattern); step += Math.max(1, Math.round(every)))
    if (!taken.has(step)) added.push(newHit(step, to));
  return added.length
    ? withPart(pattern, laneId, { ...part, hits: inOrder([...part.hits, ...added]) })
    : pattern;
};
