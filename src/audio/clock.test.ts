import fc from 'fast-check';
import { newClock, type ReadClock } from './clock';

/** A context whose buffers of some 10 ms are told at odd moments, as browsers tell them. */
const contextAt = (now: () => number, ahead: number, scatter: () => number): ReadClock => ({
  currentTime: 0,
  outputLatency: 0.02,
  baseLatency: 0.01,
  getOutputTimestamp: () => {
    const told = now() - scatter();
    return { performanceTime: told, contextTime: (told - ahead) / 1000 };
  },
});

test('the moment of an event is told to the clock within a millisecond, whatever one reading says', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 5000, noNaN: true }),
      fc.array(fc.double({ min: -4, max: 4, noNaN: true }), { minLength: 31, maxLength: 60 }),
      (ahead, noise) => {
        const clock = newClock();
        const even = noise.flatMap((one) => [one, -one]);
        for (const one of even) {
          const now = 10000;
          clock.read(
            {
              ...contextAt(
                () => now,
                ahead + one,
                () => 0,
              ),
            },
            now,
          );
        }
        const spread = Math.max(...even.map(Math.abs));
        const heard =
          clock.heardAt(
            contextAt(
              () => 10000,
              ahead,
              () => 0,
            ),
            9000,
          ) * 1000;
        expect(Math.abs(heard - (9000 - ahead))).toBeLessThanOrEqual(spread);
      },
    ),
  );
});

test('without a time of what is put out, the latency that is told counts', () => {
  const now = performance.now();
  const context = { currentTime: 3, outputLatency: 0.02, baseLatency: 0.01 };
  expect(newClock().heardAt(context, now)).toBeCloseTo(2.98, 2);
  expect(newClock().heardAt({ ...context, outputLatency: 0 }, now)).toBeCloseTo(2.99, 2);
  const silent = { ...context, getOutputTimestamp: () => ({ contextTime: 0, performanceTime: 0 }) };
  expect(newClock().heardAt(silent, now)).toBeCloseTo(2.98, 2);
});

test('after a break in the sound the old readings no longer count', () => {
  const clock = newClock();
  for (let at = 0; at < 40; at++)
    clock.read(
      contextAt(
        () => 5000,
        100,
        () => 0,
      ),
    );
  clock.read(
    contextAt(
      () => 5000,
      900,
      () => 0,
    ),
  );
  expect(
    clock.heardAt(
      contextAt(
        () => 5000,
        900,
        () => 0,
      ),
      5000,
    ) * 1000,
  ).toBeCloseTo(4100, 6);
});

test('a dropped buffer of 10 ms counts after five readings that agree, a late word now and then does not', () => {
  const clock = newClock();
  const read = (ahead: number) =>
    clock.read(
      contextAt(
        () => 5000,
        ahead,
        () => 0,
      ),
    );
  const heard = (ahead: number) =>
    clock.heardAt(
      contextAt(
        () => 5000,
        ahead,
        () => 0,
      ),
      5000,
    ) * 1000;
  for (let at = 0; at < 40; at++) read(at % 6 ? 100 : 107.5);
  expect(heard(100)).toBeCloseTo(4900, 6);
  for (let at = 0; at < 4; at++) read(110);
  expect(heard(110)).toBeCloseTo(4890, 6);
});
