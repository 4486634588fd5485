import { partOf, stepsOf } from '../beat/defaults';
import type { Hit, Part, Pattern } from '../beat/schema';
import { held } from '../units';
import { withPart } from './hits';

/** Changes of a whole lane's part. */

export const STEPS = { least: 1, most: 64 } as const;

const inOrder = (hits: Hit[]): Hit[] => [...hits].sort((a, b) => a.step + a.nudge - (b.step + b.nudge));

/** Changes the hits within the loop; those beyond its end are kept as they are. */
const within = (pattern: Pattern, laneId: string, change: (hits: Hit[], steps: number) => Hit[]): Pattern => {
  const part = partOf(pattern, laneId);
  const steps = stepsOf(part, pattern);
  const inside = part.hits.filter(({ step }) => step < steps);
  if (!inside.length) return pattern;
  const beyond = part.hits.filter(({ step }) => step >= steps);
  return withPart(pattern, laneId, { ...part, hits: inOrder([...change(inside, steps), ...beyond]) });
};

/** Sets how a part is read; hits stay at their steps. */
export const setPart = (pattern: Pattern, laneId: string, change: Partial<Omit<Part, 'hits'>>): Pattern => {
  const part = partOf(pattern, laneId);
  const steps = change.steps == null ? change.steps : Math.round(held(change.steps, STEPS.least, STEPS.most));
  return withPart(pattern, laneId, { ...part, ...change, ...(steps !== undefined && { steps }) });
};

const wrapped = (step: number, steps: number): number => ((step % steps) + steps) % steps;

/** Turns a lane round its loop. @example rotate(pattern, 'kick', 1) // every hit a step later, the last one first */
export const rotate = (pattern: Pattern, laneId: string, by: number): Pattern =>
  within(pattern, laneId, (hits, steps) =>
    hits.map((hit) => ({ ...hit, step: wrapped(hit.step + by, steps) })),
  );

/** Moves a lane by steps; what leaves its loop is gone, and comes back with undo. */
export const shift = (pattern: Pattern, laneId: string, by: number): Pattern =>
  within(pattern, laneId, (hits, steps) =>
    hits.map((hit) => ({ ...hit, step: hit.step + by })).filter(({ step }) => step >= 0 && step < steps),
  );

/** The last step comes first. Nudges stay as they are: they run forward in time. */
export const reverse = (pattern: Pattern, laneId: string): Pattern =>
  within(pattern, laneId, (hits, steps) => hits.map((hit) => ({ ...hit, step: steps - 1 - hit.step })));

/** The second half becomes the first one read backward. */
export const mirror = (pattern: Pattern, laneId: string): Pattern =>
  within(pattern, laneId, (hits, steps) => {
    const first = hits.filter(({ step }) => step < steps / 2);
    const back = first.map((hit) => ({ ...hit, step: steps - 1 - hit.step }));
    return [...first, ...back.filter(({ step }) => step >= steps / 2)];
  });

/** The same twice: a loop twice as long. @returns null where it would have more than 64 steps */
export const double = (pattern: Pattern, laneId: string): Pattern | null => {
  const part = partOf(pattern, laneId);
  const steps = stepsOf(part, pattern);
  if (2 * steps > STEPS.most) return null;
  const inside = part.hits.filter(({ step }) => step < steps);
  const again = inside.map((hit) => ({ ...hit, step: hit.step + steps }));
  return withPart(pattern, laneId, { ...part, steps: 2 * steps, hits: inOrder([...inside, ...again]) });
};

/** Half as long; what lies beyond is kept and comes back when the loop is made longer. */
export const halve = (pattern: Pattern, laneId: string): Pattern => {
  const part = partOf(pattern, laneId);
  return withPart(pattern, laneId, {
    ...part,
    steps: Math.round(held(stepsOf(part, pattern) / 2 - 0.5, STEPS.least, STEPS.most)),
  });
};

const placed = (position: number): Pick<Hit, 'step' | 'nudge'> => {
  const step = Math.max(0, Math.round(position));
  return { step, nudge: held(position - step, -0.5, 0.5) + 0 };
};

/**
 * Every hit at twice or half its place, lengths too, within the same loop. What comes after the loop's end is kept there.
 *
 * @param factor 2 for twice the time, 0.5 for half of it
 */
export const stretch = (pattern: Pattern, laneId: string, factor: number): Pattern => {
  const part = partOf(pattern, laneId);
  const hits = part.hits.map((hit) => ({
    ...hit,
    ...placed((hit.step + hit.nudge) * factor),
    length: hit.length === null ? null : held(hit.length * factor, 0.05, 64),
  }));
  return withPart(pattern, laneId, { ...part, hits: inOrder(hits.filter(({ step }) => step < 4096)) });
};

/** Leaves out the softest third, at least one hit. */
export const thin = (pattern: Pattern, laneId: string): Pattern =>
  within(pattern, laneId, (hits) => {
    const bySoftness = [...hits].sort((a, b) => a.velocity - b.velocity || b.step - a.step);
    const gone = new Set(bySoftness.slice(0, Math.max(1, Math.round(hits.length / 3))));
    return hits.filter((hit) => !gone.has(hit));
  });

/** Adds a soft hit halfway to the next one, where there is room. */
export const thicken = (pattern: Pattern, laneId: string): Pattern =>
  within(pattern, laneId, (hits, steps) => {
    const taken = new Set(hits.map(({ step }) => step));
    const added = hits.flatMap((hit, at) => {
      const next = hits[at + 1]?.step ?? steps + hits[0]!.step;
      const step = wrapped(hit.step + Math.floor((next - hit.step) / 2), steps);
      if (next - hit.step < 2 || taken.has(step)) return [];
      taken.add(step);
      const { roll: _roll, grace: _grace, ...plain } = hit;
      return [{ ...plain, step, nudge: 0, velocity: Math.max(1, Math.round(hit.velocity * 0.55)) }];
    });
    return [...hits, ...added];
  });

export const clearLane = (pattern: Pattern, laneId: string): Pattern => within(pattern, laneId, () => []);

export const clearAll = (pattern: Pattern): Pattern =>
  Object.keys(pattern.parts).reduce((now, laneId) => clearLane(now, laneId), pattern);
