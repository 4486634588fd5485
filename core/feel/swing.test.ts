import fc from 'fast-check';
import type { Meter } from '../document/meter';
import { swung } from './swing';

const FOUR: Meter = { beats: 4, unit: 4 };
const SIX: Meter = { beats: 6, unit: 8 };
const SEVEN: Meter = { beats: 7, unit: 8 };
const METERS = [FOUR, SIX, SEVEN, { beats: 12, unit: 8 } as Meter, { beats: 5, unit: 4 } as Meter];

const swings = fc.record({
  percent: fc.double({ min: 40, max: 75, noNaN: true }),
  grid: fc.constantFrom('1/8' as const, '1/16' as const),
});

describe('swing', () => {
  test.each([
    ['60 % on sixteenths, the off-step', 60, '1/16', 240, 288],
    ['60 %, half way to it', 60, '1/16', 120, 144],
    ['60 %, half way after it', 60, '1/16', 360, 384],
    ['two thirds on eighths is the triplet', 66.6667, '1/8', 480, 640],
    ['54 %, the third pair', 54, '1/16', 1200, 1219.2],
    ['a pair begins anew in the second bar', 60, '1/16', 3840 + 240, 3840 + 288],
  ] as const)('%s', (_, percent, grid, from, to) => {
    expect(swung(from, FOUR, { percent, grid })).toBeCloseTo(to, 2);
  });

  test('a step left over at the end of a 7/8 bar stays straight', () => {
    expect(swung(3120, SEVEN, { percent: 66, grid: '1/8' })).toBe(3120);
    expect(swung(3360 + 480, SEVEN, { percent: 60, grid: '1/8' })).toBeCloseTo(3360 + 576);
  });

  test('eighths in 6/8 are counted from each dotted quarter, its third eighth staying straight', () => {
    const swing = { percent: 60, grid: '1/8' } as const;
    expect([480, 960, 1440, 1920, 2400].map((at) => swung(at, SIX, swing))).toEqual([
      576, 960, 1440, 2016, 2400,
    ]);
  });

  test('keeps order, leaves bar lines where they are, and 50 % changes nothing', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...METERS),
        swings,
        fc.double({ min: -4000, max: 20000, noNaN: true }),
        fc.double({ min: 0.01, max: 500, noNaN: true }),
        (meter, swing, at, step) => {
          expect(swung(at + step, meter, swing)).toBeGreaterThan(swung(at, meter, swing));
          const bar = (meter.beats * 3840) / meter.unit;
          expect(swung(3 * bar, meter, swing)).toBe(3 * bar);
          expect(swung(at, meter, { ...swing, percent: 50 })).toBe(at);
        },
      ),
    );
  });
});
