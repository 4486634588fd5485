import { patternTicks } from '../document/defaults';
import { notesIn } from './driver';
import { planLive } from './timelinePlan';
import fc from 'fast-check';
import { beats } from '../arbitraries';
import { newBeat, newHit } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import { beatSchema, type Beat } from '../document/schema';
import { editBeat } from '../edit/edits';
import { committedFeel } from './commitFeel';

/** What a lane plays from its second pass on, pass by pass: in the first, early notes are held. */
const heard = (beat: Beat, passes = 5) => {
  const plan = planLive(beat, beat.patterns[0]!);
  const length = patternTicks(beat.patterns[0]!);
  return notesIn(plan, length, length * passes).map(({ lane, tick, velocity }) => ({
    lane,
    tick: tick - length,
    velocity,
  }));
};
const byLane = (beat: Beat, id: string) => {
  const index = beat.lanes.findIndex((lane) => lane.id === id);
  return heard(beat).filter(({ lane }) => lane === index);
};
const differs = (before: Beat, after: Beat, id: string): boolean => {
  const [a, b] = [byLane(before, id), byLane(after, id)];
  return (
    a.length !== b.length ||
    a.some(({ tick, velocity }, at) => Math.abs(tick - b[at]!.tick) >= 0.5 || velocity !== b[at]!.velocity)
  );
};

describe('write in', () => {
  test('what is heard stays to the tick and the velocity, for one lane or all, or it is told', () => {
    let same = 0;
    let all = 0;
    fc.assert(
      fc.property(beats, fc.constantFrom(null, 'kick', 'snare'), fc.boolean(), (beat, laneId, single) => {
        const { beat: done, told } = committedFeel(beat, 'a', laneId, single);
        expect(beatSchema.safeParse(done).error).toBeUndefined();
        for (const { id, name } of beat.lanes) {
          const changed = differs(beat, done, id);
          const said = told.some((one) => one.startsWith(`${name} does not sound quite as before`));
          if (laneId !== null && id !== laneId) expect(changed).toBe(false);
          else if (changed) expect(said).toBe(true);
          all += 1;
          same += changed ? 0 : 1;
        }
        expect(told.every((one) => one.endsWith('.'))).toBe(true);
      }),
      { numRuns: 60 },
    );
    // Random beats have chance, drawn orders and polymeters everywhere; still most lanes are kept.
    expect(same / all).toBeGreaterThan(0.5);
  });

  const lane = (part: object, feel: Beat['feel'] = newFeel({ percent: 62, grid: '1/16' })): Beat => {
    const beat = { ...newBeat('b', 'Ferry', 7), tempo: 120, feel };
    const kick = { grid: '1/16' as const, steps: null, rate: '1' as const, direction: 'forward' as const };
    return { ...beat, patterns: [{ ...beat.patterns[0]!, parts: { kick: { ...kick, hits: [], ...part } } }] };
  };
  const kickOf = (beat: Beat) => beat.patterns[0]!.parts['kick']!;

  test('a lane with its own length under swing becomes as long as the swing needs, and sounds the same', () => {
    const beat = lane({ steps: 5, hits: [newHit(0), { ...newHit(2), passes: { of: 2, on: [1] } }] });
    const { beat: done, told } = committedFeel(beat, 'a', null, false);
    expect(differs(beat, done, 'kick')).toBe(false);
    expect(told).toEqual([
      'Kick: its loop is 10 steps long now, since the feel meets it differently each time.',
    ]);
    expect(kickOf(done).steps).toBe(10);
    const back = lane({ steps: 5, direction: 'thereAndBack', hits: [newHit(1), newHit(3, 60)] });
    expect(differs(back, committedFeel(back, 'a', 'kick', false).beat, 'kick')).toBe(false);
  });

  test('what cannot be kept is told: a loop that meets the swing only after more than 64 steps', () => {
    const beat = lane({ grid: '1/32', steps: 63, hits: [newHit(1), newHit(7)] });
    const { told } = committedFeel(beat, 'a', null, false);
    expect(told).toEqual([expect.stringContaining('more steps than a lane can hold')]);
  });

  test('a roll over several steps whose strokes the swing bends becomes single hits in their places', () => {
    const roll = { curve: 0, levels: [0.4, 0.6, 0.8, 1] };
    const beat = lane({ hits: [{ ...newHit(0, 100), length: 4, roll }, newHit(8)] });
    const { beat: done, told } = committedFeel(beat, 'a', null, false);
    expect(differs(beat, done, 'kick')).toBe(false);
    expect(told).toEqual(['Kick: 1 roll became single hits, since the feel bends its strokes.']);
    const straight = lane({ hits: [{ ...newHit(0, 100), length: 4, roll }] }, newFeel());
    expect(kickOf(committedFeel(straight, 'a', null, false).beat).hits[0]!.roll).toBeDefined();
  });

  test('one lane of a kit at a third of its level keeps its velocities, and so do the others', () => {
    const feel = {
      ...newFeel({ percent: 60, grid: '1/16' }),
      level: 1 / 3,
      lanes: { snare: { level: 0.5 } },
    };
    const beat = lane({ hits: [newHit(0, 100), newHit(5, 64)] }, feel);
    const snare = { ...kickOf(beat), hits: [newHit(4, 120)] };
    const [pattern] = beat.patterns;
    const both = { ...beat, patterns: [{ ...pattern!, parts: { ...pattern!.parts, snare } }] };
    const { beat: done, told } = committedFeel(both, 'a', 'kick', false);
    expect([differs(both, done, 'kick'), differs(both, done, 'snare'), told]).toEqual([false, false, []]);
    expect(byLane(done, 'kick')[0]!.velocity).toBe(33);
  });

  test('a hit that is silent in the first round gets its velocity noise too', () => {
    const feel = newFeel();
    feel.humanize = { ...feel.humanize, timing: 4, velocity: 12, seed: 3 };
    const silent = { ...newHit(6), passes: { of: 2, on: [1] } };
    const beat = lane({ hits: [newHit(0), silent, newHit(12)] }, feel);
    const { beat: done } = committedFeel(beat, 'a', null, false);
    expect(differs(beat, done, 'kick')).toBe(false);
    expect(kickOf(done).hits.map(({ velocity }) => velocity)).not.toContain(96);
  });

  const swung = (): Beat => {
    const base = fc.sample(beats, { numRuns: 1, seed: 4 })[0]!;
    const kick = { grid: '1/16' as const, steps: null, rate: '1' as const, direction: 'forward' as const };
    const parts = { kick: { ...kick, hits: [newHit(1)] }, snare: { ...kick, hits: [newHit(3)] } };
    const pattern = { ...base.patterns[0]!, meter: { beats: 4, unit: 4 as const }, parts };
    return { ...base, tempo: 120, feel: newFeel({ percent: 60, grid: '1/16' }), patterns: [pattern] };
  };

  test('one lane alone: the others keep their feel', () => {
    const done = editBeat(swung(), {
      edit: 'writeIn',
      args: { patternId: 'a', laneId: 'kick', single: false },
    });
    expect(done.patterns[0]!.parts['kick']!.hits[0]!.nudge).toBeCloseTo(0.2, 9);
    expect(done.patterns[0]!.parts['snare']!.hits[0]!.nudge).toBe(0);
    expect(heard(done, 2).map(({ tick }) => tick)).toEqual([expect.closeTo(288), expect.closeTo(768)]);
  });

  test('with other patterns that follow the beat, only this one becomes straight', () => {
    const beat = swung();
    const two = { ...beat, patterns: [...beat.patterns, { ...beat.patterns[0]!, id: 'b', name: 'B' }] };
    const done = editBeat(two, { edit: 'writeIn', args: { patternId: 'a', laneId: null, single: false } });
    expect(done.feel.swing.percent).toBe(60);
    expect(done.patterns[0]!.feel!.swing.percent).toBe(50);
    expect(done.patterns[1]!.feel).toBeUndefined();
  });

  test('a flam becomes single hits where it is asked for', () => {
    const beat = swung();
    const [pattern] = beat.patterns;
    const flam = { ...newHit(4), grace: [{ before: 25, level: 0.5 }] };
    const parts = { kick: { ...pattern!.parts['kick']!, hits: [flam] } };
    const args = { patternId: 'a', laneId: null } as const;
    const with1 = (single: boolean) =>
      editBeat(
        { ...beat, patterns: [{ ...pattern!, parts }] },
        { edit: 'writeIn', args: { ...args, single } },
      ).patterns[0]!.parts['kick']!.hits;
    expect(with1(false)).toHaveLength(1);
    expect(with1(true).map(({ step, nudge, velocity }) => [step, Math.round(nudge * 100), velocity])).toEqual(
      [
        [4, -20, 48],
        [4, 0, 96],
      ],
    );
  });
});

describe('feels that are kept', () => {
  test('a pattern gets a feel of its own and gives it up again; a kept one is used, blended and dropped', () => {
    const beat = fc.sample(beats, { numRuns: 1, seed: 9 })[0]!;
    const own = editBeat(beat, { edit: 'ownFeel', args: { patternId: 'a', own: true } });
    expect(own.patterns[0]!.feel).toEqual(beat.feel);
    const kept = editBeat(own, { edit: 'keepFeel', args: { id: 'k', name: ' Late ', patternId: 'a' } });
    expect(kept.feels).toEqual([{ id: 'k', name: 'Late', feel: beat.feel }]);
    const used = editBeat(kept, { edit: 'useFeel', args: { patternId: 'a', feel: newFeel() } });
    expect([used.patterns[0]!.feel, used.feel]).toEqual([newFeel(), beat.feel]);
    const blend = { with: newFeel(), name: 'Late', amount: 0.5 };
    const blended = editBeat(used, { edit: 'setBlend', args: { patternId: 'a', blend } });
    expect(blended.patterns[0]!.feel!.blend).toEqual(blend);
    const done = editBeat(blended, { edit: 'ownFeel', args: { patternId: 'a', own: false } });
    expect('feel' in done.patterns[0]!).toBe(false);
    expect(editBeat(done, { edit: 'dropFeel', args: { id: 'k' } }).feels).toEqual([]);
  });
});
