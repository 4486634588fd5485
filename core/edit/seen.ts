import { lanePatternOf, stepsOf } from '../document/defaults';
import type { Hit, Pattern } from '../document/schema';

/** What is seen of patterns without an edit: by itself, since the first screen shows it and needs no edit. */

/**
 * How many hits of a lane lie beyond its end: kept, and not played.
 *
 * @example hiddenHits(halve(pattern, 'kick'), 'kick') // 2
 */
export const hiddenHits = (pattern: Pattern, laneId: string): number => {
  const part = lanePatternOf(pattern, laneId);
  const steps = stepsOf(part, pattern);
  return part.hits.filter(({ step }) => step >= steps).length;
};

const written = (hits: Hit[]): string => JSON.stringify(hits);

/**
 * The steps at which a variation differs from its parent: hits added, gone or changed.
 *
 * @example differences(pattern, pattern, 'kick').size // 0
 */
export const differences = (pattern: Pattern, parent: Pattern, laneId: string): Set<number> => {
  const [now, before] = [lanePatternOf(pattern, laneId), lanePatternOf(parent, laneId)];
  const steps = new Set<number>();
  if (now.hits === before.hits) return steps;
  for (const { step } of [...now.hits, ...before.hits]) {
    const at = (hits: Hit[]) => written(hits.filter((hit) => hit.step === step));
    if (!steps.has(step) && at(now.hits) !== at(before.hits)) steps.add(step);
  }
  return steps;
};
