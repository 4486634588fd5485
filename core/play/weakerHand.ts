import type { Hand } from '../document/choices';
import type { Beat, Hit } from '../document/schema';
import { isPressed } from '../document/rolls';
import { sticking, type StickStroke } from '../hands/sticking';
import type { StrokeKind, FeltStroke } from '../feel/struck';
import { MOST_LATE } from '../feel/stages/humanize';
import { modulo } from '../numbers';
import { clamp, type Ms, type Ticks } from '../units';
import { eachStroke } from './laneStrokes';
import { DETOUR_HITS } from './moves/detours';
import type { LanePlan } from './plan';

/** The weaker hand's change to a stroke, by the lane and where it is written; null where the stronger one plays it. */
export type WeakerHand = (lane: number, stroke: FeltStroke) => { late: Ms; share: number } | null;

/** Strokes that follow one another as fast as this are the hardest for it. */
const FAST_MS: Ms = 110;
const SOFTER = 0.25;

const placeOf = (lane: number, at: Ticks, length: Ticks): string =>
  `${lane} ${Math.round(modulo(at, length))}`;

/** A stroke of a pattern, and what is written for it. */
export interface HandStroke extends StickStroke {
  /** The lane's place in the beat. */
  lane: number;
  step: number;
  /** Which of the step's hits it is of, from 0, and what kind of stroke. */
  hitIndex: number;
  kind: StrokeKind;
  /** How often its lane's loop went round before. */
  cycle: number;
  /** When its hit is struck, in ms: a grace stroke comes before that. */
  hitMs: Ms;
}

/** The most strokes that one hand lets bounce: a double or a triple. */
const BOUNCES = 3;

/** Whether the strokes of a hit's roll are bounces of one hand: a double, a triple, a press. */
const isOneHanded = ({ roll }: Hit): boolean => !!roll && (roll.levels.length <= BOUNCES || isPressed(roll));

/** Which hand a stroke of a hit has, where the hit says: its grace strokes come from the other, its bounces from the same. */
const handOf = (hit: Hit | undefined, kind: StrokeKind, stroke: number): Hand | undefined => {
  if (!hit?.hand) return undefined;
  const other: Hand = hit.hand === 'R' ? 'L' : 'R';
  if (kind === 'grace') return other;
  return kind !== 'roll' || isOneHanded(hit) || stroke % 2 === 0 ? hit.hand : other;
};

/** The strokes of one pass of all lanes, as they are written. */
export const writtenForHands = (
  beat: Beat,
  plans: readonly LanePlan[],
  length: Ticks,
  perMs: number,
): HandStroke[] =>
  plans.flatMap((plan) => {
    const { instrument } = beat.lanes[plan.index]!;
    const out: HandStroke[] = [];
    eachStroke(plan, 0, length, ({ at, velocity, sounds, step, kind, hitIndex, stroke, cycle, tie }) => {
      if (!sounds) return;
      const added = kind === 'echo' || kind === 'spark';
      const hit = added ? undefined : plan.byStep[step]?.[hitIndex % DETOUR_HITS];
      const hand = handOf(hit, kind, stroke);
      const hitMs = at / perMs;
      // A hand that the hit names lets go on bouncing what follows it within the hit.
      const bounces = hand && kind === 'roll' && isOneHanded(hit!) && stroke > 0;
      out.push({
        ms: kind === 'grace' ? hitMs + (tie?.apart ?? 0) : hitMs,
        hitMs,
        at,
        velocity,
        instrument,
        lane: plan.index,
        step,
        hitIndex,
        kind,
        cycle,
        ...(hand && { hand }),
        ...(bounces && { bounces }),
      });
    });
    return out;
  });

/**
 * Which strokes of a pattern the weaker hand plays, and how much later and softer they come: the more the faster it has to go.
 *
 * @param strokes of one pass
 */
export const weakerHand = (
  strokes: readonly (StickStroke & { lane: number; hitMs: Ms })[],
  length: Ticks,
  leftHanded: boolean,
): WeakerHand => {
  const weak = leftHanded ? 'R' : 'L';
  const found = new Map<string, { late: Ms; share: number }>();
  const stuck = sticking(strokes, { leftHanded });
  const order = strokes.map((_, at) => at).filter((at) => stuck[at]!.limb === 'L' || stuck[at]!.limb === 'R');
  order.sort((a, b) => strokes[a]!.hitMs - strokes[b]!.hitMs);
  order.forEach((at, place) => {
    if (stuck[at]!.limb !== weak) return;
    const before = strokes[order[place - 1] ?? at]!;
    const gap = place ? Math.max(1, strokes[at]!.hitMs - before.hitMs) : Infinity;
    const speed = clamp(FAST_MS / gap, 0, 1);
    found.set(placeOf(strokes[at]!.lane, strokes[at]!.at, length), {
      late: MOST_LATE * speed,
      share: 1 - SOFTER * (0.4 + 0.6 * speed),
    });
  });
  return (lane, { at }) => found.get(placeOf(lane, at, length)) ?? null;
};
