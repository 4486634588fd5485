import { inOrder } from '../document/position';
import { modulo } from '../numbers';
import { withLanePattern } from '../document/defaults';
import { STEPS } from '../document/choices';
import { lanePatternOf, stepsOf } from '../document/defaults';
import type { Hit, LanePattern, Pattern } from '../document/schema';
import { gridTicks, type Grid } from '../document/grid';
import { clamp } from '../units';

/** Changes of a whole lane's part. */

/** Changes the hits within the loop; those beyond its end are kept as they are. */
const within = (pattern: Pattern, laneId: string, change: (hits: Hit[], steps: number) => Hit[]): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  const steps = stepsOf(part, pattern);
  const inside = part.hits.filter(({ step }) => step < steps);
  if (!inside.length) return pattern;
  const beyond = part.hits.filter(({ step }) => step >= steps);
  return withLanePattern(pattern, laneId, { ...part, hits: inOrder([...change(inside, steps), ...beyond]) });
};

/**
 * Sets how a part is read; hits stay at their steps.
 *
 * @example setPart(pattern, 'kick', { steps: 100 }).parts['kick']!.steps // 64
 */
export const setPart = (
  pattern: Pattern,
  laneId: string,
  change: Partial<Omit<LanePattern, 'hits'>>,
): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  const steps =
    change.steps == null ? change.steps : Math.round(clamp(change.steps, STEPS.least, STEPS.most));
  return withLanePattern(pattern, laneId, { ...part, ...change, ...(steps !== undefined && { steps }) });
};

/**
 * Turns a lane round its loop.
 *
 * @example rotate(pattern, 'kick', 1).parts['kick']!.hits.map(({ step }) => step) // [1, 5, 9, 13]
 */
export const rotate = (pattern: Pattern, laneId: string, by: number): Pattern =>
  within(pattern, laneId, (hits, steps) =>
    hits.map((hit) => ({ ...hit, step: modulo(hit.step + by, steps) })),
  );

/** Steps that a lane can have hits on, in and out of sight. */
const ALL_STEPS = 4096;

/**
 * Moves a lane by steps. What leaves its loop goes out of sight and is kept: moved back, it is there again.
 *
 * @param by in steps, later where it is above 0
 * @example shift(pattern, 'kick', -1).parts['kick']!.hits.map(({ step }) => step) // [3, 7, 11, 4095]
 */
export const shift = (pattern: Pattern, laneId: string, by: number): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  if (!part.hits.length) return pattern;
  const hits = part.hits.map((hit) => ({ ...hit, step: modulo(hit.step + by, ALL_STEPS) }));
  return withLanePattern(pattern, laneId, { ...part, hits: inOrder(hits) });
};

/**
 * The last step comes first. Nudges stay as they are: they run forward in time.
 *
 * @example reverse(pattern, 'kick').parts['kick']!.hits.map(({ step }) => step) // [3, 7, 11, 15]
 */
export const reverse = (pattern: Pattern, laneId: string): Pattern =>
  within(pattern, laneId, (hits, steps) => hits.map((hit) => ({ ...hit, step: steps - 1 - hit.step })));

/**
 * The second half becomes the first one read backward.
 *
 * @example mirror(pattern, 'kick').parts['kick']!.hits.map(({ step }) => step) // [0, 4, 11, 15]
 */
export const mirror = (pattern: Pattern, laneId: string): Pattern =>
  within(pattern, laneId, (hits, steps) => {
    const first = hits.filter(({ step }) => step < steps / 2);
    const back = first.map((hit) => ({ ...hit, step: steps - 1 - hit.step }));
    return [...first, ...back.filter(({ step }) => step >= steps / 2)];
  });

/**
 * The same twice: a loop twice as long. What was out of sight beyond its end stays so.
 *
 * @returns null where it would have more than 64 steps
 * @example double(pattern, 'kick')!.parts['kick']!.steps // 32
 */
export const double = (pattern: Pattern, laneId: string): Pattern | null => {
  const part = lanePatternOf(pattern, laneId);
  const steps = stepsOf(part, pattern);
  if (2 * steps > STEPS.most) return null;
  const inside = part.hits.filter(({ step }) => step < steps);
  const later = part.hits
    .map((hit) => ({ ...hit, step: hit.step + steps }))
    .filter(({ step }) => step < ALL_STEPS);
  return withLanePattern(pattern, laneId, {
    ...part,
    steps: 2 * steps,
    hits: inOrder([...inside, ...later]),
  });
};

const isSame = (a: Hit[], b: Hit[]): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Half as long; what lies beyond is kept and comes back when the loop is made longer. A second half that only repeats the first is
 * no more than that: doubled and halved, a lane is as it was.
 *
 * @example halve(pattern, 'kick').parts['kick']!.steps // 8
 */
export const halve = (pattern: Pattern, laneId: string): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  const whole = stepsOf(part, pattern);
  const steps = Math.round(clamp(whole / 2 - 0.5, STEPS.least, STEPS.most));
  const from = (hits: Hit[]) => hits.map((hit) => ({ ...hit, step: hit.step - steps }));
  const inside = (low: number, high: number) => part.hits.filter(({ step }) => step >= low && step < high);
  const repeats =
    part.steps !== null && whole === 2 * steps && isSame(inside(0, steps), from(inside(steps, whole)));
  // As long as the pattern it goes with the pattern, as it did before it was doubled.
  const follows = repeats && steps === stepsOf({ ...part, steps: null }, pattern);
  return withLanePattern(pattern, laneId, {
    ...part,
    steps: follows ? null : steps,
    hits: repeats ? [...inside(0, steps), ...from(inside(whole, Infinity))] : part.hits,
  });
};

/** The nearest step, and the rest; half a step before the end of a loop is still its last step. */
const placed = (position: number, steps: number): Pick<Hit, 'step' | 'nudge'> => {
  const nearest = Math.max(0, Math.round(position));
  const step = nearest >= steps && position <= steps - 0.5 + 1e-9 ? steps - 1 : nearest;
  return { step, nudge: clamp(position - step, -0.5, 0.5) + 0 };
};

/** @param steps of the loop that it comes to stand in */
const stretched = (hit: Hit, factor: number, steps: number, from = 0): Hit => ({
  ...hit,
  ...placed(from + (hit.step + hit.nudge) * factor, steps),
  length: hit.length === null ? null : clamp(hit.length * factor, 0.05, 64),
});

/**
 * Half time and double time as a drummer means them, within the same loop: half time takes twice as long for everything, and
 * what does not fit into the loop any more is kept out of sight beyond its end; double time takes half as long, and plays it
 * twice. Hits that are beyond the loop's end stay there.
 *
 * @param factor 2 for half time, 0.5 for double time
 * @example stretch(pattern, 'kick', 2).parts['kick']!.hits.map(({ step }) => step) // [0, 8, 16, 24]
 */
export const stretch = (pattern: Pattern, laneId: string, factor: number): Pattern =>
  within(pattern, laneId, (hits, steps) => {
    const once = hits.map((hit) => stretched(hit, factor, steps)).filter(({ step }) => step < ALL_STEPS);
    if (factor >= 1) return once;
    const again = hits.map((hit) => stretched(hit, factor, steps, steps * factor));
    return [...once, ...again].filter(({ step }) => step < steps);
  });

/**
 * Another grid while hits keep their time: each takes the step that is nearest, and the rest as nudge. Lengths keep theirs;
 * a loop of its own keeps its length as nearly as whole steps can.
 *
 * @example regrid(pattern, 'kick', '1/8').parts['kick']!.hits.map(({ step }) => step) // [0, 2, 4, 6]
 */
export const regrid = (pattern: Pattern, laneId: string, grid: Grid): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  const scale = gridTicks(part.grid) / gridTicks(grid);
  if (scale === 1) return pattern;
  const loop = Math.max(1, Math.round(stepsOf(part, pattern) * scale));
  const hits = part.hits.map((hit) => {
    const inside = hit.step < stepsOf(part, pattern);
    const moved = stretched(hit, scale, inside ? loop : Infinity);
    // What the last step does not reach is early for the first one: it sounds at its time there.
    return inside && moved.step >= loop ? { ...moved, step: moved.step - loop } : moved;
  });
  const steps = part.steps === null ? null : Math.round(clamp(part.steps * scale, STEPS.least, STEPS.most));
  const { shift, offbeat, ...rest } = part;
  return withLanePattern(pattern, laneId, {
    ...rest,
    grid,
    steps,
    hits: inOrder(hits.filter(({ step }) => step < 4096)),
    ...(shift !== undefined && { shift: clamp(shift * scale, -0.5, 0.5) }),
    ...(offbeat !== undefined && { offbeat: clamp(offbeat * scale, -0.5, 0.5) }),
  });
};

/** Leaves out the softest third, at least one hit. @example thin(pattern, 'kick').parts['kick']!.hits.length // 3 */
export const thin = (pattern: Pattern, laneId: string): Pattern =>
  within(pattern, laneId, (hits) => {
    const bySoftness = [...hits].sort((a, b) => a.velocity - b.velocity || b.step - a.step);
    const gone = new Set(bySoftness.slice(0, Math.max(1, Math.round(hits.length / 3))));
    return hits.filter((hit) => !gone.has(hit));
  });

/**
 * Adds a soft hit halfway to the next one, where there is room.
 *
 * @example thicken(pattern, 'kick').parts['kick']!.hits.length // 8
 */
export const thicken = (pattern: Pattern, laneId: string): Pattern =>
  within(pattern, laneId, (hits, steps) => {
    const taken = new Set(hits.map(({ step }) => step));
    const added = hits.flatMap((hit, at) => {
      const next = hits[at + 1]?.step ?? steps + hits[0]!.step;
      const step = modulo(hit.step + Math.floor((next - hit.step) / 2), steps);
      if (next - hit.step < 2 || taken.has(step)) return [];
      taken.add(step);
      const { roll: _roll, grace: _grace, ...plain } = hit;
      return [{ ...plain, step, nudge: 0, velocity: Math.max(1, Math.round(hit.velocity * 0.55)) }];
    });
    return [...hits, ...added];
  });

/**
 * Takes all hits of a lane away, those out of sight beyond its end too.
 *
 * @example clearLane(pattern, 'kick').parts['kick']!.hits // []
 */
export const clearLane = (pattern: Pattern, laneId: string): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  return part.hits.length ? withLanePattern(pattern, laneId, { ...part, hits: [] }) : pattern;
};
