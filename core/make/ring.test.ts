import fc from 'fast-check';
import {
  arrangementCount,
  arrangementOf,
  arrangements,
  arrangementSlots,
  dealt,
  euclideanSlots,
  restSlots,
  ringHits,
  rotatedSlots,
  type RingPlay,
} from './ring';

const all = (slots: number, strikes: number) =>
  [...arrangements(slots, strikes)].map((mask) => arrangementSlots(mask, slots));

test.each([
  [8, 3, 7, [0, 3, 6], [0, 4, 6], [0, 6, 7]],
  [8, 5, 7, [0, 2, 4, 5, 7], [0, 2, 4, 6, 7], [0, 4, 5, 6, 7]],
  [16, 5, 273, [0, 4, 7, 10, 13], [0, 4, 7, 10, 14], [0, 12, 13, 14, 15]],
  [12, 5, 66, [0, 3, 5, 8, 10], [0, 3, 6, 8, 10], [0, 8, 9, 10, 11]],
])(
  '%i slots, %i strikes: %i arrangements, from even to clustered',
  (slots, strikes, count, first, second, last) => {
    const list = all(slots, strikes);
    expect(list).toHaveLength(count);
    expect([list[0], list[1], list.at(-1)]).toEqual([first, second, last]);
  },
);

test('as many as the formula counts, up to the longest list', () => {
  expect(arrangements(16, 8)).toHaveLength(810);
  expect(arrangements(24, 12)).toHaveLength(112720);
});

const rings = fc
  .integer({ min: 1, max: 14 })
  .chain((slots) => fc.tuple(fc.constant(slots), fc.integer({ min: 0, max: slots })));

test('every way to strike is the rotation of exactly one arrangement; number 1 is the Euclidean rhythm', () => {
  fc.assert(
    fc.property(rings, ([slots, strikes]) => {
      const list = all(slots, strikes);
      expect(list).toHaveLength(arrangementCount(slots, strikes));
      const seen = new Set(
        list.flatMap((struck) => [
          ...new Set(Array.from({ length: slots }, (_, by) => rotatedSlots(struck, slots, by).join())),
        ]),
      );
      let ways = 1;
      for (let i = 1; i <= strikes; i++) ways = (ways * (slots - strikes + i)) / i;
      expect(seen.size).toBe(Math.round(ways));
      expect(list[0]).toEqual(euclideanSlots(slots, strikes));
    }),
    { numRuns: 60 },
  );
});

test('evenness falls along the list, and each is told by its greatest gaps', () => {
  const gaps = (struck: number[], slots: number) =>
    struck.map((slot, at) => ((struck[at + 1] ?? slots + struck[0]!) - slot + slots) % slots || slots);
  for (const [slots, strikes] of [
    [12, 5],
    [13, 6],
    [16, 4],
  ] as const) {
    const even = all(slots, strikes).map((struck) =>
      struck.reduce(
        (sum, a) =>
          sum + struck.reduce((part, b) => part + Math.sin((Math.PI * Math.abs(a - b)) / slots), 0) / 2,
        0,
      ),
    );
    for (let i = 1; i < even.length; i++) expect(even[i]!).toBeLessThanOrEqual(even[i - 1]! + 1e-8);
    for (const struck of all(slots, strikes)) {
      const own = gaps(struck, slots);
      const text = (list: number[]) => String.fromCharCode(...list.map((gap) => 64 + gap));
      for (let by = 1; by < own.length; by++)
        expect(text([...own.slice(by), ...own.slice(0, by)]) <= text(own)).toBe(true);
    }
  }
});

const play: RingPlay = { velocity: 100, accent: 120, every: 0, from: 0, doubling: 0, into: 2 };

test('accents are counted from a strike, before it too, and anew in each round', () => {
  const of = (more: Partial<RingPlay>) =>
    ringHits([0, 3, 6], 8, 16, { ...play, ...more }, 1, 0).map(({ velocity }) => velocity);
  expect(of({})).toEqual([100, 100, 100, 100, 100, 100]);
  expect(of({ every: 2 })).toEqual([120, 100, 120, 120, 100, 120]);
  expect(of({ every: 2, from: 1 })).toEqual([100, 120, 100, 100, 120, 100]);
  expect(of({ every: 2, from: 2 })).toEqual([120, 100, 120, 120, 100, 120]);
});

test('a ring fills up and is cut at the end; about as many strikes are doubled as chance says', () => {
  expect(ringHits([0, 3, 6], 8, 20, play, 1, 0).map(({ slot, round }) => round * 8 + slot)).toEqual([
    0, 3, 6, 8, 11, 14, 16, 19,
  ]);
  const doubled = ringHits([0, 1, 2, 3], 4, 4000, { ...play, doubling: 0.3, into: 3 }, 7, 1);
  const share = doubled.filter(({ strokes }) => strokes === 3).length / doubled.length;
  expect(share).toBeGreaterThan(0.27);
  expect(share).toBeLessThan(0.33);
  expect(doubled.every(({ strokes }) => strokes === 1 || strokes === 3)).toBe(true);
});

test('the rest and what is dealt are all there, once each', () => {
  fc.assert(
    fc.property(rings, fc.integer({ min: 1, max: 5 }), ([slots, strikes], lanes) => {
      const struck = euclideanSlots(slots, strikes);
      expect([...struck, ...restSlots(struck, slots)].sort((a, b) => a - b)).toEqual(
        Array.from({ length: slots }, (_, slot) => slot),
      );
      expect(
        dealt(struck, lanes)
          .flat()
          .sort((a, b) => a - b),
      ).toEqual(struck);
    }),
  );
});

test('any struck slots are known as their arrangement, turned', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 16 }),
      fc.uniqueArray(fc.nat(15), { maxLength: 10 }),
      (slots, all) => {
        const struck = [...new Set(all.map((slot) => slot % slots))].sort((a, b) => a - b);
        const known = arrangementOf(struck, slots);
        expect(rotatedSlots(known.struck, slots, known.rotate)).toEqual(struck);
        expect([...arrangements(slots, struck.length)]).toContain(known.mask);
      },
    ),
  );
});
