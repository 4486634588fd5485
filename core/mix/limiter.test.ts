import fc from 'fast-check';
import { createMixer, mix, type Mixer } from './mixer';

const RATE = 16000;

/** A mixer in which one sound plays, louder on the left. */
const playing = (data: Float32Array, left = 1, right = 0.5): Mixer => {
  const mixer = createMixer(RATE);
  mixer.sounds[0] = [data];
  mixer.queue = [{ frame: 0, sound: 0, layer: 0, left, right, group: 0 }];
  return mixer;
};

const rendered = (mixer: Mixer, length: number, block = length) => {
  const [left, right] = [new Float32Array(length), new Float32Array(length)];
  for (let at = 0; at < length; at += block)
    mix(mixer, left.subarray(at, at + block), right.subarray(at, at + block), at);
  return { left, right };
};

const sine = (level: number, length: number) =>
  Float32Array.from({ length }, (_, at) => level * Math.sin((2 * Math.PI * 200 * at) / RATE));

const loudest = (data: Float32Array) => data.reduce((most, x) => Math.max(most, Math.abs(x)), 0);

describe('the limiter', () => {
  test('leaves alone what stays below its ceiling', () => {
    const data = sine(0.9, 4000);
    expect(rendered(playing(data), 4000).left).toEqual(data);
  });

  test('nothing passes the ceiling, however loud and in whatever blocks; the blocks make no difference', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 40, noNaN: true }),
        fc.constantFrom(64, 100, 128, 2000),
        (level, block) => {
          const whole = rendered(playing(sine(level, 2000)), 2000);
          expect(loudest(whole.left)).toBeLessThanOrEqual(0.9601);
          expect(rendered(playing(sine(level, 2000)), 2000, block).left).toEqual(whole.left);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('keeps the place between the loudspeakers', () => {
    const { left, right } = rendered(playing(sine(6, 2000)), 2000);
    for (let at = 0; at < left.length; at++) expect(right[at]).toBeCloseTo(left[at]! * 0.5, 5);
  });

  test('keeps the shape of what is loud, where a bend would flatten it', () => {
    const { left } = rendered(playing(sine(3, 8000)), 8000);
    // The last waves, once it has taken hold: a sine's root mean square is its peak by the square root of two.
    const waves = left.subarray(8000 - 800);
    const rms = Math.sqrt(waves.reduce((sum, x) => sum + x * x, 0) / waves.length);
    expect(loudest(waves) / rms).toBeCloseTo(Math.SQRT2, 1);
  });

  test('lets go after a peak: what follows is as loud as it was within half a second', () => {
    const data = new Float32Array(RATE).fill(0.5);
    data[10] = 20;
    const { left } = rendered(playing(data), RATE);
    expect(Math.abs(left[10]!)).toBeCloseTo(0.96, 4);
    expect(left[40]!).toBeLessThan(0.1);
    expect(left[RATE / 2]!).toBeCloseTo(0.5, 4);
  });
});
