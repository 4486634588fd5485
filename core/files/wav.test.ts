import fc from 'fast-check';
import { newWav, putSamples, wavBytes, type Bits, type WavShape } from './wav';

const word = (bytes: Uint8Array, at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));

/** Samples back out of a file, told apart by what its head says alone. */
const samplesOf = (bytes: Uint8Array): { sides: number[][]; rate: number } => {
  const view = new DataView(bytes.buffer);
  const [kind, channels, rate] = [
    view.getUint16(20, true),
    view.getUint16(22, true),
    view.getUint32(24, true),
  ];
  const bits = view.getUint16(34, true);
  const size = bits / 8;
  const read = (at: number): number => {
    if (kind === 3) return view.getFloat32(at, true);
    if (bits === 16) return view.getInt16(at, true) / 32767;
    return (view.getUint8(at) + view.getInt16(at + 1, true) * 256) / 8388607;
  };
  const frames = view.getUint32(40, true) / (size * channels);
  const sides = Array.from({ length: channels }, (_, side) =>
    Array.from({ length: frames }, (__, frame) => read(44 + (frame * channels + side) * size)),
  );
  return { sides, rate };
};

const samples = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 60 });
const STEP: Record<Bits, number> = { 16: 1 / 32767, 24: 1 / 8388607, 32: 1e-6 };

test('what is put in comes out again, to the step that the depth allows, whatever the pieces', () => {
  fc.assert(
    fc.property(
      samples,
      samples,
      fc.constantFrom<Bits>(16, 24, 32),
      fc.constantFrom(44100, 48000),
      fc.integer({ min: 1, max: 20 }),
      (a, b, bits, rate, piece) => {
        const frames = Math.min(a.length, b.length);
        const shape: WavShape = { rate, channels: 2, bits, frames };
        const bytes = newWav(shape);
        for (let from = 0; from < frames; from += piece) {
          const count = Math.min(piece, frames - from);
          const part = (all: number[]) => Float32Array.from(all.slice(from, from + count));
          putSamples(bytes, shape, from, part(a), part(b), count);
        }
        const back = samplesOf(bytes);
        expect(back.rate).toBe(rate);
        [a, b].forEach((wanted, side) => {
          expect(back.sides[side]).toHaveLength(frames);
          back.sides[side]!.forEach((x, at) =>
            expect(Math.abs(x - wanted[at]!)).toBeLessThanOrEqual(STEP[bits]),
          );
        });
      },
    ),
    { numRuns: 60 },
  );
});

test.each([16, 24, 32] as const)('a file of %i bit says of itself what it is', (bits) => {
  const shape: WavShape = { rate: 48000, channels: 2, bits, frames: 10 };
  const bytes = newWav(shape);
  const view = new DataView(bytes.buffer);
  expect([word(bytes, 0), word(bytes, 8), word(bytes, 12), word(bytes, 36)]).toEqual([
    'RIFF',
    'WAVE',
    'fmt ',
    'data',
  ]);
  expect(bytes.length).toBe(wavBytes(shape));
  expect(view.getUint32(4, true)).toBe(bytes.length - 8);
  expect(view.getUint32(40, true)).toBe(bytes.length - 44);
  expect(view.getUint32(28, true)).toBe((48000 * 2 * bits) / 8);
  expect(view.getUint16(32, true)).toBe((2 * bits) / 8);
});

test('what passes full scale is held at it, but for float, which keeps it', () => {
  const over = Float32Array.from([1.5, -3]);
  const sides = (bits: Bits) => {
    const shape: WavShape = { rate: 44100, channels: 2, bits, frames: 2 };
    const bytes = newWav(shape);
    putSamples(bytes, shape, 0, over, over, 2);
    return samplesOf(bytes).sides[1];
  };
  expect(sides(16)).toEqual([1, -1]);
  expect(sides(24)).toEqual([1, -1]);
  expect(sides(32)).toEqual([1.5, -3]);
});
