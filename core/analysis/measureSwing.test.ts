import { gridTicks } from '../document/grid';
import type { Meter } from '../document/meter';
import { steadyBars } from '../feel/bars';
import { swung } from '../feel/swing';
import { normal } from '../random/normal';
import { ticksPerMs } from '../units';
import { measureSwing, reportFeel } from './measure';
import type { Performance, Performed } from './performance';
import { reportLines, swingText } from './reportText';

/** Numbers from 0 up to 1, the same each time. */
const dice = (seed: number) => {
  let state = seed;
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296;
    return state / 4294967296;
  };
};

const FOUR: Meter = { beats: 4, unit: 4 };
const performance = (notes: Performed[], bars: number, bpm: number, meter = FOUR): Performance => ({
  notes,
  bars: steadyBars(meter),
  ticksPerMs: () => ticksPerMs(bpm),
  length: (bars * 3840 * meter.beats * 4) / meter.unit / 4,
  meter,
});

interface Drummer {
  percent: number;
  grid: '1/8' | '1/16';
  bpm: number;
  bars: number;
  /** How uneven the hands are, in ms. */
  spread: number;
  roll: () => number;
}

/** A beat as it is played: hats on the grid that swings, kick and snare, now and then a ghost note, each lane a little off. */
const played = ({ percent, grid, bpm, bars, spread, roll }: Drummer): Performance => {
  const g = gridTicks(grid);
  const notes: Performed[] = [];
  const lean = { hat: 6 * (roll() - 0.5), kick: 8 * (roll() - 0.5), snare: 16 * (roll() - 0.5) };
  const put = (lane: keyof typeof lean, step: number, velocity: number) => {
    const ms = lean[lane] + spread * normal(roll());
    notes.push({
      at: swung(step * g, FOUR, { percent, grid }) + ms * ticksPerMs(bpm),
      velocity,
      lane,
    });
  };
  const steps = (bars * 3840) / g;
  const beat = 960 / g;
  for (let step = 0; step < steps; step++) {
    if (roll() < 0.95) put('hat', step, step % beat ? 60 : 90);
    const inBar = step % (4 * beat);
    if (inBar === 0 || inBar === 2 * beat || roll() < 0.12) put('kick', step, 100);
    if (inBar === beat || inBar === 3 * beat) put('snare', step, 110);
    else if (roll() < 0.08) put('snare', step, 30);
  }
  return performance(
    notes.filter(({ at }) => at >= 0),
    bars,
    bpm,
  );
};

describe('which reading, and how far it is to be trusted', () => {
  test('400 swung performances, eighths and sixteenths, 50 to 75 %: the right one first, its doubt honest', () => {
    const roll = dice(7);
    let [right, held, told] = [0, 0, 0];
    const wrong: string[] = [];
    for (let n = 0; n < 400; n++) {
      const one: Drummer = {
        percent: 50 + 25 * roll(),
        grid: n % 2 ? '1/8' : '1/16',
        bpm: n % 2 ? 90 + 90 * roll() : 70 + 50 * roll(),
        bars: 4,
        spread: 2 + 5 * roll(),
        roll,
      };
      const found = measureSwing(played(one));
      if (found?.grid === one.grid) {
        right += 1;
        told += 1;
        if (Math.abs(found.percent - one.percent) <= found.within) held += 1;
      } else if (one.grid === '1/8' && found?.straight && one.percent > 73) {
        // At three to one eighths are sixteenths with a hole: both are told.
        right += found.other?.grid === '1/8' ? 1 : 0;
      } else wrong.push(`${one.grid} ${one.percent.toFixed(1)}: ${swingText(found)}`);
    }
    expect(wrong.length / 400).toBeLessThanOrEqual(0.03);
    expect(right / 400).toBeGreaterThanOrEqual(0.97);
    expect(held / told).toBeGreaterThanOrEqual(0.9);
    expect(held / told).toBeLessThanOrEqual(0.98);
  });

  const at = (steps: number[], g: number, bars: number, lane: string, bar = 3840): Performed[] =>
    Array.from({ length: bars }, (_, n) =>
      steps.map((step) => ({ at: n * bar + step * g, velocity: 90, lane })),
    ).flat();

  test.each([70, 71, 72, 73, 77])('eighths swung by %i %% are no early sixteenths', (percent) => {
    const notes = Array.from({ length: 64 }, (_, step) => ({
      at:
        swung(step * 480, FOUR, { percent: Math.min(75, percent), grid: '1/8' }) +
        (step % 2 ? (percent > 75 ? 19 : 0) : 0),
      velocity: 90,
      lane: 'hat',
    }));
    const found = measureSwing(performance(notes, 8, 140))!;
    expect(found.grid).toBe('1/8');
    expect(Math.abs(found.percent - percent)).toBeLessThan(0.3);
  });

  test('eighths at exactly three to one, dead on time, are straight sixteenths first; the other is told', () => {
    const notes = at([0, 3, 4, 7, 8, 11, 12, 15], 240, 4, 'hat');
    const found = measureSwing(performance(notes, 4, 100))!;
    expect([found.grid, found.straight, found.other?.grid]).toEqual(['1/16', true, '1/8']);
    expect(swingText(found)).toBe('Straight sixteenths; 25 % likely it is 75.0 % on eighths.');
  });

  test('straight eighths with one ghost note on the fourth sixteenth are straight, without another figure', () => {
    const hats = at([0, 2, 4, 6, 8, 10, 12, 14], 240, 4, 'hat');
    const ghost: Performed[] = [{ at: 15 * 240, velocity: 25, lane: 'snare' }];
    const text = swingText(
      measureSwing(performance([...hats, ...at([4, 12], 240, 4, 'snare'), ...ghost], 4, 100)),
    );
    expect(text).toBe('Straight eighths.');
  });

  test.each([
    [{ beats: 6, unit: 8 } as Meter],
    [{ beats: 9, unit: 8 } as Meter],
    [{ beats: 12, unit: 8 } as Meter],
  ])('%j is measured from each dotted quarter, as it is swung', (meter) => {
    const eighths = Array.from({ length: 8 * meter.beats }, (_, step) => ({
      at: swung(step * 480, meter, { percent: 56, grid: '1/8' }),
      velocity: 90,
      lane: 'hat',
    }));
    const one = measureSwing(performance(eighths, 8, 90, meter))!;
    expect([one.grid, one.straight]).toEqual(['1/8', false]);
    expect(one.percent).toBeCloseTo(56, 1);
    const sixteenths = Array.from({ length: 16 * meter.beats }, (_, step) => ({
      at: swung(step * 240, meter, { percent: 58, grid: '1/16' }),
      velocity: 90,
      lane: 'hat',
    }));
    const two = measureSwing(performance(sixteenths, 8, 90, meter))!;
    expect(two.grid).toBe('1/16');
    expect(two.percent).toBeCloseTo(58, 1);
  });

  test('a doubt of three and more is called not clear', () => {
    const roll = dice(3);
    const notes = Array.from({ length: 8 }, (_, step) => ({
      at: step * 480 + 130 * (roll() - 0.5) + (step % 2 ? 50 : 0),
      velocity: 90,
      lane: 'hat',
    })).filter(({ at: place }) => place >= 0);
    const found = measureSwing(performance(notes, 1, 100))!;
    expect(found.clear).toBe(false);
    expect(swingText(found)).toContain('not clear');
  });
});

describe('what lanes share', () => {
  test('a beat that nobody played has nothing to share, however it is swung', () => {
    const lane = (id: string, every: number): Performed[] =>
      Array.from({ length: 32 / every }, (_, n) => ({
        at: swung(n * every * 240, FOUR, { percent: 62, grid: '1/16' }) + (id === 'snare' ? 20 : 0),
        velocity: 90,
        lane: id,
      }));
    const report = reportFeel(
      performance([...lane('kick', 2), ...lane('hat', 1), ...lane('snare', 4)], 2, 100),
    );
    expect([report.together, report.programmed]).toEqual([null, true]);
    expect(reportLines(report, (id) => id).join('\n')).toContain(
      'It is programmed: its lanes have no timing of their own to share.',
    );
  });

  test('what a template puts there is no shared timing; what two lanes do together is', () => {
    const roll = dice(9);
    const template = [0, 14, -8, 20];
    const both = (together: boolean) => {
      const notes: Performed[] = [];
      for (let step = 0; step < 16 * 16; step += 2) {
        const drift = 6 * normal(roll());
        for (const lane of ['kick', 'hat']) {
          const own = together ? drift : 6 * normal(roll());
          notes.push({ at: step * 240 + (template[(step / 2) % 4]! + own) * 1.92, velocity: 90, lane });
        }
      }
      return reportFeel(
        performance(
          notes.filter(({ at }) => at >= 0),
          16,
          120,
        ),
      ).together!;
    };
    const apart = both(false);
    expect(apart.least).toBeLessThan(0);
    expect(apart.most).toBeGreaterThan(0);
    expect(both(true).least).toBeGreaterThan(0.9);
  });
});
