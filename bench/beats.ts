/** Beats of a given size, to measure with. */
import { newBeat, newHit, newLane } from '../core/beat/defaults';
import { INSTRUMENT_IDS } from '../core/beat/instruments';
import type { Beat } from '../core/beat/schema';

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
