/** Beats of a given size, to measure with. */
import { newBeat, newHit, newLane } from '../core/beat/defaults';
import { INSTRUMENT_IDS } from '../core/beat/instruments';
import type { Beat } from '../core/beat/schema';
import { sloped } from '../core/pattern/strokes';

/** Lanes with a hit on a third of their steps, swung and nudged, in 4/4. */
export const grown = (lanes: number, bars: number): Beat => {
  const beat = newBeat(`grown-${lanes}-${bars}`, `Grown ${lanes} by ${bars * 16}`, 7);
  const ids = INSTRUMENT_IDS.filter((_, at) => at % 2 === 1).slice(0, lanes);
  const parts = Object.fromEntries(
    ids.map((id, lane) => [
      id,
      {
        grid: '1/16' as const,
        steps: null,
        rate: '1' as const,
        direction: 'forward' as const,
        hits: Array.from({ length: bars * 16 }, (_, step) => step)
          .filter((step) => (step * 7 + lane * 5) % 3 === 0)
          .map((step) => ({ ...newHit(step, 40 + ((step * 13 + lane) % 80)), nudge: ((step % 5) - 2) / 50 })),
      },
    ]),
  );
  return {
    ...beat,
    tempo: 120,
    feel: { swing: { percent: 58, grid: '1/16' } },
    lanes: ids.map((id) => newLane(id, id)),
    patterns: [{ id: 'a', name: 'A', meter: { beats: 4, unit: 4 }, bars, parts }],
  };
};

const LENGTHS = [null, 12, 20, null, 7, 16, 24, null];

/** Sixteen lanes of 64 steps with rolls, grace strokes, chance and lengths of their own. */
export const rich = (patterns = 1): Beat => {
  const beat = grown(16, 4);
  const [pattern] = beat.patterns;
  const parts = Object.fromEntries(
    Object.entries(pattern!.parts).map(([id, part], lane) => [
      id,
      {
        ...part,
        steps: LENGTHS[lane % LENGTHS.length]!,
        direction: lane % 5 === 4 ? ('backward' as const) : part.direction,
        hits: part.hits.map((hit, at) => ({
          ...hit,
          chance: at % 6 === 5 ? 0.5 : 1,
          ...(at % 4 === 1 && { roll: sloped(4, 0.6), length: 2 }),
          ...(at % 7 === 3 && { grace: [{ before: 25, level: 0.5 }] }),
        })),
      },
    ]),
  );
  return {
    ...beat,
    id: `rich-${patterns}`,
    name: `Rich ${patterns}`,
    patterns: Array.from({ length: patterns }, (_, at) => ({
      ...pattern!,
      id: `p${at}`,
      name: `P${at}`,
      parts,
    })),
  };
};
