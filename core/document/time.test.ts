import { GRIDS, gridTicks, isStraight } from './grid';
import { barTicks, beatTicks, isCompound, meterText } from './meter';
import { EMPTY_LANE_PATTERN, newBeat, newPattern, patternTicks, soundingLanes, stepsOf } from './defaults';
import { clamp, secondsOf, ticksPerMs } from '../units';

test('grids: straight, triplet, dotted and quintuplet', () => {
  expect((['1/4', '1/8', '1/16', '1/32', '1/64'] as const).map(gridTicks)).toEqual([960, 480, 240, 120, 60]);
  expect(gridTicks('1/8T')).toBeCloseTo(320);
  expect(gridTicks('1/8D')).toBe(720);
  expect(gridTicks('1/16Q')).toBeCloseTo(192);
  expect(GRIDS).toHaveLength(20);
  expect(GRIDS.filter(isStraight)).toHaveLength(5);
});

test('meters: bars and what is counted as a beat', () => {
  expect(barTicks({ beats: 4, unit: 4 })).toBe(3840);
  expect(barTicks({ beats: 7, unit: 8 })).toBe(3360);
  expect(barTicks({ beats: 21, unit: 16 })).toBe(5040);
  expect(beatTicks({ beats: 6, unit: 8 })).toBe(1440);
  expect(beatTicks({ beats: 7, unit: 8 })).toBe(480);
  expect(isCompound({ beats: 3, unit: 8 })).toBe(false);
  expect(meterText({ beats: 12, unit: 8 })).toBe('12/8');
});

test('units', () => {
  expect(ticksPerMs(120)).toBeCloseTo(1.92);
  expect(secondsOf(960, 120)).toBe(0.5);
  expect([clamp(5, 1, 3), clamp(-5, 1, 3), clamp(NaN, 1, 3), clamp(2, 1, 3)]).toEqual([3, 1, 1, 2]);
});

test('a part has its own steps, or as many as begin within the pattern', () => {
  const seven = { ...newPattern('a', 'A'), meter: { beats: 7, unit: 8 as const } };
  expect(patternTicks(seven)).toBe(3360);
  expect(stepsOf(EMPTY_LANE_PATTERN, seven)).toBe(14);
  expect(stepsOf({ ...EMPTY_LANE_PATTERN, grid: '1/8D' }, seven)).toBe(5);
  expect(stepsOf({ ...EMPTY_LANE_PATTERN, steps: 5 }, seven)).toBe(5);
});

test('a solo silences the rest, and a muted lane stays muted in it', () => {
  const beat = newBeat('b', 'B', 1);
  const names = (change: Record<string, object>) =>
    soundingLanes({ ...beat, lanes: beat.lanes.map((lane) => ({ ...lane, ...change[lane.id] })) }).map(
      ({ id }) => id,
    );
  expect(names({})).toHaveLength(beat.lanes.length);
  expect(names({ kick: { solo: true }, snare: { solo: true, mute: true } })).toEqual(['kick']);
});
