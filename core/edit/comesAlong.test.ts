import fc from 'fast-check';
import { lanePatternOf, newBeat } from '../document/defaults';
import type { Beat } from '../document/schema';
import { comesAlong } from './comesAlong';
import { editBeat, editPatterns } from './edits';

const NOTHING = { hidden: 0, alike: [], keys: [] };
const hit = (step: number) => ({ step, nudge: 0, velocity: 90, length: null, chance: 1 });

/** A beat of two patterns whose kick loops over eight steps, with hits on 1, 4 and 7. */
const beat = (): Beat => {
  const one = newBeat('b', 'Ferry', 1);
  const [first] = one.patterns;
  const kick = { ...lanePatternOf(first!, 'kick'), steps: 8, hits: [hit(0), hit(3), hit(6)] };
  const pattern = { ...first!, parts: { kick } };
  return { ...one, patterns: [pattern, { ...pattern, id: 'b', name: 'B' }] };
};

test('hits that half time takes beyond the end of their loop are told; those that come back are not', () => {
  const before = beat();
  const half = editPatterns(before, ['a'], { edit: 'stretch', args: { laneIds: ['kick'], factor: 2 } });
  expect(comesAlong(before, half)).toEqual({ ...NOTHING, hidden: 1 });
  expect(comesAlong(half, before)).toEqual(NOTHING);
  const both = editPatterns(before, ['a', 'b'], { edit: 'stretch', args: { laneIds: ['kick'], factor: 2 } });
  expect(comesAlong(before, both).hidden).toBe(2);
});

test('a lane that falls on the note of another is told, by any way; those that were alike before are not', () => {
  const before = beat();
  const same = {
    ...before,
    lanes: before.lanes.map((lane) => (lane.id === 'snare' ? { ...lane, note: 36 } : lane)),
  };
  expect(comesAlong(before, same).alike.map((pair) => pair.map(({ id }) => id))).toEqual([['kick', 'snare']]);
  const renamed = { ...same, lanes: same.lanes.map((lane) => ({ ...lane, name: `${lane.name} two` })) };
  expect(comesAlong(same, renamed)).toEqual(NOTHING);
  const apart = {
    ...same,
    lanes: same.lanes.map((lane) => (lane.id === 'snare' ? { ...lane, channel: 3 } : lane)),
  };
  expect(comesAlong(same, apart)).toEqual(NOTHING);
  const added = editBeat(before, { edit: 'addLane', args: { id: 'x', instrument: 'kick' } });
  expect(comesAlong(before, added).alike).toHaveLength(1);
});

test('a key that one pattern takes from another is told', () => {
  const key = { code: 'KeyQ', at: 'beat' as const, held: false };
  const first = editBeat(beat(), { edit: 'setKey', args: { id: 'a', key } });
  expect(comesAlong(beat(), first)).toEqual(NOTHING);
  const second = editBeat(first, { edit: 'setKey', args: { id: 'b', key } });
  expect(comesAlong(first, second).keys).toEqual([{ code: 'KeyQ', lost: first.patterns[0]!.name, has: 'B' }]);
  const free = editBeat(second, { edit: 'setKey', args: { id: 'b', key: null } });
  expect(comesAlong(second, free)).toEqual(NOTHING);
});

test('a beat beside itself tells nothing', () => {
  fc.assert(
    fc.property(fc.nat(3), (times) => {
      const one = editPatterns(beat(), ['a'], { edit: 'rotate', args: { laneIds: ['kick'], by: times } });
      expect(comesAlong(one, one)).toEqual(NOTHING);
      expect(comesAlong(beat(), one)).toEqual(NOTHING);
    }),
  );
});
