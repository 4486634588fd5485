import { withLanePattern, patternOf } from '../document/defaults';
import fc from 'fast-check';
import { beats } from '../arbitraries';
import { newBeat, newHit, lanePatternOf } from '../document/defaults';
import { heldSwing, heldTempo, setLane, setSwing, setTempo } from './beatEdits';
import { digitVelocity, hitsAt, isOn, setStep, setVelocity } from './hits';

const beat = newBeat('b', 'B', 1);
const empty = beat.patterns[0]!;
const steps = fc.nat({ max: 15 });

describe('steps', () => {
  test('on puts one hit, off takes all, and twice the same changes nothing', () => {
    fc.assert(
      fc.property(beats, steps, (one, step) => {
        const pattern = one.patterns[0]!;
        const on = setStep(pattern, 'kick', step, true);
        expect(isOn(lanePatternOf(on, 'kick'), step)).toBe(true);
        expect(setStep(on, 'kick', step, true)).toBe(on);
        const off = setStep(on, 'kick', step, false);
        expect(hitsAt(lanePatternOf(off, 'kick'), step)).toEqual([]);
        expect(setStep(off, 'kick', step, false)).toBe(off);
        expect(lanePatternOf(off, 'snare')).toBe(lanePatternOf(pattern, 'snare'));
      }),
    );
  });

  test('hits stay in order of time whatever the order in which they are put', () => {
    fc.assert(
      fc.property(fc.array(steps), (order) => {
        const pattern = order.reduce((now, step) => setStep(now, 'kick', step, true), empty);
        const { hits } = lanePatternOf(pattern, 'kick');
        expect(hits.map(({ step }) => step)).toEqual([...new Set(order)].sort((a, b) => a - b));
      }),
    );
  });

  test('velocity is set for one hit of a step, or for all together, held to 1..127', () => {
    const two = withLanePattern(empty, 'kick', {
      ...lanePatternOf(empty, 'kick'),
      hits: [newHit(0, 40), { ...newHit(0, 90), nudge: 0.3 }],
    });
    const velocities = (pattern: typeof empty) =>
      hitsAt(lanePatternOf(pattern, 'kick'), 0).map(({ velocity }) => velocity);
    expect(velocities(setVelocity(two, 'kick', 0, 60, 0))).toEqual([60, 90]);
    expect(velocities(setVelocity(two, 'kick', 0, 100))).toEqual([50, 100]);
    expect(velocities(setVelocity(two, 'kick', 0, 900))).toEqual([77, 127]);
    expect(setVelocity(two, 'kick', 0, 90)).toBe(two);
    expect(setVelocity(two, 'kick', 5, 90)).toBe(two);
  });

  test('the digits span the velocities', () => {
    expect([1, 5, 9].map(digitVelocity)).toEqual([14, 71, 127]);
  });
});

describe('the beat', () => {
  test('tempo and swing are held to their range, and it is said', () => {
    expect(heldTempo(500)).toEqual({ value: 300, held: true });
    expect(heldTempo(92.456)).toEqual({ value: 92.46, held: false });
    expect(heldSwing(49)).toEqual({ value: 49, held: false });
    expect(heldSwing(39)).toEqual({ value: 40, held: true });
    expect(setTempo(beat, 5).tempo).toBe(20);
    expect(setSwing(beat, null, { percent: 80 }).feel.swing).toEqual({ percent: 75, grid: '1/16' });
    expect(setSwing(beat, null, { grid: '1/8' }).feel.swing).toEqual({ percent: 50, grid: '1/8' });
  });

  test('a change of one lane leaves the others the same', () => {
    const changed = setLane(beat, 'snare', { mute: true });
    expect(changed.lanes.find(({ id }) => id === 'snare')!.mute).toBe(true);
    expect(changed.lanes.filter((lane, at) => lane !== beat.lanes[at])).toHaveLength(1);
  });

  test('an unknown pattern is the first', () => {
    expect(patternOf(beat, 'gone')).toBe(beat.patterns[0]);
  });
});
