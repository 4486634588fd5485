import fc from 'fast-check';
import { EMPTY_LANE_PATTERN, newBeat, newHit } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import { beatSchema, type Beat, type Detour, type Pattern } from '../document/schema';
import { recalled } from '../make/chance';
import { notesIn } from '../play/driver';
import { randomRoute } from '../play/moves/detours';
import { planPasses, planSong } from '../play/timelinePlan';
import { keepPasses, passesToSong, playedPasses } from './playedRoutes';
import type { Switched } from '../play/moves/detours';
import { setDetour } from './moves';

const BAR = 3840;

/** A beat of so many bars with a hit on every sixteenth of one lane and a few of another, each of its own velocity. */
const beatOf = (bars: number): Beat => {
  const beat = { ...newBeat('b', 'Quay', 5), feel: newFeel() };
  const hits = Array.from({ length: 16 * bars }, (_, step) => newHit(step, 20 + ((step * 7) % 100)));
  const parts = {
    kick: { ...EMPTY_LANE_PATTERN, hits: hits.filter(({ step }) => step % 5 === 0) },
    'hat.closed': { ...EMPTY_LANE_PATTERN, hits },
  };
  return { ...beat, patterns: [{ ...beat.patterns[0]!, bars, parts }] };
};

const detours: fc.Arbitrary<Detour | null> = fc.option(
  fc.record({
    over: fc.constantFrom('bar', 'all'),
    route: fc
      .tuple(fc.constantFrom(4, 8, 16), fc.nat(), fc.boolean())
      .map(([slots, seed, silent]) =>
        randomRoute(slots, seed).map((from, at) => (silent && at % 3 === 0 ? 0 : from)),
      ),
    chance: fc.constantFrom(1, 0.5),
    lanes: fc.constant(null),
  }),
);

/** Switches at sixteenths, in order of time, the first at the start. */
const switches = (passes: number, bars: number): fc.Arbitrary<Switched[]> =>
  fc
    .tuple(
      detours,
      fc.array(fc.tuple(fc.integer({ min: 1, max: 16 * bars * passes - 1 }), detours), { maxLength: 4 }),
    )
    .map(([first, rest]) => [
      { at: 0, detour: first },
      ...rest.sort(([a], [b]) => a - b).map(([sixteenth, detour]) => ({ at: sixteenth * 240, detour })),
    ]);

const told = ({ tick, note, velocity }: { tick: number; note: number; velocity: number }) =>
  `${tick.toFixed(3)} ${note} ${velocity}`;

/** What is heard of a pass: each sixteenth by the detour that is in force when it begins. */
const heard = (beat: Beat, pattern: Pattern, switched: Switched[], pass: number): string[] => {
  const length = pattern.bars * BAR;
  const from = pass * length;
  return Array.from({ length: 16 * pattern.bars }, (_, sixteenth) => {
    const begin = from + sixteenth * 240;
    const detour = switched.findLast(({ at }) => at <= begin)!.detour;
    const turned = setDetour(pattern, detour);
    const notes = notesIn(planPasses({ ...beat, patterns: [turned] }, turned, pass + 1), begin, begin + 240);
    return notes.map((note) => told({ ...note, tick: note.tick - from }));
  })
    .flat()
    .sort();
};

test('every pass that was played is what was heard, whichever way and whenever the routes were switched', () => {
  const all = fc
    .integer({ min: 1, max: 2 })
    .chain((bars) => fc.record({ bars: fc.constant(bars), switched: switches(3, bars) }));
  fc.assert(
    fc.property(all, ({ bars, switched }) => {
      const beat = beatOf(bars);
      const pattern = beat.patterns[0]!;
      const live = planPasses(beat, pattern, 3, { switched });
      playedPasses(beat, pattern, switched, 0, 3).forEach((pass, at) => {
        const from = at * bars * BAR;
        const played = notesIn(live, from, from + bars * BAR);
        expect(played.map((note) => told({ ...note, tick: note.tick - from })).sort()).toEqual(
          heard(beat, pattern, switched, at),
        );
        const own = setDetour({ ...pattern, parts: pass.parts }, pass.detour);
        const now = notesIn(planPasses({ ...beat, patterns: [own] }, own, 1), 0, bars * BAR);
        expect(now.map(told).sort()).toEqual(heard(beat, pattern, switched, at));
        expect(beatSchema.safeParse({ ...beat, patterns: [own] }).success).toBe(true);
      });
    }),
    { numRuns: 60 },
  );
});

const SWAPPED: Detour = { over: 'bar', route: [3, 4, 1, 2], chance: 1, lanes: null };

test('a pass by one route is that route; one that was switched within is told over the whole pattern', () => {
  const beat = beatOf(2);
  const pattern = beat.patterns[0]!;
  const [first, second, third] = playedPasses(
    beat,
    pattern,
    [
      { at: 0, detour: SWAPPED },
      { at: 3 * BAR, detour: null },
    ],
    0,
    3,
  );
  expect(first).toEqual({ parts: pattern.parts, detour: SWAPPED });
  expect(second!.detour).toEqual({ over: 'all', route: [2, 1, 3, 4], chance: 1, lanes: null });
  expect(third).toEqual({ parts: pattern.parts, detour: null });
});

test('kept as takes, each different pass is there once and comes back with its route; what was there is kept', () => {
  const beat = beatOf(1);
  const pattern = beat.patterns[0]!;
  const passes = [SWAPPED, null, SWAPPED].map((detour) => ({ parts: pattern.parts, detour }));
  const kept = keepPasses(pattern, passes, 'Routes', 'n');
  expect(kept.takes!.map(({ name, detour }) => [name, detour])).toEqual([
    ['Take 1', SWAPPED],
    ['Take 2', null],
  ]);
  const back = recalled(kept, 'n.0', 'x');
  expect(back.detour).toEqual(SWAPPED);
  expect(recalled(back, 'n.1', 'y').detour).toBeUndefined();
  // By hand to another route: that is no take yet, and is one before another is recalled.
  const other = setDetour(back, { ...SWAPPED, route: [4, 3, 2, 1] });
  expect(recalled(other, 'n.1', 'z').takes!.at(-1)).toMatchObject({
    how: 'By hand',
    detour: { route: [4, 3, 2, 1] },
  });
});

test('in the song each different pass is a pattern, those alike in a row are one entry, and it sounds as it was played', () => {
  const beat = beatOf(1);
  const pattern = beat.patterns[0]!;
  const passes = [null, SWAPPED, SWAPPED, null].map((detour) => ({ parts: pattern.parts, detour }));
  const out = passesToSong(beat, 'a', passes, 'Routes', 'n');
  expect(beatSchema.safeParse(out).success).toBe(true);
  expect(out.patterns.map(({ name }) => name)).toEqual([pattern.name, `${pattern.name} Routes`]);
  expect(out.song.sections[0]!.entries.map(({ patternId, times }) => [patternId, times])).toEqual([
    ['a', 1],
    ['n.1', 2],
    ['a', 1],
  ]);
  const song = notesIn(planSong(out), 0, 4 * BAR);
  const swapped = setDetour(pattern, SWAPPED);
  const alone = (one: Pattern) => notesIn(planPasses({ ...beat, patterns: [one] }, one, 1), 0, BAR);
  const wanted = [pattern, swapped, swapped, pattern].flatMap((one, at) =>
    alone(one).map((note) => ({ ...note, tick: note.tick + at * BAR })),
  );
  expect(song.map(told)).toEqual(wanted.map(told));
  expect(passesToSong(beat, 'gone', passes, 'Routes', 'n')).toBe(beat);
  expect(passesToSong(beat, 'a', [], 'Routes', 'n')).toBe(beat);
});
