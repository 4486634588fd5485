import { allNotes } from '../play/driver';
import { planPasses } from '../play/timelinePlan';
import { feelOf } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import type { Feel } from '../document/feelSchema';
import type { Beat, Pattern } from '../document/schema';
import { clamp } from '../units';

const withFeel = (beat: Beat, pattern: Pattern, feel: Feel): Beat => ({
  ...beat,
  patterns: beat.patterns.map((one) => (one.id === pattern.id ? { ...one, feel } : one)),
});

/** The mean velocity of what a pattern plays in one pass; 0 where nothing sounds. */
const meanHeard = (beat: Beat, patternId: string): number => {
  const pattern = beat.patterns.find(({ id }) => id === patternId)!;
  const notes = allNotes(planPasses(beat, pattern, 1), 'wrap');
  return notes.length ? notes.reduce((sum, { velocity }) => sum + velocity, 0) / notes.length : 0;
};

/**
 * A beat in which a pattern has another feel, made as strong on the whole as it is with its own, so that the louder one
 * is not taken for the better one.
 *
 * @param other null leaves the feel out
 * @example matched(beat, pattern, null).patterns[0]!.feel!.base // "swing"
 */
export const matched = (beat: Beat, pattern: Pattern, other: Feel | null): Beat => {
  const feel = other ?? newFeel();
  const plain = withFeel(beat, pattern, feel);
  const [now, then] = [meanHeard(beat, pattern.id), meanHeard(plain, pattern.id)];
  if (!now || !then || Math.abs(now - then) < 0.25) return plain;
  const off = feel.off.filter((stage) => stage !== 'dynamics');
  // A level set while its stage was passed by did not count; nor do the lanes' own.
  const passed = feel.off.includes('dynamics');
  const level = clamp((passed ? 1 : feel.level) * (now / then), 0, 2);
  const lanes = passed
    ? Object.fromEntries(
        Object.entries(feel.lanes).map(([id, { contrast: _c, level: _l, ...lane }]) => [id, lane]),
      )
    : feel.lanes;
  return withFeel(beat, pattern, { ...feel, off, level, lanes });
};

/** What is heard: nothing of the feel at all, the other one, or in a blind test the feel itself, made in the same way. */
export type Compared = 'bare' | 'b' | 'self';

/**
 * The beat as it is to be heard and seen while one compares.
 *
 * @example compared(beat, pattern, null, null) === beat // true
 */
export const compared = (beat: Beat, pattern: Pattern, with_: Compared | null, b: Feel | null): Beat => {
  if (with_ === null) return beat;
  if (with_ === 'bare') return matched(beat, pattern, null);
  return matched(beat, pattern, with_ === 'b' && b ? b : feelOf(beat, pattern));
};

const choose = (n: number, k: number): number => {
  let all = 1;
  for (let i = 0; i < k; i++) all = (all * (n - i)) / (i + 1);
  return all;
};

/**
 * How likely it is to be right at least so often by guessing, each time one of two.
 *
 * @example byChance(5, 5) // 0.03125
 */
export const byChance = (right: number, of: number): number => {
  let sum = 0;
  for (let k = right; k <= of; k++) sum += choose(of, k) / 2 ** of;
  return sum;
};
