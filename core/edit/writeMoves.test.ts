import fc from 'fast-check';
import { movedBeats } from '../play/moves/movedBeats.mock';
import { lanePatternOf, newBeat, newHit, patternTicks, withLanePattern } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import { sloped } from '../document/rolls';
import { beatSchema, type Beat, type Echoes, type Hit, type Pattern } from '../document/schema';
import { notesIn } from '../play/driver';
import { planLive } from '../play/timelinePlan';
import { hasMoves } from './moves';
import { writtenMoves } from './writeMoves';

/** All that is heard from the start on, to the tick. */
const heard = (beat: Beat, pattern: Pattern, ticks: number): string[] =>
  notesIn(planLive({ ...beat, patterns: [pattern] }, pattern, { includeMuted: true }), 0, ticks)
    .map(({ tick, note, velocity, lane }) => `${lane} ${note} ${Math.round(tick * 100) / 100} ${velocity}`)
    .sort();
const near = (a: string[], b: string[]): boolean =>
  a.length === b.length &&
  [...a.keys()].every((at) => {
    const [x, y] = [a[at]!.split(' ').map(Number), b[at]!.split(' ').map(Number)] as [number[], number[]];
    return x[0] === y[0] && x[1] === y[1] && Math.abs(x[2]! - y[2]!) <= 1 && x[3] === y[3];
  });

/** Nothing of it is drawn anew on each pass, but for which hits sound. */
const steady = (beat: Beat): Beat => ({
  ...beat,
  feel: { ...beat.feel, humanize: { ...beat.feel.humanize, anew: false } },
  patterns: beat.patterns.map((pattern) => ({
    ...pattern,
    ...(pattern.detour && { detour: { ...pattern.detour, chance: 1 } }),
    parts: Object.fromEntries(
      Object.entries(pattern.parts).map(([id, part]) => [
        id,
        {
          ...part,
          direction: part.direction === 'backward' ? 'backward' : 'forward',
          ...(part.sparks && {
            sparks: part.sparks.map((spark) => ({ ...spark, of: 'all' as const, chance: 1 })),
          }),
        },
      ]),
    ),
  })),
});
/** As beats mostly are: hits on a sixteenth grid that follows the pattern, or a loop of some steps of its own. */
const usual = (beat: Beat): Beat => ({
  ...beat,
  patterns: beat.patterns.map((pattern) => ({
    ...pattern,
    meter: { beats: 4, unit: 4 },
    parts: Object.fromEntries(
      Object.entries(pattern.parts).map(([id, { shift: _s, offbeat: _o, ...part }], at) => [
        id,
        {
          ...part,
          grid: '1/16',
          rate: '1',
          steps: at === 1 ? 12 : null,
          hits: part.hits.filter(({ step }) => step < 12),
        },
      ]),
    ),
  })),
});

test('what is said to be the same is the same, pass by pass, of any beat', () => {
  let [same, all] = [0, 0];
  fc.assert(
    fc.property(movedBeats, (beat) => {
      const pattern = beat.patterns[0]!;
      const done = writtenMoves(beat, pattern);
      expect(beatSchema.safeParse({ ...beat, patterns: [done.pattern] }).error).toBeUndefined();
      expect(
        beat.lanes.some(({ id }) => hasMoves({ ...beat, patterns: [done.pattern] }, done.pattern, id)),
      ).toBe(false);
      expect(done.told.every((one) => one.endsWith('.'))).toBe(true);
      all += 1;
      if (!done.same) return expect(done.told.join()).toContain('cannot be the same on every pass');
      same += 1;
      const ticks = 6 * patternTicks(pattern);
      expect(near(heard(beat, done.pattern, ticks), heard(beat, pattern, ticks))).toBe(true);
    }),
    { numRuns: 12 },
  );
  expect(same).toBeLessThanOrEqual(all);
});

/** All hits on every pass: which strokes stand beside which does not change. */
const unfailing = (beat: Beat): Beat => ({
  ...beat,
  patterns: beat.patterns.map((pattern) => ({
    ...pattern,
    parts: Object.fromEntries(
      Object.entries(pattern.parts).map(([id, part]) => [
        id,
        { ...part, hits: part.hits.map(({ passes: _, ...hit }) => ({ ...hit, chance: 1 })) },
      ]),
    ),
  })),
});

test('of beats as they mostly are, with rolls, a loop of its own, any feel and all moves, nearly every one is the same', () => {
  const left: string[] = [];
  fc.assert(
    fc.property(movedBeats.map(steady).map(usual).map(unfailing), (beat) => {
      const pattern = beat.patterns[0]!;
      const done = writtenMoves(beat, pattern);
      if (!done.same) left.push(done.told.join(' '));
      const ticks = 6 * patternTicks(pattern);
      if (done.same) expect(near(heard(beat, done.pattern, ticks), heard(beat, pattern, ticks))).toBe(true);
    }),
    { numRuns: 40, seed: 8 },
  );
  // Grace strokes that would begin before the first pass are held at its start: no hit gives that. It is told.
  expect(left.length).toBeLessThanOrEqual(4);
});

const echoes = (more: Partial<Echoes> = {}): Echoes => ({
  count: 2,
  rate: { grid: '1/8' },
  slope: 0.5,
  interval: 0,
  withoutHit: false,
  ...more,
});
const withKick = (hits: Hit[], echo: Echoes, change: Partial<Beat> = {}): Beat => {
  const beat = { ...newBeat('b', 'Ferry', 7), tempo: 120, ...change };
  const [pattern] = beat.patterns as [Pattern];
  return {
    ...beat,
    patterns: [withLanePattern(pattern, 'kick', { ...lanePatternOf(pattern, 'kick'), hits, echoes: echo })],
  };
};
const kicks = (beat: Beat, pattern: Pattern, passes: number): [number, number][] =>
  notesIn(planLive({ ...beat, patterns: [pattern] }, pattern), 0, 3840 * passes)
    .filter(({ lane }) => lane === 0)
    .map(({ tick, velocity }) => [Math.round(tick), velocity]);

describe('written in by hand', () => {
  const written = (beat: Beat) => writtenMoves(beat, beat.patterns[0]!);

  test('echoes of a hit that sounds on passes 2 and 4 sound on passes 2 and 4', () => {
    const beat = withKick([{ ...newHit(0, 100), passes: { of: 4, on: [1, 3] } }], echoes());
    const { pattern, told, same } = written(beat);
    expect([told, same]).toEqual([[], true]);
    expect(kicks(beat, pattern, 4)).toEqual([
      [3840, 100],
      [4320, 50],
      [4800, 25],
      [11520, 100],
      [12000, 50],
      [12480, 25],
    ]);
    expect(pattern.parts['kick']!.hits.map(({ step, velocity }) => [step, velocity])).toEqual([
      [0, 100],
      [2, 50],
      [4, 25],
    ]);
  });

  test('hit and echoes carry one draw of chance', () => {
    const beat = withKick([{ ...newHit(0, 100), chance: 0.5 }, newHit(8, 90)], echoes({ count: 1 }));
    const { pattern } = written(beat);
    const fallen = new Set<number>();
    for (let pass = 0; pass < 32; pass++) {
      const own = kicks(beat, pattern, 32).filter(([tick]) => Math.floor(tick / 3840) === pass);
      expect(own.some(([tick]) => tick % 3840 === 0)).toBe(own.some(([tick]) => tick % 3840 === 480));
      fallen.add(own.length);
    }
    expect([...fallen].sort()).toEqual([2, 4]);
    expect(kicks(beat, pattern, 32)).toEqual(kicks(beat, beat.patterns[0]!, 32));
  });

  test('a roll has its levels once, an echo that comes round is not there on the first pass', () => {
    const roll = sloped(3, 1);
    const beat = withKick(
      [{ ...newHit(14, 100), length: 1, roll }],
      echoes({ count: 1, rate: { grid: '1/4' } }),
    );
    const { pattern, same } = written(beat);
    expect(same).toBe(true);
    expect(pattern.parts['kick']!.hits.find(({ step }) => step === 14)).toMatchObject({
      velocity: 100,
      roll,
    });
    expect(kicks(beat, pattern, 2)).toEqual([
      [3360, 20],
      [3440, 60],
      [3520, 100],
      [4320, 10],
      [7200, 20],
      [7280, 60],
      [7360, 100],
    ]);
  });

  test('swing stays on the lane and bends what was written as it bent the echoes', () => {
    const feel = newFeel({ percent: 60, grid: '1/16' });
    const beat = withKick([newHit(0, 100)], echoes({ count: 3, rate: { grid: '1/16' }, slope: 1 }), { feel });
    const { pattern, told } = written(beat);
    expect(told).toEqual([]);
    expect(pattern.feel).toBeUndefined();
    expect(kicks(beat, pattern, 1).map(([tick]) => tick)).toEqual([0, 288, 480, 768]);
    expect(pattern.parts['kick']!.hits.map(({ nudge }) => nudge)).toEqual([0, 0, 0, 0]);
  });

  test('humanize that is the same on each pass stays where it was', () => {
    const feel = newFeel();
    feel.humanize = { ...feel.humanize, timing: 6, velocity: 10, seed: 3, anew: false };
    const beat = withKick([newHit(0, 100), newHit(6, 80)], echoes(), { feel });
    const { pattern, same, told } = written(beat);
    expect(same).toBe(true);
    expect(told).toEqual(['Kick: the feel is in the hits now, and the lane straight.']);
    expect(kicks(beat, pattern, 3)).toEqual(kicks(beat, beat.patterns[0]!, 3));
  });

  test('a lane of five steps keeps its five steps', () => {
    const beat = withKick([newHit(0, 100)], echoes({ count: 1, rate: { grid: '1/16' } }));
    const [pattern] = beat.patterns as [Pattern];
    const five = { ...pattern, parts: { kick: { ...pattern.parts['kick']!, steps: 5 } } };
    const done = writtenMoves(beat, five);
    expect([done.same, done.pattern.parts['kick']!.steps]).toEqual([true, 5]);
    expect(kicks(beat, done.pattern, 2).map(([tick]) => tick)).toEqual(
      kicks(beat, five, 2).map(([tick]) => tick),
    );
    expect(
      kicks(beat, done.pattern, 1)
        .slice(0, 4)
        .map(([tick]) => tick),
    ).toEqual([0, 240, 1200, 1440]);
  });

  test('what is new on each pass is named, and so many passes are written into a longer pattern', () => {
    const feel = newFeel();
    feel.humanize = { ...feel.humanize, timing: 6, velocity: 0, seed: 3, anew: true };
    const beat = withKick([newHit(0, 100), newHit(6, 80)], echoes(), { feel });
    expect(written(beat).told).toEqual([
      'Kick cannot be the same on every pass in one pattern: humanize is new on each pass. What the first pass has was written.',
    ]);
    const four = writtenMoves(beat, beat.patterns[0]!, 4);
    expect(four.pattern.bars).toBe(4);
    // What comes early for a fifth pass is no part of the four.
    const inside = (pattern: Pattern) => kicks(beat, pattern, 4).filter(([tick]) => tick < 4 * 3840 - 240);
    expect(inside(four.pattern)).toEqual(inside(beat.patterns[0]!));
  });
});
