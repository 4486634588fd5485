/** Beats of a given size, to measure with. */
import { newBeat, newHit, newLane } from '../core/document/defaults';
import { newFeel } from '../core/document/feelDefaults';
import { INSTRUMENT_IDS } from '../core/document/instruments';
import type { Beat } from '../core/document/schema';
import { TEMPLATES } from '../core/feel/templates';
import { sloped } from '../core/document/rolls';

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
    feel: newFeel({ percent: 58, grid: '1/16' }),
    lanes: ids.map((id) => newLane(id, id)),
    patterns: [{ id: 'a', name: 'A', meter: { beats: 4, unit: 4 }, bars, parts }],
  };
};

/** The same with every stage of feel at work on every lane. */
export const felt = (beat: Beat): Beat => ({
  ...beat,
  feel: {
    ...beat.feel,
    quantize: { grid: '1/16', strength: 0.6, window: 1, flams: true, lanes: null },
    base: 'template',
    template: { template: TEMPLATES[0]!, timing: 1, velocity: 0.8 },
    level: 0.95,
    lanes: Object.fromEntries(
      beat.lanes.map(({ id }, at) => [id, { offset: (at % 7) - 3, contrast: 0.9, level: 1.05 }]),
    ),
    humanize: { timing: 5, velocity: 4, drift: 0.5, seed: 3, takes: [3], anew: true },
  },
});

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
