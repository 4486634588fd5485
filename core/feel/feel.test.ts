import { circularPink, pinkNoise } from '../random/pinkNoise';
import { normal } from '../random/normal';
import { correlation, deviation, mean } from '../analysis/statistics';
import { notesIn } from '../play/driver';
import { planLive } from '../play/timelinePlan';
import fc from 'fast-check';
import { newFeel } from '../document/feelDefaults';
import type { Feel, PlainFeel, Shape, Template } from '../document/feelSchema';
import { ticksPerMs } from '../units';
import { feels } from '../arbitraries';
import { gridTicks } from '../document/grid';
import { EMPTY_LANE_PATTERN, newBeat, newHit } from '../document/defaults';
import { barTicks, meterText } from '../document/meter';
import { pulsesOf } from '../document/pulses';
import type { Beat, Hit } from '../document/schema';
import { changingBars, steadyBars } from './bars';
import { editFeel } from '../edit/edits';
import { quantizer } from './quantize';
import { slotOffsets, templateBend, templateForce } from './templateBend';
import { TEMPLATES } from './templates';

const FOUR = { beats: 4, unit: 4 } as const;
const bars = steadyBars(FOUR);
/** Slots counted from the bar lines of 4/4, in a file. */
const FROM_BARS = { bars, pass: Infinity };
const ms = (ticks: number, bpm = 120) => (ticks * 60000) / (960 * bpm);

describe('quantize', () => {
  test.each([
    ['1/16', 0.5, 1, 250, 245],
    ['1/16', 1, 0.25, 250, 240],
    ['1/16', 1, 0.25, 275, 275],
    ['1/8T', 1, 1, 300, 320],
    ['1/8D', 1, 1, 3845, 3840],
    ['1/16', 1, 1, 360, 480],
    ['1/8D', 1, 1, 3721, 3840],
  ] as const)('on %s with strength %d and window %d: %d becomes %d', (grid, strength, window, from, to) => {
    expect(quantizer(bars, grid, strength, window)(from)).toBeCloseTo(to, 9);
  });

  test('keeps order, and leaves what is on the grid there', () => {
    const positions = fc.double({ min: 0, max: 20000, noNaN: true });
    fc.assert(
      fc.property(positions, positions, fc.double({ min: 0, max: 1, noNaN: true }), (a, b, strength) => {
        const quantize = quantizer(bars, '1/8D', strength, 1);
        expect(quantize(Math.min(a, b))).toBeLessThanOrEqual(quantize(Math.max(a, b)) + 1e-6);
        const put = quantizer(bars, '1/8D', 1, 1);
        expect(put(put(a))).toBeCloseTo(put(a), 6);
      }),
    );
  });

  test('counts anew where the meter changes, a bar cut short included', () => {
    const changing = changingBars([
      { at: 0, meter: FOUR },
      { at: 3000, meter: { beats: 3, unit: 4 } },
    ]);
    const quantize = quantizer(changing, '1/4', 1, 1);
    expect([2800, 2990, 3400, 3960].map(quantize)).toEqual([2880, 3000, 3000, 3960]);
  });
});

describe('a template', () => {
  const shape = (offsets: (number | null)[], velocity = 0.5): Shape => ({
    name: 'Quay',
    grid: '1/16',
    slots: offsets.map((offset) => (offset === null ? null : { offset, velocity })),
  });

  test('half of its timing, between two slots by halves', () => {
    const bend = templateBend(shape([0, 0.1, 0, 0]), 0.5, FROM_BARS);
    expect([240, 120, 0, 480].map(bend)).toEqual([252, 126, 0, 480]);
  });

  test('open slots take their offset from their neighbours, around the loop', () => {
    expect(slotOffsets(shape([null, 0.2, null, 0.4]))).toEqual([
      expect.closeTo(0.3),
      0.2,
      expect.closeTo(0.3),
      0.4,
    ]);
  });

  test('multiplies velocities by their slot against the mean, and leaves open slots alone', () => {
    const slots = [{ offset: 0, velocity: 0.9 }, { offset: 0, velocity: 0.45 }, null];
    const force = templateForce({ name: 'Quay', grid: '1/16', slots }, 1, { ...FROM_BARS, runsOn: true });
    expect([0, 240, 480].map((at) => 90 * force(at))).toEqual([120, 60, 90]);
  });

  const seven = { bars: steadyBars({ beats: 7, unit: 8 }), pass: 2 * 3360 };
  const sixteen = shape([0, 0.1, ...new Array<number>(14).fill(0)]);

  test('is counted anew from each bar line where it does not fit the bar', () => {
    const bend = templateBend(sixteen, 1, seven);
    expect([240, 3360, 3360 + 240, 2 * 3360 + 240, -3360 + 240].map(bend)).toEqual([
      264,
      3360,
      3624,
      2 * 3360 + 264,
      -3360 + 264,
    ]);
    // As beats of format 4 had it: the second bar began on the fifteenth slot.
    const ran = templateBend(sixteen, 1, { ...seven, runsOn: true });
    expect([3360 + 240, 3840 + 240].map(ran)).toEqual([3360 + 240, 3840 + 264]);
  });

  test('of whole bars runs on from the start of the pass, over bar lines', () => {
    const long = shape([0, 0.1, ...new Array<number>(29).fill(0), 0.2]);
    const bend = templateBend(long, 1, { bars, pass: 3 * 3840 });
    expect([240, 3840 + 240, 2 * 3840 - 240].map(bend)).toEqual([264, 3840 + 240, 2 * 3840 - 240 + 48]);
    // The third bar is its first again, and so is the first of the next pass.
    expect([2 * 3840 + 240, 3 * 3840 + 240].map(bend)).toEqual([2 * 3840 + 264, 3 * 3840 + 264]);
  });

  test('has curves of their own for groups of drums; others follow the common slots', () => {
    const late = { offset: 0.25, velocity: 1 };
    const both: Shape = { ...shape([0, 0]), groups: { snare: [late, late] } };
    expect(templateBend(both, 1, FROM_BARS, 'snare')(480)).toBe(540);
    expect(templateBend(both, 1, FROM_BARS, 'kick')(480)).toBe(480);
    expect(templateBend(both, 1, FROM_BARS)(480)).toBe(480);
    const feel: Feel = {
      ...newFeel(),
      base: 'template',
      template: { template: { ...both, id: 't' }, timing: 1, velocity: 1 },
    };
    const beat = { ...newBeat('b', 'Ferry', 7), feel };
    const part = { grid: '1/16', steps: null, rate: '1', direction: 'forward' } as const;
    const parts = Object.fromEntries(['kick', 'snare'].map((id) => [id, { ...part, hits: [newHit(2)] }]));
    const pattern = { ...beat.patterns[0]!, parts };
    const notes = notesIn(planLive({ ...beat, patterns: [pattern] }, pattern), 0, 960);
    expect(notes.map(({ lane, tick }) => [beat.lanes[lane]!.id, tick])).toEqual([
      ['kick', 480],
      ['snare', 540],
    ]);
  });

  test('of the library is whole bars of its meter or divides one; those for other meters stress its pulses', () => {
    for (const { name, meter, grid, slots } of TEMPLATES) {
      const bars = (slots.length * gridTicks(grid)) / barTicks(meter!);
      expect([name, Number.isInteger(bars) || Number.isInteger(1 / bars)]).toEqual([name, true]);
      if (meter!.beats === 4) continue;
      const pulses = new Set(pulsesOf(meter!).map(({ from }) => Math.round(from / gridTicks(grid))));
      const force = (on: boolean) =>
        slots.flatMap((slot, at) => (pulses.has(at) === on ? slot!.velocity : []));
      expect([name, Math.min(...force(true)) > Math.max(...force(false))]).toEqual([name, true]);
    }
    expect(new Set(TEMPLATES.map(({ meter }) => meterText(meter!)))).toEqual(
      new Set(['4/4', '3/4', '5/4', '7/8', '6/8', '12/8']),
    );
  });

  test('of the library bends every bar of its meter alike, and lifts what is struck on the pulses', () => {
    for (const template of TEMPLATES.filter(({ meter }) => meter!.beats !== 4)) {
      const meter = template.meter!;
      const bar = barTicks(meter);
      const beat = steadyLane({
        ...newFeel(),
        base: 'template',
        template: { template, timing: 1, velocity: 1 },
      });
      const steps = Math.round(bar / 240);
      const parts = {
        kick: {
          ...EMPTY_LANE_PATTERN,
          grid: '1/16' as const,
          steps,
          hits: Array.from({ length: steps }, (_, at) => newHit(at)),
        },
      };
      const pattern = { ...beat.patterns[0]!, meter, bars: 1, parts };
      const notes = notesIn(planLive({ ...beat, patterns: [pattern] }, pattern), 0, 2 * bar);
      const bars = [notes.slice(0, steps), notes.slice(steps)];
      expect(bars[1]!.map(({ tick }) => tick - bar)).toEqual(
        bars[0]!.map(({ tick }) => expect.closeTo(tick, 6)),
      );
      const pulses = new Set(pulsesOf(meter).map(({ from }) => from / 240));
      const loudness = (on: boolean) => {
        const some = bars[0]!.filter((_, at) => pulses.has(at) === on);
        return some.reduce((sum, { velocity }) => sum + velocity, 0) / some.length;
      };
      expect(loudness(true)).toBeGreaterThan(loudness(false));
    }
  });

  test('no two are alike: somewhere they part by 5 ms at 100 BPM, or by 10 of velocity', () => {
    const GROUPS = ['kick', 'snare', 'hat', 'hand', 'shaken', 'tom', 'cymbal'] as const;
    const barOf = (template: Template) => {
      const { beats, unit } = template.meter!;
      return { key: `${beats}/${unit} ${template.grid}`, steps: template.slots.length };
    };
    const twins: string[] = [];
    TEMPLATES.forEach((a, at) => {
      for (const b of TEMPLATES.slice(at + 1)) {
        // Another meter or grid is another feel.
        if (barOf(a).key !== barOf(b).key) continue;
        const stepMs = gridTicks(a.grid) / ticksPerMs(100);
        const steps = Math.max(barOf(a).steps, barOf(b).steps);
        const apart = GROUPS.some((group) => {
          const [one, other] = [a.groups?.[group] ?? a.slots, b.groups?.[group] ?? b.slots];
          return Array.from({ length: steps }).some((_, step) => {
            const [x, y] = [one[step % one.length]!, other[step % other.length]!];
            return (
              Math.abs(x.offset - y.offset) * stepMs >= 5 - 1e-9 ||
              Math.abs(x.velocity - y.velocity) * 127 >= 10
            );
          });
        });
        if (!apart) twins.push(`${a.name} and ${b.name}`);
      }
    });
    expect(twins).toEqual([]);
  });

  test('of the library keeps order at any amount; each has its own name and says how it feels', () => {
    expect(TEMPLATES.length).toBeGreaterThanOrEqual(40);
    expect(new Set(TEMPLATES.map(({ id }) => id)).size).toBe(TEMPLATES.length);
    for (const { about, slots } of TEMPLATES) {
      expect(about!.length).toBeGreaterThan(30);
      expect(slots.every((slot) => slot && Math.abs(slot.offset) <= 0.5 && slot.velocity <= 1)).toBe(true);
    }
    fc.assert(
      fc.property(
        fc.constantFrom(...TEMPLATES),
        fc.double({ min: 0, max: 1.5, noNaN: true }),
        fc.double({ min: -4000, max: 9000, noNaN: true }),
        fc.double({ min: 0.1, max: 400, noNaN: true }),
        (one, amount, at, further) => {
          const bend = templateBend(one, amount, FROM_BARS);
          expect(bend(at)).toBeLessThan(bend(at + further));
        },
      ),
    );
  });
});

/** One lane with a hit on every sixteenth, for long enough. */
const steadyLane = (feel: Feel, change: Partial<Hit> = {}): Beat => {
  const beat = { ...newBeat('b', 'Ferry', 7), tempo: 120, feel };
  const kick = {
    grid: '1/16',
    steps: 1,
    rate: '1',
    direction: 'forward',
    hits: [{ ...newHit(0), ...change }],
  } as const;
  return {
    ...beat,
    patterns: [{ ...beat.patterns[0]!, parts: { kick: { ...kick, hits: [...kick.hits] } } }],
  };
};
const heard = (beat: Beat, to: number) => notesIn(planLive(beat, beat.patterns[0]!), 0, to);
const humanized = (change: Partial<PlainFeel['humanize']>): Feel => ({
  ...newFeel(),
  humanize: { ...newFeel().humanize, anew: true, ...change },
});
const HITS = 4096;
const offsetsOf = (beat: Beat): number[] =>
  heard(beat, (HITS + 4) * 240)
    .slice(1, HITS + 1)
    .map(({ tick, cycle }) => ms(tick - cycle * 240));
const lag = (values: number[]) => correlation(values.slice(1).map((value, at) => [values[at]!, value]));

describe('humanize', () => {
  test('without drift: mean 0, the spread asked for, no hit knowing of the one before', () => {
    const offsets = offsetsOf(steadyLane(humanized({ timing: 8, drift: 0, seed: 5 })));
    expect(Math.abs(mean(offsets))).toBeLessThan(0.5);
    expect(Math.abs(deviation(offsets) - 8)).toBeLessThan(0.6);
    expect(Math.abs(lag(offsets))).toBeLessThan(0.1);
  });

  test('with all of it drift: errors hang together', () => {
    for (const seed of [1, 5, 9]) {
      const offsets = offsetsOf(steadyLane(humanized({ timing: 8, drift: 1, seed })));
      expect(Math.abs(mean(offsets))).toBeLessThan(3);
      expect(Math.abs(deviation(offsets) - 8)).toBeLessThan(1.5);
      expect(lag(offsets)).toBeGreaterThan(0.35);
    }
  });

  test('velocity has the spread asked for', () => {
    const notes = heard(steadyLane(humanized({ velocity: 6 }), { velocity: 64 }), HITS * 240);
    const velocities = notes.map(({ velocity }) => velocity);
    expect(Math.abs(mean(velocities) - 64)).toBeLessThan(0.5);
    expect(Math.abs(deviation(velocities) - 6)).toBeLessThan(0.5);
  });

  test('the same for every pass repeats itself, anew does not', () => {
    const offsets = (anew: boolean) => {
      const notes = heard(steadyLane(humanized({ timing: 6, anew })), 4 * 3840 + 480);
      return notes.map(({ tick, cycle }) => tick - cycle * 240);
    };
    const same = offsets(false);
    expect(same[5]).toBeCloseTo(same[21]!, 6);
    expect(same[6]).toBeCloseTo(same[38]!, 6);
    const anew = offsets(true);
    expect(Math.abs(anew[5]! - anew[21]!)).toBeGreaterThan(1e-3);
  });

  test('other hits draw as before when one is added', () => {
    const feel = humanized({ timing: 5 });
    const beat = steadyLane(feel);
    const wide = { ...beat.patterns[0]!.parts['kick']!, steps: 16 };
    const withHits = (steps: number[]) => {
      const parts = { kick: { ...wide, hits: steps.map((step) => newHit(step)) } };
      return heard({ ...beat, patterns: [{ ...beat.patterns[0]!, parts }] }, 3840);
    };
    const [few, more] = [withHits([4, 12]), withHits([4, 8, 12])];
    expect(more.find(({ step }) => step === 12)!.tick).toBe(few.find(({ step }) => step === 12)!.tick);
  });

  test('in a loop, drift comes cycle: its last sixteenth is as near to its first as any is to its neighbour', () => {
    fc.assert(
      fc.property(fc.nat(), fc.integer({ min: 2, max: 96 }), (seed, n) => {
        const noise = circularPink(seed, 0, n);
        const values = Array.from({ length: n }, (_, j) => noise(j));
        expect(noise(n)).toBe(values[0]);
        expect(noise(-1)).toBe(values[n - 1]);
        expect(Math.abs(mean(values))).toBeLessThan(0.2);
        expect(Math.abs(deviation(values) - 1)).toBeLessThan(0.2);
        expect(Math.max(...values.map(Math.abs))).toBeLessThanOrEqual(3);
      }),
      { numRuns: 200 },
    );
    expect(circularPink(1, 0, 1)(5)).toBe(0);
    const seams: number[] = [];
    const steps: number[] = [];
    for (let seed = 0; seed < 400; seed++) {
      const noise = circularPink(seed, 0, 16);
      seams.push(Math.abs(noise(15) - noise(16)));
      for (let j = 0; j < 15; j++) steps.push(Math.abs(noise(j) - noise(j + 1)));
    }
    expect(mean(seams) / mean(steps)).toBeGreaterThan(0.8);
    expect(mean(seams) / mean(steps)).toBeLessThan(1.25);
  });

  test('a beat with the first version of what is drawn drifts as it did', () => {
    const loop = steadyLane(humanized({ timing: 2, drift: 1, anew: false, seed: 5 }));
    const offsets = (random: 1 | 2) =>
      heard({ ...loop, random }, 3840)
        .filter(({ moved }) => !moved)
        .map(({ tick, cycle }) => ({ cycle, off: ms(tick - cycle * 240) / 2 }));
    const [pink, circular] = [pinkNoise(5, 0), circularPink(5, 0, 16)];
    expect(offsets(1).length).toBeGreaterThan(14);
    for (const { cycle, off } of offsets(1)) expect(off).toBeCloseTo(pink(cycle % 16), 6);
    for (const { cycle, off } of offsets(2)) expect(off).toBeCloseTo(circular(cycle % 16), 6);
  });

  test('normal and pink noise are centred, of one standard deviation, and held to three', () => {
    const values = Array.from({ length: 9999 }, (_, at) => normal((at + 1) / 10000));
    expect(Math.abs(mean(values))).toBeLessThan(1e-6);
    expect(Math.abs(deviation(values) - 1)).toBeLessThan(0.01);
    expect([normal(0), normal(1e-9), normal(1 - 1e-9)]).toEqual([-3, -3, 3]);
    const pink = pinkNoise(3, 0);
    const drift = Array.from({ length: 20000 }, (_, j) => pink(j));
    expect(Math.abs(deviation(drift) - 1)).toBeLessThan(0.2);
    expect(pink(77)).toBe(pinkNoise(3, 0)(77));
  });
});

describe('ahead and behind, dynamics, lanes of their own', () => {
  const withLane = (lane: PlainFeel['lanes'][string], change: Partial<PlainFeel> = {}): Feel => ({
    ...newFeel(),
    lanes: { kick: lane },
    ...change,
  });

  test('10 ms behind at 90 BPM is 14.4 ticks', () => {
    const beat = { ...steadyLane(withLane({ offset: 10 })), tempo: 90 };
    expect(heard(beat, 100)[0]!.tick).toBeCloseTo(14.4, 9);
  });

  test('contrast 0.5 brings 100 on a lane of mean 80 to 90; the kit is scaled as one', () => {
    const beat = steadyLane(withLane({ contrast: 0.5 }));
    const part = { ...beat.patterns[0]!.parts['kick']!, steps: 2, hits: [newHit(0, 100), newHit(1, 60)] };
    const of = (feel: Feel) =>
      heard({ ...beat, feel, patterns: [{ ...beat.patterns[0]!, parts: { kick: part } }] }, 480).map(
        ({ velocity }) => velocity,
      );
    expect(of(beat.feel)).toEqual([90, 70]);
    expect(of({ ...newFeel(), level: 0.5 })).toEqual([50, 30]);
    expect(of({ ...beat.feel, off: ['dynamics'] })).toEqual([100, 60]);
  });

  test('a lane swings by itself, or not at all', () => {
    const swung = newFeel({ percent: 60, grid: '1/16' });
    const own = withLane({ base: 'swing', swing: { percent: 70, grid: '1/16' } }, { swing: swung.swing });
    expect(heard(steadyLane(own), 480)[1]!.tick).toBeCloseTo(336, 9);
    expect(heard(steadyLane(withLane({ base: 'straight' }, { swing: swung.swing })), 480)[1]!.tick).toBe(240);
    expect(heard(steadyLane({ ...own, off: ['base'] }), 480)[1]!.tick).toBe(240);
  });

  test('a roll bends stroke by stroke, its grace strokes keep their distance', () => {
    const feel = newFeel({ percent: 60, grid: '1/8' });
    const roll = { curve: 0, levels: [1, 1] };
    const beat = steadyLane(feel, { roll, length: 4, grace: [{ before: 20, level: 0.5 }] });
    const part = { ...beat.patterns[0]!.parts['kick']!, steps: 16 };
    const notes = heard(
      {
        ...beat,
        patterns: [
          { ...beat.patterns[0]!, parts: { kick: { ...part, hits: [{ ...part.hits[0]!, step: 2 }] } } },
        ],
      },
      3840,
    );
    expect(notes.map(({ tick }) => Math.round(tick * 10) / 10)).toEqual([537.6, 576, 960]);
  });

  test('blended, a hit stands between the two', () => {
    const a = newFeel({ percent: 50, grid: '1/16' });
    const b = newFeel({ percent: 60, grid: '1/16' });
    const at = (amount: number) =>
      heard(steadyLane({ ...a, blend: { with: b, name: 'B', amount } }), 480)[1]!.tick;
    expect([at(0), at(0.25), at(1)]).toEqual([240, expect.closeTo(252), 288]);
  });
});

test('an edit never leaves its range, and a lane that says nothing of its own is forgotten', () => {
  fc.assert(
    fc.property(feels, fc.double({ min: -500, max: 500, noNaN: true }), (feel, value) => {
      const moved = editFeel(feel, {
        edit: 'setLanes',
        args: { laneIds: ['kick'], change: { offset: value } },
      });
      expect(Math.abs(moved.lanes['kick']!.offset!)).toBeLessThanOrEqual(100);
      const level = editFeel(feel, { edit: 'setLevel', args: { level: value } }).level;
      expect(level >= 0 && level <= 2).toBe(true);
      const { percent } = editFeel(feel, { edit: 'setSwing', args: { change: { percent: value } } }).swing;
      expect(percent >= 40 && percent <= 75).toBe(true);
      expect(moved.blend).toEqual(feel.blend);
    }),
  );
  const one = editFeel(newFeel(), { edit: 'setLanes', args: { laneIds: ['kick'], change: { offset: 4 } } });
  expect(
    editFeel(one, { edit: 'setLanes', args: { laneIds: ['kick'], change: { offset: undefined } } }).lanes,
  ).toEqual({});
  expect(gridTicks('1/16')).toBe(240);
});
