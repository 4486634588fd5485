import type { InstrumentId } from '../document/instruments';
import { AT_ONCE_MS, SAME_LIMB_MS } from '../hands/kitPlan';
import type { Ms, Velocity } from '../units';

/** The limits of one drummer: two hands, two feet, and none of them faster than it can be. */

/** A stroke on its way to a drummer. */
export interface DrummerStroke {
  ms: Ms;
  velocity: Velocity;
  instrument: InstrumentId;
}

const isKick = (id: InstrumentId): boolean => id.startsWith('kick');
const FOOT = (id: InstrumentId): 'kick' | 'hat' | null =>
  isKick(id) ? 'kick' : id === 'hat.pedal' ? 'hat' : null;

/** When each hand, and each foot, last struck. */
interface Limbs {
  hands: [Ms, Ms];
  feet: Record<'kick' | 'hat', Ms>;
}

/** Whether a limb is free; it is busy from then on. */
const takes = (limbs: Limbs, { ms, instrument }: DrummerStroke): boolean => {
  const foot = FOOT(instrument);
  if (foot) {
    if (ms - limbs.feet[foot] < SAME_LIMB_MS) return false;
    limbs.feet[foot] = ms;
    return true;
  }
  // The hand that has rested longer.
  const hand = limbs.hands[0] <= limbs.hands[1] ? 0 : 1;
  if (ms - limbs.hands[hand] < SAME_LIMB_MS) return false;
  limbs.hands[hand] = ms;
  return true;
};

/** Strokes at once, the hardest first; of one instrument one. */
const together = (strokes: DrummerStroke[]): DrummerStroke[][] => {
  const out: DrummerStroke[][] = [];
  for (const stroke of [...strokes].sort((a, b) => a.ms - b.ms)) {
    const last = out[out.length - 1];
    if (last && stroke.ms - last[0]!.ms < AT_ONCE_MS) last.push(stroke);
    else out.push([stroke]);
  }
  return out.map((group) => group.sort((a, b) => b.velocity - a.velocity));
};

/**
 * The strokes that one drummer can play: of those for which no hand or foot is free the softer are left out.
 *
 * @param strokes in any order
 * @example drummable([0, 10, 20].map((ms) => ({ ms, velocity: 90, instrument: 'snare' as const }))).length // 2
 */
export const drummable = <S extends DrummerStroke>(strokes: S[]): S[] => {
  const limbs: Limbs = { hands: [-Infinity, -Infinity], feet: { kick: -Infinity, hat: -Infinity } };
  const out: S[] = [];
  for (const group of together(strokes) as S[][])
    for (const stroke of group) if (takes(limbs, stroke)) out.push(stroke);
  return out.sort((a, b) => a.ms - b.ms);
};

/** Whether one drummer can play all of it. @example isDrummable([]) // true */
export const isDrummable = (strokes: DrummerStroke[]): boolean =>
  drummable(strokes).length === strokes.length;
