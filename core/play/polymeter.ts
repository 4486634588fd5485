import { barTicks } from '../document/meter';
import type { Beat, Pattern } from '../document/schema';
import { planLane } from './plan';

/** Steps and rates divide by 3, 4 and 5: in these parts of a tick every loop is a whole number. */
const FINE = 60;
/** Beyond so many bars nobody waits for it. */
const FAR = 10000;

const divisor = (a: number, b: number): number => (b ? divisor(b, a % b) : a);

/**
 * After how many bars all lanes are at their beginning together again, with the pattern. A lane that is still empty counts
 * too: its length is said when it is set, before its hits are there.
 *
 * @returns bars, 1 or more; null where that is farther than 10,000 bars
 * @example polymeterBars(beat, pattern) // 1
 */
export const polymeterBars = (beat: Beat, pattern: Pattern): number | null => {
  const bar = Math.round(barTicks(pattern.meter) * FINE);
  let all = bar * pattern.bars;
  for (const lane of beat.lanes) {
    if (!pattern.parts[lane.id]) continue;
    const loop = Math.round(planLane(beat, pattern, lane).cycleTicks * FINE);
    all *= loop / divisor(all, loop);
    if (all > FAR * bar) return null;
  }
  return all / bar;
};

/** The same in words. @example polymeterText(3, 1) // "All lanes meet again after 3 bars." */
export const polymeterText = (bars: number | null, own: number): string => {
  if (bars === null) return 'The lanes meet again only after more than 10,000 bars.';
  if (bars === own) return 'All lanes begin together each time the pattern does.';
  return `All lanes meet again after ${bars} bars.`;
};
