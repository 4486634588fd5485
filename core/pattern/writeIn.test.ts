import fc from 'fast-check';
import { beats } from '../arbitraries';
import { newHit } from '../beat/defaults';
import { newFeel } from '../beat/feelDefaults';
import { beatSchema, type Beat } from '../beat/schema';
import { planPattern } from '../play/plan';
import { playLoop } from '../play/play';
import { editBeat } from './edits';

const forward = beats.map((beat): Beat => {
  const [pattern] = beat.patterns;
  const parts = Object.fromEntries(
    Object.entries(pattern!.parts).map(([id, part]) => [
      id,
      {
        ...part,
        grid: '1/16' as const,
        rate: '1' as const,
        steps: null,
        direction: 'forward' as const,
        // Well apart, so that no two hits come to stand less than a flam from one another.
        hits: part.hits
          .filter(
            ({ step, roll }, at, all) =>
              !roll && step % 3 === 0 && all.findIndex((one) => one.step === step) === at,
          )
          .map((hit) => ({ ...hit, nudge: hit.nudge / 4, chance: 1, length: null })),
        shift: 0,
        offbeat: 0,
      },
    ]),
  );
  return { ...beat, tempo: 60 + (beat.tempo % 60), patterns: [{ ...pattern!, parts }] };
});

const heard = (beat: Beat) =>
  playLoop(planPattern(beat, beat.patterns[0]!), 1)
    .map(({ lane, tick, velocity }) => ({ lane, tick, velocity }))
    .sort((a, b) => a.lane - b.lane || a.tick - b.tick);

describe('write in', () => {
  test('what is heard stays, the feel is straight, and the beat is whole', () => {
    fc.assert(
      fc.property(forward, fc.boolean(), (beat, single) => {
        const done = editBeat(beat, { edit: 'writeIn', args: { patternId: 'a', laneId: null, single } });
        expect(beatSchema.safeParse(done).error).toBeUndefined();
        expect({ ...done.feel, humanize: newFeel().humanize }).toEqual(newFeel());
        const total = planPattern(beat, beat.patterns[0]!).length;
        const [before, after] = [heard(beat), heard(done)];
        expect(after).toHaveLength(before.length);
        // A hit at the loop's edge may stand on either side of it now.
        const near = (a: number, b: number) => Math.min(Math.abs(a - b), total - Math.abs(a - b)) < 1.5;
        for (const note of before)
          expect(
            after.some(
              (one) =>
                one.lane === note.lane &&
                near(one.tick, note.tick) &&
                Math.abs(one.velocity - note.velocity) <= 2,
            ),
          ).toBe(true);
      }),
    );
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
    expect(heard(done).map(({ tick }) => tick)).toEqual([expect.closeTo(288), expect.closeTo(768)]);
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
