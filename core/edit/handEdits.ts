import type { Hand, HandRule } from '../document/choices';
import { feelOf } from '../document/defaults';
import { beatTicks } from '../document/meter';
import type { Beat, Hit, Pattern } from '../document/schema';
import { recognized } from '../hands/recognized';
import { sticking } from '../hands/sticking';
import { handStrokes } from '../play/plan';
import { changeHits, hitsOn, type Spot } from './spots';

const withHand = ({ hand: _, ...hit }: Hit, hand: Hand | null): Hit => (hand ? { ...hit, hand } : hit);

/**
 * Says which hand plays hits.
 *
 * @param hand null leaves it to be found by the least effort
 * @example setHands(pattern, [spots[0]!], 'L').parts['kick']!.hits[0]!.hand // "L"
 */
export const setHands = (pattern: Pattern, spots: Spot[], hand: Hand | null): Pattern =>
  changeHits(pattern, spots, (hit) => withHand(hit, hand));

/**
 * Gives hits the hands that a rule finds for them; those of other hits stay as they are. What feet play has none.
 *
 * @param rule of the least effort, hands are left to be found, and follow every change
 * @example stickBy(beat, pattern, [{ laneId: 'snare', step: 4 }], 'alternate').parts['snare']!.hits[0]!.hand // "R"
 */
export const stickBy = (beat: Beat, pattern: Pattern, spots: Spot[], rule: HandRule): Pattern => {
  const free = setHands(pattern, spots, null);
  if (rule === 'easiest') return free;
  const chosen = new Set(hitsOn(free, spots).map(({ hit }) => hit));
  const strokes = handStrokes(beat, free);
  const stuck = sticking(strokes, {
    rule,
    leftHanded: feelOf(beat, pattern).humanize.leftHanded ?? false,
    beat: beatTicks(pattern.meter),
    recognize: recognized,
  });
  const hands = new Map<string, Hand>();
  strokes.forEach(({ lane, step, hitIndex, kind }, at) => {
    const { limb } = stuck[at]!;
    if (kind === 'main' && (limb === 'R' || limb === 'L'))
      hands.set(`${beat.lanes[lane]!.id} ${step} ${hitIndex}`, limb);
  });
  const seen = new Map<string, number>();
  const parts = Object.entries(free.parts).map(([laneId, part]) => {
    if (!spots.some((spot) => spot.laneId === laneId)) return [laneId, part] as const;
    const hits = part.hits.map((hit) => {
      const step = `${laneId} ${hit.step}`;
      const place = seen.get(step) ?? 0;
      seen.set(step, place + 1);
      return chosen.has(hit) ? withHand(hit, hands.get(`${step} ${place}`) ?? null) : hit;
    });
    return [laneId, { ...part, hits }] as const;
  });
  return { ...free, parts: Object.fromEntries(parts) };
};
