import fc from 'fast-check';
import { newBeat, newHit, patternTicks, EMPTY_LANE_PATTERN } from '../../document/defaults';
import { newFeel } from '../../document/feelDefaults';
import {
  beatSchema,
  type Beat,
  type Detour,
  type Echoes,
  type LanePattern,
  type Pattern,
  type Spark,
  type Stagger,
} from '../../document/schema';
import { editPatterns } from '../../edit/edits';
import { hasMoves } from '../../edit/moves';
import { allNotes, notesIn } from '../driver';
import type { Note } from '../notes';
import { planLive, planPasses } from '../timelinePlan';
import { isAsWritten, KNOWN_ROUTES, knownRoute, randomRoute } from './detours';
import { anyEchoes } from './movedBeats.mock';

const LANES = ['kick', 'snare', 'clap'];
const plain: Beat = { ...newBeat('b', 'Ferry', 7), tempo: 120 };
const base: Pattern = { ...plain.patterns[0]!, bars: 1 };

const part = (steps: number[], more: Partial<LanePattern> = {}): LanePattern => ({
  ...EMPTY_LANE_PATTERN,
  hits: steps.map((step) => newHit(step, 100)),
  ...more,
});
const withParts = (parts: Record<string, LanePattern>, more: Partial<Pattern> = {}, beat = plain): Beat => ({
  ...beat,
  patterns: [{ ...base, ...more, parts }],
});
const heard = (beat: Beat, to = patternTicks(beat.patterns[0]!)): Note[] =>
  notesIn(planLive(beat, beat.patterns[0]!), 0, to);
const short = (notes: Note[]) =>
  notes.map(({ tick, velocity }) => [Math.round(tick * 1000) / 1000, velocity]);

const echoes = (more: Partial<Echoes> = {}): Echoes => ({
  count: 3,
  rate: { grid: '1/8' },
  slope: 1,
  interval: 0,
  withoutHit: false,
  ...more,
});

describe('echoes', () => {
  const one = (more: Partial<Echoes>, feel = plain.feel) =>
    heard(withParts({ kick: part([0], { echoes: echoes(more) }) }, {}, { ...plain, feel }));

  test('three eighths, each softer; without the hit', () => {
    expect(short(one({ slope: 0.8 }))).toEqual([
      [0, 100],
      [480, 80],
      [960, 64],
      [1440, 51],
    ]);
    expect(short(one({ slope: 0.8, withoutHit: true }))).toEqual([
      [480, 80],
      [960, 64],
      [1440, 51],
    ]);
  });

  test('in ms, each a fifth higher', () => {
    const notes = one({ count: 2, rate: { ms: 125 }, interval: 7 });
    expect(notes.map(({ tick, note, pitch }) => [tick, note, pitch])).toEqual([
      [0, 36, 0],
      [240, 43, 7],
      [480, 50, 14],
    ]);
  });

  test('in notes they swing, in ms they keep their distance', () => {
    const feel = newFeel({ percent: 60, grid: '1/16' });
    expect(short(one({ rate: { grid: '1/16' } }, feel)).map(([tick]) => tick)).toEqual([0, 288, 480, 768]);
    expect(short(one({ count: 2, rate: { ms: 125 } }, feel)).map(([tick]) => tick)).toEqual([0, 240, 480]);
  });

  test('they cross the end: live they go on into the next pass, in a loop they come in at the start', () => {
    const beat = withParts({ kick: part([12], { echoes: echoes() }) });
    expect(heard(beat, 7680).map(({ tick }) => tick)).toEqual([2880, 3360, 3840, 4320, 6720, 7200]);
    const loop = allNotes(planPasses(beat, beat.patterns[0]!, 1), 'wrap');
    expect(loop.map(({ tick }) => tick)).toEqual([0, 480, 2880, 3360]);
  });

  test('one that comes round the loop onto a stroke gives way to the louder, so does a spark', () => {
    const hits = [{ ...newHit(0, 115) }, { ...newHit(12, 60) }];
    const kick = {
      ...part([], { echoes: echoes({ count: 1, rate: { grid: '1/4' }, slope: 0.7 }) }),
      hits,
      sparks: [
        {
          to: 'clap',
          of: 'all' as const,
          gap: '1/8' as const,
          chance: 1,
          factor: 0.5,
          delay: null,
          pitch: 0,
        },
      ],
    };
    const beat = withParts({ kick, clap: part([4]) });
    const loop = allNotes(planPasses(beat, beat.patterns[0]!, 1), 'wrap');
    // 60 at 2880 comes again at 3840, which is 0: 42 there, softer than the 115.
    expect(loop.map(({ tick, note, velocity }) => [tick, note, velocity])).toEqual([
      [0, 36, 115],
      [0, 39, 58],
      [960, 36, 81],
      [960, 39, 100],
      [2880, 36, 60],
      [2880, 39, 30],
    ]);
    // The second pass of a loop that is heard is the same.
    const second = notesIn(planLive(beat, beat.patterns[0]!), 3840, 7680);
    expect(second.map(({ tick, note, velocity }) => [tick - 3840, note, velocity])).toEqual(
      loop.map(({ tick, note, velocity }) => [tick, note, velocity]),
    );
    const louder = withParts({
      kick: { ...kick, hits: [newHit(0, 40), newHit(12, 120)], sparks: [] as never },
    });
    const { sparks: _, ...bare } = louder.patterns[0]!.parts['kick']!;
    const only = withParts({ kick: bare });
    expect(allNotes(planPasses(only, only.patterns[0]!, 1), 'wrap')[0]).toMatchObject({
      tick: 0,
      velocity: 84,
    });
  });

  test('a repeat that comes to stand on another stroke gives way to the louder; at another pitch both sound', () => {
    const near = withParts({ kick: part([0, 2], { echoes: echoes({ count: 1, slope: 0.5 }) }) });
    expect(short(heard(near))).toEqual([
      [0, 100],
      [480, 100],
      [960, 50],
    ]);
    const tuned = withParts({
      kick: part([0, 2], { echoes: echoes({ count: 1, slope: 0.5, interval: 5 }) }),
    });
    expect(
      heard(tuned)
        .map(({ tick, note }) => `${tick} ${note}`)
        .sort(),
    ).toEqual(['0 36', '480 36', '480 41', '960 41']);
  });
});

describe('detours', () => {
  const hits = [newHit(0, 100), { ...newHit(4, 100), nudge: 50 / 240 }];
  const by = (route: number[], more: Partial<Detour> = {}) =>
    heard(
      withParts(
        { kick: { ...EMPTY_LANE_PATTERN, hits } },
        { detour: { over: 'bar', route, chance: 1, lanes: null, ...more } },
      ),
    ).map(({ tick }) => Math.round(tick));

  test.each([
    ['reversed', [2450, 3360]],
    ['odds then evens', [0, 530]],
    ['each twice', [0, 480, 1970, 2450]],
    ['as written', [0, 1010]],
  ] as const)('%s', (name, ticks) => {
    expect(by(knownRoute(name, 8))).toEqual(ticks);
  });

  test('silence, other lanes only, and never by chance 0', () => {
    expect(by([0, 2, 0, 4, 5, 6, 7, 8])).toEqual([]);
    expect(by(knownRoute('reversed', 8), { lanes: ['snare'] })).toEqual([0, 1010]);
    expect(by(knownRoute('reversed', 8), { chance: 0 })).toEqual([0, 1010]);
  });

  test('known routes lead to slots that are there; twice reversed is as written', () => {
    for (const slots of [4, 8, 16, 32]) {
      for (const name of KNOWN_ROUTES) {
        const route = knownRoute(name, slots);
        expect(route).toHaveLength(slots);
        expect(route.every((from) => from >= 0 && from <= slots)).toBe(true);
      }
      const back = knownRoute('reversed', slots);
      expect(isAsWritten(back.map((slot) => back[slot - 1]!))).toBe(true);
      expect(randomRoute(slots, 3).every((from) => from >= 1 && from <= slots)).toBe(true);
    }
  });

  test('an early hit goes with its own slot, a flam and a roll with all their strokes', () => {
    const beat = withParts(
      {
        kick: {
          ...EMPTY_LANE_PATTERN,
          hits: [
            { ...newHit(8, 100), nudge: -0.1, grace: [{ before: 20, level: 0.5 }] },
            { ...newHit(12, 90), length: 1, roll: { curve: 0, levels: [1, 1] } },
          ],
        },
      },
      { detour: { over: 'bar', route: knownRoute('halves swapped', 4), chance: 1, lanes: null } },
    );
    expect(heard(beat, 3700).map(({ tick, kind }) => [Math.round(tick * 10) / 10, kind])).toEqual([
      [0, 'grace'],
      [0, 'main'],
      [960, 'main'],
      [1080, 'roll'],
    ]);
  });
});

describe('sparks', () => {
  const spark = (more: Partial<Spark> = {}): Spark => ({
    to: 'clap',
    of: 'all',
    gap: '1/8',
    chance: 1,
    factor: 0.5,
    delay: null,
    pitch: 0,
    ...more,
  });
  const claps = (more: Partial<Spark>, steps: number[]) =>
    heard(withParts({ kick: part(steps, { sparks: [spark(more)] }) }))
      .filter(({ note }) => note !== 36)
      .map(({ tick, velocity, note }) => [tick, velocity, note]);

  test('every stroke, the first or the last of a run', () => {
    const run = [0, 1, 2, 8, 9];
    expect(claps({}, run).map(([tick]) => tick)).toEqual([0, 240, 480, 1920, 2160]);
    expect(claps({ of: 'first' }, run).map(([tick]) => tick)).toEqual([0, 1920]);
    expect(claps({ of: 'last' }, run).map(([tick]) => tick)).toEqual([480, 2160]);
  });

  test('delayed in ms or in notes, softer, at another pitch', () => {
    expect(claps({ delay: { ms: 50 } }, [0])).toEqual([[96, 50, 39]]);
    expect(claps({ delay: { grid: '1/8' }, factor: 1.2, pitch: 2 }, [0])).toEqual([[480, 120, 41]]);
  });

  test('they take the feel of the lane that they sound on, and set off no others', () => {
    const beat = withParts(
      {
        kick: part([0], { sparks: [spark()] }),
        clap: part([], { sparks: [spark({ to: 'snare' })] }),
      },
      {},
      { ...plain, feel: { ...plain.feel, lanes: { clap: { offset: 10 } } } },
    );
    expect(heard(beat).map(({ tick, note }) => [Math.round(tick * 10) / 10, note])).toEqual([
      [0, 36],
      [19.2, 39],
    ]);
  });

  test('about as many as chance says, and the same ones each time', () => {
    const all = Array.from({ length: 16 }, (_, step) => step);
    const beat = withParts({ kick: part(all, { sparks: [spark({ chance: 0.3 })] }) });
    const count = notesIn(planLive(beat, beat.patterns[0]!), 0, 3840 * 100).filter(
      ({ note }) => note === 39,
    ).length;
    expect(count).toBeGreaterThan(1600 * 0.25);
    expect(count).toBeLessThan(1600 * 0.35);
    expect(heard(beat)).toEqual(heard(beat));
  });
});

describe('stagger', () => {
  const feel = (stagger: Partial<Stagger>) => ({
    ...plain,
    feel: {
      ...plain.feel,
      stagger: {
        lanes: null,
        by: { count: 3, each: 100 },
        unit: 'ms',
        random: 0,
        randomFirst: false,
        ...stagger,
      } as Stagger,
    },
  });
  const ticks = (
    stagger: Partial<Stagger>,
    parts: Record<string, LanePattern> = { kick: part([0, 2, 4, 6]) },
  ) => heard(withParts(parts, {}, feel(stagger))).map(({ tick }) => Math.round(tick * 10) / 10);

  test('by a count, and by a list', () => {
    expect(ticks({})).toEqual([0, 672, 1344, 1440]);
    expect(ticks({ by: { list: [0, 20, 40] } })).toEqual([0, 518.4, 1036.8, 1440]);
    expect(ticks({ by: { count: 2, each: 50 }, unit: 'percent' })).toEqual([0, 600, 960, 1560]);
  });

  test('strokes at one time become a strum, from the lowest note to the highest', () => {
    const chord = ['kick', 'snare', 'clap', 'hat.closed'];
    const strummed = ticks(
      { by: { count: 4, each: 20 } },
      Object.fromEntries(chord.map((id) => [id, part([0])])),
    );
    expect(strummed).toEqual([0, 38.4, 76.8, 115.2]);
    const tuned = {
      ...EMPTY_LANE_PATTERN,
      hits: [7, 0, 12].map((pitch) => ({ ...newHit(0, 90), ...(pitch && { pitch }) })),
    };
    expect(ticks({ by: { count: 3, each: 20 } }, { kick: tuned })).toEqual([0, 38.4, 76.8]);
  });

  test('counted from the start of each pass, only on its lanes, and not while it is bypassed', () => {
    const beat = withParts(
      { kick: part([0, 2]), snare: part([0]) },
      {},
      feel({ lanes: ['kick'], by: { count: 8, each: 50 } }),
    );
    const kicks = (one: Beat) =>
      notesIn(planLive(one, one.patterns[0]!), 0, 7680)
        .filter(({ note }) => note === 36)
        .map(({ tick }) => tick);
    expect(kicks(beat)).toEqual([0, 576, 3840, 4416]);
    expect(kicks({ ...beat, feel: { ...beat.feel, off: ['stagger'] } })).toEqual([0, 480, 3840, 4320]);
  });

  test('random first changes the order of what comes at one time', () => {
    const chord = Object.fromEntries(['kick', 'snare', 'clap'].map((id) => [id, part([0, 4, 8, 12])]));
    const orders = new Set(
      [0, 960, 1920, 2880].map((from) =>
        notesIn(
          planLive(
            withParts(chord, {}, feel({ random: 20, randomFirst: true, by: { count: 3, each: 40 } })),
            { ...base, parts: chord },
          ),
          from,
          from + 900,
        )
          .map(({ note }) => note)
          .join(),
      ),
    );
    expect(orders.size).toBeGreaterThan(1);
  });
});

test('written in, a pattern sounds as it did', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.nat(15), { minLength: 1, maxLength: 6 }),
      anyEchoes.map((one) => ({ ...one, rate: { grid: '1/16' as const } })),
      fc.constantFrom(...KNOWN_ROUTES),
      (steps, echo, route) => {
        const beat = withParts(
          {
            kick: part(
              [...steps].sort((a, b) => a - b),
              {
                echoes: echo,
                sparks: [
                  {
                    to: 'clap',
                    of: 'all',
                    gap: '1/8',
                    chance: 1,
                    factor: 0.7,
                    delay: { grid: '1/16' },
                    pitch: 0,
                  },
                ],
              },
            ),
          },
          { detour: { over: 'bar', route: knownRoute(route, 8), chance: 1, lanes: null } },
        );
        const after = editPatterns(beat, [beat.patterns[0]!.id], { edit: 'writeMoves', args: {} });
        expect(LANES.some((id) => hasMoves(after, after.patterns[0]!, id))).toBe(false);
        expect(beatSchema.safeParse(after).success).toBe(true);
        const pass = (one: Beat) =>
          notesIn(planLive(one, one.patterns[0]!), 3840, 7680).map(
            ({ tick, note, velocity }) => `${Math.round(tick)} ${note} ${velocity}`,
          );
        expect(pass(after).sort()).toEqual(pass(beat).sort());
      },
    ),
    { numRuns: 120 },
  );
});
