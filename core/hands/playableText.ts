import { count } from '../document/text';
import type { StickFault, unplayable } from './sticking';

const WHY: Record<StickFault, string> = {
  tooMany: 'for a third hand',
  tooSoon: 'too soon for the same hand',
  tooFar: 'too far away in the time',
  foot: 'too soon for the foot',
};

/**
 * Whether one drummer can play it, in words.
 *
 * @param strokes how many there are in all
 * @example playableText({ tooMany: 2, tooSoon: 0, tooFar: 0, foot: 0, all: 2 }, 40)
 * // "2 of 40 strokes are beyond one drummer: 2 for a third hand."
 */
export const playableText = (counts: ReturnType<typeof unplayable>, strokes: number): string => {
  if (!strokes) return 'No drum is struck.';
  if (!counts.all) return `One drummer can play it: ${count(strokes, 'stroke')}.`;
  const why = (Object.keys(WHY) as StickFault[]).filter((fault) => counts[fault]);
  return `${counts.all} of ${count(strokes, 'stroke')} ${counts.all === 1 ? 'is' : 'are'} beyond one drummer: ${why.map((fault) => `${counts[fault]} ${WHY[fault]}`).join(', ')}.`;
};
