import { normal } from '../random/normal';
import fc from 'fast-check';
import { gridTicks } from '../document/grid';
import { draw } from '../random/draw';
import { ticksPerMs } from '../units';
import { steadyBars } from '../feel/bars';
import { measureSwing, reportFeel } from './measure';
import type { Performance, Performed } from './performance';
import { summaryLines, unlikeTerms } from './reportText';
import { swung } from '../feel/swing';

const FOUR = { beats: 4, unit: 4 } as const;

const performance = (notes: Performed[], bpm = 120, bars = 4): Performance => ({
  notes,
  bars: steadyBars(FOUR),
  ticksPerMs: () => ticksPerMs(bpm),
  length: bars * 3840,
  meter: FOUR,
});

/** Where lanes of a kit mostly play, in steps of the swung grid. */
const LINES: Record<string, (step: number) => boolean> = {
  hat: () => true,
  kick: (step) => [0, 3, 6, 10].includes(step % 16),
  snare: (step) => [4, 7, 9, 12].includes(step % 16),
  shaker: (step) => step % 4 !== 2,
};

/** A made performance: lanes ahead and behind by up to 20 ms, each stroke off by some ms. */
const made = (seed: number) => {
  const random = (at: number) => draw(seed, at);
  const grid = random(1) < 0.6 ? ('1/16' as const) : ('1/8' as const);
  const percent = 50 + 20 * random(2);
  const bpm = grid === '1/16' ? 70 + 60 * random(3) : 90 + 90 * random(3);
  const spread = 2 + 6 * random(4);
  const bars = 2 + Math.floor(6 * random(5));
  const rate = ticksPerMs(bpm);
  const steps = Math.round((bars * 3840) / gridTicks(grid));
  const notes = Object.entries(LINES).flatMap(([lane, plays], index) => {
    const lag = (random(10 + index) * 2 - 1) * 20;
    return Array.from({ length: steps }, (_, step) => step)
      .filter(plays)
      .map((step) => ({
        at:
          swung(step * gridTicks(grid), FOUR, { percent, grid }) +
          (lag + spread * normal(draw(seed, index, step, 7))) * rate,
        velocity: 90,
        lane,
      }));
  });
  return { percent, grid, measured: measureSwing(performance(notes, bpm, bars)) };
};

test('the doubt that is told holds the true swing in 90 to 98 of 100 performances, lanes ahead and behind or not', () => {
  const all = Array.from({ length: 1000 }, (_, seed) => made(seed));
  const told = all.filter(({ measured, grid }) => measured?.grid === grid);
  expect(told.length).toBeGreaterThan(950);
  const held = told.filter(
    ({ percent, measured }) => Math.abs(measured!.percent - percent) <= measured!.within,
  );
  const share = (100 * held.length) / told.length;
  expect(share).toBeGreaterThanOrEqual(90);
  expect(share).toBeLessThanOrEqual(98);
  // And it is not held by being wide: half of them are told to a percent point and a half.
  const doubts = told.map(({ measured }) => measured!.within).sort((a, b) => a - b);
  expect(doubts[Math.floor(doubts.length / 2)]).toBeLessThan(1.5);
});

test.each([-20, -9, 7, 20])('a lane %d ms off does not count as swing, straight or not', (lag) => {
  for (const percent of [50, 58]) {
    const lane = (name: string, off: number, plays: (step: number) => boolean): Performed[] =>
      Array.from({ length: 64 }, (_, step) => step)
        .filter(plays)
        .map((step) => ({
          at: swung(step * 240, FOUR, { percent, grid: '1/16' }) + off * ticksPerMs(100),
          velocity: 90,
          lane: name,
        }));
    // The kick plays beats alone, the hat all sixteenths behind or ahead of it.
    const notes = [...lane('kick', 0, (step) => step % 4 === 0), ...lane('hat', lag, () => true)];
    const found = measureSwing(performance(notes, 100))!;
    expect(found.percent).toBeCloseTo(percent, 6);
    expect(found.straight).toBe(percent === 50);
  }
});

test('a beat on the grid is called so, single ghost notes and all', () => {
  const eighths = Array.from({ length: 32 }, (_, at) => ({ at: at * 480, velocity: 90, lane: 'hat' }));
  const ghosts = [1680, 9360].map((at) => ({ at, velocity: 30, lane: 'snare' }));
  const report = reportFeel(performance([...eighths, ...ghosts]));
  expect(report.grid).toBe('1/16');
  expect(report.spread).toBeLessThan(1e-6);
  expect(report.swing?.straight ?? true).toBe(true);
  const lines = summaryLines(report).join('\n');
  expect(lines).toContain('Everything is on the grid.');
  expect(lines).not.toMatch(/sloppy|swung|Swing \d/);
});

test('timing that is shared is told with its interval, and where there is none that is said', () => {
  const pair = (seed: number, shared: number) =>
    performance(
      Array.from({ length: 32 }, (_, at) => at).flatMap((at) => {
        const both = normal(draw(seed, at, 1));
        return ['kick', 'hat'].map((lane, index) => ({
          at: at * 480 + 10 * (shared * both + (1 - shared) * normal(draw(seed, at, 2 + index))),
          velocity: 90,
          lane,
        }));
      }),
    );
  const alike = reportFeel(pair(3, 0.8)).together!;
  expect(alike.least).toBeGreaterThan(0.5);
  expect(alike.least).toBeLessThan(alike.correlation);
  expect(alike.most).toBeGreaterThan(alike.correlation);
  // Without anything shared, at most one in twenty should look as if there were.
  const fooled = Array.from({ length: 300 }, (_, seed) => reportFeel(pair(seed, 0)).together!).filter(
    ({ least, most }) => least > 0 || most < 0,
  );
  expect(fooled.length / 300).toBeLessThan(0.09);
  expect(summaryLines(reportFeel(pair(3, 0))).join()).toContain('No shared timing found');
  const still = Array.from({ length: 16 }, (_, at) => ({ at: at * 240, velocity: 90, lane: `l${at % 2}` }));
  expect(reportFeel(performance(still)).together).toBeNull();
});

test('two reports that were measured on another grid or at another tempo say so', () => {
  const eighths = Array.from({ length: 16 }, (_, at) => ({ at: at * 480, velocity: 90, lane: 'hat' }));
  const triplets = Array.from({ length: 24 }, (_, at) => ({ at: at * 320, velocity: 90, lane: 'hat' }));
  const [a, b] = [reportFeel(performance(eighths)), reportFeel(performance(triplets, 96))];
  expect(unlikeTerms(a, b)).toContain('against 1/16 and 1/8T, and at 120.0 and 96.0 BPM');
  expect(unlikeTerms(a, a)).toBeNull();
  const like = reportFeel(performance(triplets, 96), { grid: '1/16', bpm: 120 });
  expect([like.grid, Math.round(like.bpm)]).toEqual(['1/16', 120]);
  expect(unlikeTerms(a, like)).toBeNull();
});

test('any performance is measured without a fault', () => {
  const notes = fc.array(
    fc.record({
      at: fc.double({ min: -200, max: 15000, noNaN: true }),
      velocity: fc.integer({ min: 1, max: 127 }),
      lane: fc.constantFrom('a', 'b', 'c'),
    }),
    { minLength: 1, maxLength: 60 },
  );
  fc.assert(
    fc.property(notes, (some) => {
      const report = reportFeel(performance(some));
      expect(Number.isFinite(report.spread)).toBe(true);
      if (report.swing) expect(report.swing.within).toBeGreaterThan(0);
    }),
  );
});
