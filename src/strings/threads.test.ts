import { EMPTY_LANE_PATTERN, newBeat, newHit } from '../../core/document/defaults';
import type { Beat, Spark } from '../../core/document/schema';
import { hasThreads, threadsOf } from './threads';

const SPARK: Spark = { to: 'snare', of: 'all', gap: '1/8', chance: 1, factor: 0.5, delay: null, pitch: 0 };

const beatWith = (steps: number[], spark: Partial<Spark> | null): Beat => {
  const beat = newBeat('b', 'Quay', 1);
  const kick = {
    ...EMPTY_LANE_PATTERN,
    hits: steps.map((step) => newHit(step, 100)),
    ...(spark && { sparks: [{ ...SPARK, ...spark }] }),
  };
  return { ...beat, patterns: [{ ...beat.patterns[0]!, parts: { kick } }] };
};
const threads = (beat: Beat) => threadsOf(beat, beat.patterns[0]!, 1);

test('a thread hangs from each stroke that sets something off to what it sets off', () => {
  const beat = beatWith([0, 4], { delay: { grid: '1/16' } });
  expect(hasThreads(beat.patterns[0]!)).toBe(true);
  expect(threads(beat)).toEqual([
    {
      from: { laneId: 'kick', x: 0, velocity: 100, pitch: 0 },
      to: { laneId: 'snare', x: 240, velocity: 50, pitch: 0 },
    },
    {
      from: { laneId: 'kick', x: 960, velocity: 100, pitch: 0 },
      to: { laneId: 'snare', x: 1200, velocity: 50, pitch: 0 },
    },
  ]);
});

test('only where it fires: by the first or the last of a run, or not at all', () => {
  const from = (of: Spark['of']) =>
    threads(beatWith([0, 1, 2, 8], { of, gap: '1/8' })).map((thread) => thread.from.x);
  expect(from('first')).toEqual([0, 1920]);
  expect(from('last')).toEqual([480, 1920]);
  expect(threads(beatWith([0, 4], { chance: 0 }))).toEqual([]);
  expect(hasThreads(beatWith([0], null).patterns[0]!)).toBe(false);
});

test('by a detour the thread hangs where the stroke is heard', () => {
  const beat = beatWith([0], {});
  const detour = { over: 'bar' as const, route: [3, 4, 1, 2], chance: 1, lanes: null };
  const turned = { ...beat, patterns: [{ ...beat.patterns[0]!, detour }] };
  expect(threads(turned).map(({ from, to }) => [from.x, to.x])).toEqual([[1920, 1920]]);
});
