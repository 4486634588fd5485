import { newHit, lanePatternOf, withLanePattern } from '../document/defaults';
import type { Hit, LanePattern, Pattern } from '../document/schema';
import type { Velocity } from '../units';
import { clamp } from '../units';

/** The hits of a step, in order of time. @example hitsAt(pattern.parts['kick']!, 4).length // 1 */
export const hitsAt = (part: LanePattern, step: number): Hit[] =>
  part.hits.filter((hit) => hit.step === step).sort((a, b) => a.nudge - b.nudge);

/** Whether a step holds any hit. @example isOn(pattern.parts['kick']!, 1) // false */
export const isOn = (part: LanePattern, step: number): boolean => part.hits.some((hit) => hit.step === step);

const inserted = (hits: Hit[], hit: Hit): Hit[] => {
  const at = hits.findIndex((other) => other.step + other.nudge > hit.step + hit.nudge);
  return at < 0 ? [...hits, hit] : [...hits.slice(0, at), hit, ...hits.slice(at)];
};

/**
 * Puts a hit onto an empty step, or takes all hits off it. Nothing changes where the step is already as asked for.
 *
 * @param before the hits that were taken off the step last: they come back with all they had, but for a velocity that is
 *   asked for
 * @example setStep(pattern, 'kick', 1, true).parts['kick']!.hits.map(({ step }) => step) // [0, 1, 4, 8, 12]
 */
export const setStep = (
  pattern: Pattern,
  laneId: string,
  step: number,
  on: boolean,
  velocity?: Velocity,
  before: Hit[] = [],
): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  if (isOn(part, step) === on) return pattern;
  const back = before.filter((hit) => hit.step === step);
  const put = back.length && velocity === undefined ? back : [newHit(step, velocity)];
  const hits = on ? put.reduce(inserted, part.hits) : part.hits.filter((hit) => hit.step !== step);
  return withLanePattern(pattern, laneId, { ...part, hits });
};

/**
 * Sets the velocity of the hits of a step: of one of them, or of all, shifted together so that the loudest gets it.
 *
 * @param velocity held to 1..127
 * @param place which of the step's hits, from 0; all of them where it is left out
 * @example setVelocity(pattern, 'kick', 0, 200).parts['kick']!.hits[0]!.velocity // 127
 */
export const setVelocity = (
  pattern: Pattern,
  laneId: string,
  step: number,
  velocity: Velocity,
  place?: number,
): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  const here = hitsAt(part, step);
  if (!here.length) return pattern;
  const chosen = place === undefined ? here : here.filter((_, at) => at === place);
  const loudest = Math.max(...chosen.map((hit) => hit.velocity));
  const shift = Math.round(clamp(velocity, 1, 127)) - loudest;
  if (shift === 0) return pattern;
  const hits = part.hits.map((hit) =>
    chosen.includes(hit) ? { ...hit, velocity: clamp(hit.velocity + shift, 1, 127) } : hit,
  );
  return withLanePattern(pattern, laneId, { ...part, hits });
};

/**
 * The velocity that a digit key stands for: 1 is 14, 9 is 127.
 *
 * @example digitVelocity(9) // 127
 */
export const digitVelocity = (digit: number): Velocity => Math.round((digit * 127) / 9);
