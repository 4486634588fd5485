import fc from 'fast-check';
import { addRinging, driven, fades, fall, filterAll, finished, noise, noiseAt, type FilterKind } from './dsp';

const RATE = 48000;

/** How loud a sine of a frequency comes out of a filter, once it has settled; 1 is as loud as it went in. */
const gainOf = (kind: FilterKind, corner: number, frequency: number): number => {
  const sine = Float32Array.from({ length: RATE / 4 }, (_, i) =>
    Math.sin((2 * Math.PI * frequency * i) / RATE),
  );
  const settled = filterAll(sine, kind, corner, Math.SQRT1_2, RATE).subarray(RATE / 8);
  return settled.reduce((most, y) => Math.max(most, Math.abs(y)), 0);
};

const corners = fc.integer({ min: 200, max: 4000 });

test('a low-pass lets through what is far below its corner, halves the power at it, and takes off what is above', () => {
  fc.assert(
    fc.property(corners, (corner) => {
      expect(gainOf('lowpass', corner, corner / 16)).toBeCloseTo(1, 1);
      expect(gainOf('lowpass', corner, corner)).toBeCloseTo(Math.SQRT1_2, 1);
      expect(gainOf('lowpass', corner, corner * 4)).toBeLessThan(0.1);
    }),
    { numRuns: 8 },
  );
});

test('a high-pass is its mirror', () => {
  fc.assert(
    fc.property(corners, (corner) => {
      expect(gainOf('highpass', corner, corner * 4)).toBeCloseTo(1, 1);
      expect(gainOf('highpass', corner, corner)).toBeCloseTo(Math.SQRT1_2, 1);
      expect(gainOf('highpass', corner, corner / 4)).toBeLessThan(0.1);
    }),
    { numRuns: 8 },
  );
});

test('a band-pass is loudest at its middle', () => {
  fc.assert(
    fc.property(corners, (corner) => {
      const middle = gainOf('bandpass', corner, corner);
      expect(middle).toBeCloseTo(1, 1);
      for (const times of [1 / 4, 4])
        expect(gainOf('bandpass', corner, corner * times)).toBeLessThan(middle / 2);
    }),
    { numRuns: 8 },
  );
});

test('a filter stays stable where its corner lies beyond what the rate can carry', () => {
  const out = filterAll(noise(1, RATE), 'lowpass', 90000, 8, RATE);
  expect(out.every((x) => Math.abs(x) < 50)).toBe(true);
});

test('noise is the same wherever it is made, lies within full scale, and has neither bias nor echo', () => {
  const all = Array.from({ length: 20000 }, (_, i) => noiseAt(7, i));
  expect(all.slice(100, 110)).toEqual(Array.from({ length: 10 }, (_, i) => noiseAt(7, 100 + i)));
  expect(Math.max(...all.map(Math.abs))).toBeLessThanOrEqual(1);
  const mean = (values: number[]) => values.reduce((sum, x) => sum + x, 0) / values.length;
  expect(Math.abs(mean(all))).toBeLessThan(0.02);
  expect(mean(all.map((x) => x * x))).toBeCloseTo(1 / 3, 1);
  for (const lag of [1, 2, 48]) {
    const echo = mean(all.slice(lag).map((x, i) => x * all[i]!));
    expect(Math.abs(echo)).toBeLessThan(0.02);
  }
  expect(noiseAt(8, 100)).not.toBe(noiseAt(7, 100));
});

test('a ringing tone is the damped sine that it stands for', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 60, max: 6000 }),
      fc.double({ min: 0, max: 6, noNaN: true }),
      fc.double({ min: 0.05, max: 0.6, noNaN: true }),
      (frequency, phase, decay) => {
        const out = new Float32Array(4000);
        addRinging(out, RATE, { frequency, phase, level: 0.8, decay });
        const length = Math.min(out.length, Math.ceil(decay * 1.2 * RATE));
        for (let i = 0; i < length; i += 37) {
          const t = i / RATE;
          const wanted = 0.8 * fall(t, decay) * Math.sin(2 * Math.PI * frequency * t + phase);
          expect(Math.abs(out[i]! - wanted)).toBeLessThan(1e-3);
        }
      },
    ),
    { numRuns: 40 },
  );
});

test('a decay has fallen to a thousandth after its time', () => {
  expect(fall(0, 0.3)).toBe(1);
  expect(fall(0.3, 0.3)).toBeCloseTo(0.001, 5);
});

test('drive keeps full scale and the sign, is louder in between, and 0 leaves it alone', () => {
  fc.assert(
    fc.property(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: 0.1, max: 8 }), (x, drive) => {
      expect(driven(x, 0)).toBe(x);
      expect(Math.abs(driven(x, drive))).toBeLessThanOrEqual(1 + 1e-12);
      expect(Math.abs(driven(x, drive))).toBeGreaterThanOrEqual(Math.abs(x) - 1e-12);
      expect(driven(-x, drive)).toBeCloseTo(-driven(x, drive), 12);
    }),
  );
  expect(driven(1, 3)).toBeCloseTo(1, 12);
});

test('a finished sound has its peak and ends in silence; silence stays silence', () => {
  const sound = finished(
    Float32Array.from({ length: 4800 }, (_, i) => noiseAt(3, i) * 0.2),
    0.9,
    RATE,
  );
  expect(Math.max(...sound.map(Math.abs))).toBeCloseTo(0.9, 5);
  expect(Math.abs(sound.at(-1)!)).toBe(0);
  expect([...finished(new Float32Array(10), 0.9, RATE)]).toEqual(new Array(10).fill(0));
});

test('a fall, and by what it is multiplied from sample to sample, are one', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 5, noNaN: true }),
      fc.integer({ min: 1, max: 4000 }),
      (decay, at) => {
        expect(fades(decay, RATE) ** at).toBeCloseTo(fall(at / RATE, decay), 6);
      },
    ),
  );
});
