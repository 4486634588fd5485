import { roomOf, withRoom } from './finish';

const RATE = 48000;

/** How much of a frequency there is in a part of a sound. */
const partOf = (data: Float32Array, from: number, to: number, frequency: number): number => {
  let [re, im] = [0, 0];
  for (let i = Math.round(from * RATE); i < to * RATE; i++) {
    re += data[i]! * Math.cos((2 * Math.PI * frequency * i) / RATE);
    im += data[i]! * Math.sin((2 * Math.PI * frequency * i) / RATE);
  }
  return Math.hypot(re, im);
};

const decibels = (ratio: number): number => 20 * Math.log10(ratio);

/** Over a band, so that the room's own comb does not count. */
const bandOf = (data: Float32Array, from: number, to: number, around: number): number => {
  let sum = 0;
  for (let at = 0; at < 24; at++) sum += partOf(data, from, to, around * (0.9 + at / 120)) ** 2;
  return Math.sqrt(sum / 24);
};

const clap = Float32Array.of(1);
const room = (seconds: number, dark: number) => roomOf(clap, { room: { seconds, level: 1, dark } }, RATE)!;

test('what is low rings for as long as the room says: 60 dB in so many seconds', () => {
  for (const seconds of [0.5, 1]) {
    const out = room(seconds, 20_000);
    const fall = decibels(
      bandOf(out, seconds * 0.6, seconds * 0.8, 300) / bandOf(out, seconds * 0.1, seconds * 0.3, 300),
    );
    // Half of its time is half of its fall.
    expect(Math.abs(fall + 30)).toBeLessThan(4);
  }
});

test('a darker room loses its highs, and they fall faster than the lows', () => {
  const highs = (dark: number) => {
    const out = room(0.8, dark);
    return decibels(bandOf(out, 0.2, 0.4, 8000) / bandOf(out, 0.2, 0.4, 300));
  };
  expect(highs(2000)).toBeLessThan(highs(5000) - 6);
  expect(highs(5000)).toBeLessThan(highs(20_000) - 6);
});

test('it comes after the walls are reached, as loud as its level, beside the sound itself', () => {
  const out = room(0.5, 5000);
  // The nearest wall is 29.7 ms away.
  expect(Math.max(...out.subarray(0, Math.floor(0.029 * RATE)).map(Math.abs))).toBe(0);
  const half = roomOf(clap, { room: { seconds: 0.5, level: 0.5, dark: 5000 } }, RATE)!;
  expect(half[3000]).toBeCloseTo(out[3000]! / 2, 9);
  const both = withRoom(clap, out);
  expect(both[0]).toBe(1);
  expect([...both.subarray(1)]).toEqual([...out.subarray(1)]);
});
