import { inOrder } from '../document/position';
import { withLanePattern } from '../document/defaults';
import { newHit, lanePatternOf } from '../document/defaults';
import type { Beat, Hit, Pattern } from '../document/schema';
import { laneOffset } from '../feel/prepareFeel';
import { planLane, type LanePlan } from '../play/plan';
import { bendOf } from '../play/notes';
import { readingOrder } from '../play/reading';
import { clamp, ticksPerMs, type Ticks, type Velocity } from '../units';

/** Playing in: what was played keeps its exact time as nudge. */

/** The position that the base feel takes to `sounding`: found by halving, since the feel keeps order. */
const beforeFeel = (bend: (position: Ticks) => Ticks, sounding: Ticks): Ticks => {
  let [low, high] = [sounding - 960, sounding + 960];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (bend(middle) < sounding) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
};

export interface PlayedStroke {
  laneId: string;
  /** Where it sounded, from where play began. */
  tick: Ticks;
  velocity: Velocity;
  /** 0 keeps the exact time, 1 puts it on the grid. */
  quantize: number;
  /** Semitones against the lane's note; left out, that note. */
  pitch?: number | undefined;
  /** The tick is a place of the straight grid, which the feel has still to move. */
  straight?: boolean | undefined;
}

/** How many places of its reading order a lane comes to in one round. */
const placesOf = (plan: LanePlan): number => Math.max(1, Math.ceil(plan.cycleTicks / plan.step - 1e-6));

/** The step that a lane reads at a place of a round; places beyond it belong to the next one. */
const stepRead = (plan: LanePlan, round: number, place: number): number => {
  const places = placesOf(plan);
  const at = Math.max(0, round * places + place);
  const order = readingOrder(plan.direction, plan.steps, Math.floor(at / places), plan.seed, plan.key);
  return order[at % places]!;
};

/**
 * The step and nudge at which a hit sounds at a tick, whichever way the lane is read.
 *
 * @example
 * placePlayed(beat, pattern, { laneId: 'kick', tick: 252, velocity: 90, quantize: 0 })
 * // { step: 1, nudge: 0.049999999996 }
 */
export const placePlayed = (
  beat: Beat,
  pattern: Pattern,
  { laneId, tick, quantize, straight }: PlayedStroke,
): Pick<Hit, 'step' | 'nudge'> => {
  const lane = beat.lanes.find(({ id }) => id === laneId)!;
  const plan = planLane(beat, pattern, lane);
  const round = Math.max(0, Math.floor(tick / plan.cycleTicks));
  const bend = bendOf(plan);
  const meant = tick - laneOffset(plan.feel) * ticksPerMs(beat.tempo);
  const before = straight ? tick : beforeFeel(bend, meant);
  const place = (before - round * plan.cycleTicks) / plan.step - plan.shift;
  const nearest = Math.round(place);
  const step = stepRead(plan, round, nearest);
  const own = plan.isOffbeat(step) ? plan.offbeat : 0;
  return { step, nudge: clamp((place - nearest - own) * (1 - clamp(quantize, 0, 1)), -0.5, 0.5) + 0 };
};

/** Two hits of a step that are nearer than this, in steps, are one. */
const SAME = 0.12;

/**
 * Adds what was played; a hit of the same pitch at the same place gives way to it.
 *
 * @example
 * recordHit(beat, pattern, { laneId: 'kick', tick: 480, velocity: 90, quantize: 1 }).parts['kick']!.hits.length
 * // 5
 */
export const recordHit = (beat: Beat, pattern: Pattern, played: PlayedStroke): Pattern => {
  const { step, nudge } = placePlayed(beat, pattern, played);
  const part = lanePatternOf(pattern, played.laneId);
  const { pitch = 0 } = played;
  const kept = part.hits.filter(
    (hit) => hit.step !== step || (hit.pitch ?? 0) !== pitch || Math.abs(hit.nudge - nudge) > SAME,
  );
  const plain = newHit(step, Math.round(clamp(played.velocity, 1, 127)));
  const hit = { ...plain, nudge, ...(pitch && { pitch }) };
  const hits = inOrder([...kept, hit]);
  return withLanePattern(pattern, played.laneId, { ...part, hits });
};

/**
 * Takes away what a lane plays between two moments.
 *
 * @param from included, to excluded, from where play began
 * @example eraseBetween(beat, pattern, 'kick', 0, 1920).parts['kick']!.hits.length // 2
 */
export const eraseBetween = (
  beat: Beat,
  pattern: Pattern,
  laneId: string,
  from: Ticks,
  to: Ticks,
): Pattern => {
  const lane = beat.lanes.find(({ id }) => id === laneId);
  if (!lane || to <= from) return pattern;
  const plan = planLane(beat, pattern, lane);
  const gone = new Set<number>();
  for (let at = Math.floor(Math.max(0, from) / plan.step); at * plan.step < to; at++) {
    const round = Math.floor((at * plan.step) / plan.cycleTicks + 1e-9);
    gone.add(stepRead(plan, round, Math.round(at - (round * plan.cycleTicks) / plan.step)));
  }
  const part = lanePatternOf(pattern, laneId);
  const hits = part.hits.filter(({ step }) => !gone.has(step));
  return hits.length === part.hits.length ? pattern : withLanePattern(pattern, laneId, { ...part, hits });
};
