import fc from 'fast-check';
import { gridTicks } from '../document/grid';
import { ticksPerMs } from '../units';
import { steadyBars } from '../feel/bars';
import { measureSwing, reportFeel } from './measure';
import type { Performance, Performed } from './performance';
import { compareLines, compareReports, differenceText, nothingShared, reportLines } from './reportText';
import { swung } from '../feel/swing';
import { averaged, dotsOf, findGrid, outliers, shapeFrom, extractTemplate } from './extractTemplate';
import { templateBend } from '../feel/templateBend';
import { readTemplate } from '../feel/templateFile';
import { writeTemplate } from '../feel/templateText';

const FOUR = { beats: 4, unit: 4 } as const;
const played = (notes: Performed[], length = 7680): Performance => ({
  notes,
  bars: steadyBars(FOUR),
  ticksPerMs: () => ticksPerMs(120),
  length,
  meter: FOUR,
});
const steps = (count: number, grid: number, lane = 'hat', velocity = 90): Performed[] =>
  Array.from({ length: count }, (_, step) => ({ at: step * grid, velocity, lane }));

describe('measuring', () => {
  test('finds any swing to 0.6 %', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 40, max: 68, noNaN: true }),
        fc.constantFrom('1/8' as const, '1/16' as const),
        (percent, grid) => {
          const notes = steps(64, gridTicks(grid)).map((note) => ({
            ...note,
            at: swung(note.at, FOUR, { percent, grid }),
          }));
          const found = measureSwing(played(notes, 64 * gridTicks(grid)))!;
          expect(found.grid).toBe(grid);
          expect(Math.abs(found.percent - percent)).toBeLessThan(0.6);
        },
      ),
    );
  });

  test('says nothing of a swing that is not there to be measured', () => {
    expect(measureSwing(played(steps(8, 960)))).toBeNull();
    expect(measureSwing(played(steps(24, 320)))).toBeNull();
  });

  test('tells lanes ahead from lanes behind, and how much they move together', () => {
    const shift = [3, -4, 6, 0, -5, 4, 2, -6];
    const snare = shift.map((ms, at) => ({ at: at * 960 + (ms + 9) * 1.92, velocity: 100, lane: 'snare' }));
    const kick = shift.map((ms, at) => ({ at: at * 960 + (ms - 2) * 1.92, velocity: 60, lane: 'kick' }));
    const report = reportFeel(played([...snare, ...kick]));
    const [first, second] = report.lanes;
    expect([first!.lane, first!.mean, second!.mean]).toEqual([
      'snare',
      expect.closeTo(9),
      expect.closeTo(-2),
    ]);
    expect(first!.spread).toBeCloseTo(second!.spread, 6);
    expect(report.together!.correlation).toBeCloseTo(1, 4);
    expect(report.together!.least).toBeGreaterThan(0.99);
    expect(report.velocity).toBe(80);
    const lines = reportLines(report, (lane) => lane);
    expect(lines.join('\n')).toContain('snare: 8 notes, 9.0 ms behind, spread 4.2 ms, velocity 100.0 ± 0.0');
    expect(lines.join('\n')).toContain('kick: 8 notes, 2.0 ms ahead');
    expect(compareLines(report, report, (lane) => lane)).toContain('snare 9.0 against 9.0 ms (+0.0)');
  });

  test.each([
    ['1/8', 480, 16],
    ['1/8T', 320, 24],
    ['1/16', 240, 32],
    ['1/16T', 160, 48],
    ['1/32', 120, 64],
  ] as const)('finds a grid of %s', (grid, ticks, count) => {
    expect(findGrid(played(steps(count, ticks)))).toBe(grid);
  });

  test('the accent shape is that of the bar', () => {
    const notes = steps(32, 240).map((note, at) => ({ ...note, velocity: at % 4 ? 50 : 110 }));
    const { accents, accent } = reportFeel(played(notes));
    expect(accents.slice(0, 5)).toEqual([110, 50, 50, 50, 110]);
    expect(accent).toBeCloseTo(110 / 65, 6);
  });
});

describe('templates from performances', () => {
  const performances = fc.array(
    fc.record({
      offset: fc.double({ min: -0.4, max: 0.4, noNaN: true }),
      velocity: fc.integer({ min: 1, max: 127 }),
    }),
    { minLength: 16, maxLength: 16 },
  );

  test('put at 100 % on the straightened self, every note is back where it was', () => {
    fc.assert(
      fc.property(performances, (slots) => {
        const notes = slots.map(({ offset, velocity }, at) => ({
          at: (at + offset) * 240,
          velocity,
          lane: `lane ${at % 3}`,
        }));
        const shape = extractTemplate('Stall', played(notes, 3840), { grid: '1/16', length: 3840 })!;
        const bend = templateBend(shape, 1, { bars: steadyBars(FOUR), pass: 3840 });
        slots.forEach(({ offset }, at) => expect(bend(at * 240)).toBeCloseTo((at + offset) * 240, 3));
      }),
    );
  });

  test('weighs offsets by velocity and counts a flam as its main note', () => {
    const notes = [
      { at: 250, velocity: 90, lane: 'a' },
      { at: 4080 + 40, velocity: 30, lane: 'a' },
      { at: 4080 + 10, velocity: 20, lane: 'b' },
      { at: 4080 + 36, velocity: 100, lane: 'b' },
    ];
    const shape = extractTemplate('Stall', played(notes), { grid: '1/16', length: 3840 })!;
    const weighted = (10 * 90 + 40 * 30 + 36 * 100) / 220 / 240;
    expect(shape.slots[1]!.offset).toBeCloseTo(weighted, 6);
    expect(shape.slots.filter(Boolean)).toHaveLength(1);
  });

  test('an outlier is found and can be left out; several are averaged', () => {
    const notes = Array.from({ length: 8 }, (_, bar) => ({
      at: bar * 3840 + 240 + (bar === 5 ? 80 : 12),
      velocity: 90,
      lane: 'a',
    }));
    const performance = played(notes, 8 * 3840);
    const options = { grid: '1/16', length: 3840 } as const;
    const dots = dotsOf(performance, options);
    const odd = outliers(dots);
    expect(odd.map(({ note }) => note)).toEqual([5]);
    const shape = shapeFrom(
      'Stall',
      performance,
      options,
      dots.filter((dot) => !odd.includes(dot)),
    );
    expect(shape.slots[1]!.offset).toBeCloseTo(12 / 240, 9);
    const early = { ...shape, slots: shape.slots.map((slot) => slot && { ...slot, offset: -0.05 }) };
    expect(averaged('Both', [shape, early])!.slots[1]!.offset).toBeCloseTo(0, 9);
  });

  test('a template file is read back, and its faults are named', () => {
    const slots = [{ offset: 0.1, velocity: 0.5 }, null];
    const text = writeTemplate({ name: 'Quay', grid: '1/16', slots, about: 'late' });
    expect(readTemplate(text)).toEqual({
      ok: true,
      value: { name: 'Quay', grid: '1/16', slots, about: 'late' },
    });
    const fault = (change: object) => {
      const read = readTemplate(JSON.stringify({ ...(JSON.parse(text) as object), ...change }));
      return read.ok ? '' : read.error;
    };
    expect(fault({ slots: [null, { offset: 'x', velocity: 0 }] })).toBe(
      'Its slot 2 has the offset "x"; it goes from -0.5 to 0.5 steps.',
    );
    expect(fault({ slots: [{ offset: 0 }] })).toBe('Its slot 1 has no velocity.');
    expect(fault({ slots: [7] })).toBe('Its slot 1 is neither null nor an offset with a velocity.');
    expect(fault({ slots: [null] })).toContain('All its slots are open');
    expect(fault({ grid: '1/12' })).toContain('Its grid is "1/12"');
    expect(fault({ kind: 'other' })).toBe('It is JSON, but not a groove template of Ruddik.');
    expect(readTemplate('{')).toEqual({
      ok: false,
      error: 'It is not JSON, or was cut short (reading stopped in line 1).',
    });
  });
});

describe('two reports side by side', () => {
  const performed = (lane: string, late: number) => ({
    notes: Array.from({ length: 16 }, (_, at) => ({
      at: at * 240 + late,
      velocity: 80 + (at % 4) * 10,
      lane,
    })),
    bars: steadyBars({ beats: 4, unit: 4 }),
    meter: { beats: 4, unit: 4 } as const,
    ticksPerMs: () => 1.92,
    length: 3840,
  });
  const name = (lane: string) => lane;

  test('lanes are matched by what they are keyed with, and their difference has a sign', () => {
    const [a, b] = [reportFeel(performed('snare', 9.6)), reportFeel(performed('10/38', 19.2))];
    const key = (lane: string) => (lane === 'snare' ? '10/38' : lane);
    const row = compareReports(a, b, name, key).find(({ what }) => what === 'snare')!;
    expect(row.from).toBeCloseTo(5, 3);
    expect(row.to).toBeCloseTo(10, 3);
    expect(differenceText(row)).toBe('+5.0');
    expect(differenceText({ ...row, from: 10, to: 5 })).toBe('−5.0');
    expect(nothingShared(a, b, name, key)).toBeNull();
  });

  test('what is not measured in both has no difference; lanes that share nothing are named', () => {
    const [a, b] = [reportFeel(performed('kick', 0)), reportFeel(performed('10/75', 0))];
    expect(differenceText({ what: 'Swing', from: 58, to: null, unit: ' %' })).toBe('');
    expect(compareReports(a, b, name).some(({ what }) => what === 'kick')).toBe(false);
    expect(nothingShared(a, b, name, name)).toContain('There is: 10/75.');
  });
});
