import type { Player } from '../document/playersSchema';
import { bandRun } from '../feel/band';
import { estimateBand } from './estimateBand';

const player = (id: string, change: Partial<Player>): Player => ({
  id,
  name: id,
  lanes: [],
  clock: 1,
  touch: 3,
  click: 0,
  follows: {},
  ...change,
});

const heardOf = (players: Player[], seed: number, count = 4097): number[][] => {
  const run = bandRun([{ from: 0, players, seed }]);
  return players.map(({ id }) => Array.from({ length: count }, (_, j) => run.heard(id, j)));
};

const BANDS: [string, Player[]][] = [
  ['one by the click', [player('a', { click: 0.2 })]],
  ['one alone, by nobody', [player('a', { clock: 0.8, touch: 4 })]],
  [
    'one leads, one follows',
    [player('a', { click: 0.1 }), player('b', { touch: 5, clock: 1.5, follows: { a: 0.35 } })],
  ],
  [
    'each follows the other',
    [player('a', { follows: { b: 0.3 } }), player('b', { follows: { a: 0.15 }, touch: 2 })],
  ],
  [
    'three, unlike one another',
    [
      player('a', { click: 0.15, touch: 2 }),
      player('b', { follows: { a: 0.5 }, touch: 4 }),
      player('c', { follows: { a: 0.1, b: 0.3 }, clock: 2, touch: 5 }),
    ],
  ],
];

test.each(BANDS)(
  '%s: 4,096 sixteenths give back clock and touch within 20 %, what is followed within 0.1',
  (_, band) => {
    for (const seed of [5, 6, 7]) {
      const found = estimateBand(heardOf(band, seed))!;
      band.forEach((one, at) => {
        const estimated = found[at]!;
        expect(Math.abs(estimated.clock / one.clock - 1)).toBeLessThan(0.2);
        expect(Math.abs(estimated.touch / one.touch - 1)).toBeLessThan(0.2);
        expect(Math.abs(estimated.click - one.click)).toBeLessThan(0.1);
        band.forEach((other, k) => {
          expect(Math.abs(estimated.follows[k]! - (one.follows[other.id] ?? 0))).toBeLessThan(0.1);
        });
        expect(estimated.doubt).toBeGreaterThan(0);
        expect(estimated.doubt).toBeLessThan(0.35);
      });
    }
  },
);

test('less is less sure, and too little says nothing', () => {
  const [, band] = BANDS[2]!;
  const doubtOf = (count: number) => estimateBand(heardOf(band, 3, count))![1]!.doubt;
  expect(doubtOf(257)).toBeGreaterThan(doubtOf(4097));
  expect(estimateBand(heardOf(band, 3, 60))).toBeNull();
  expect(estimateBand([])).toBeNull();
});
