import FFT from 'fft.js';
import type { Seconds } from '../units';

/** Taken once: looked up for every sample they would cost more than what they do. */
const { floor, max, min, sqrt } = Math;

/** The spectrum of a sound. */
export interface Spectrum {
  /** The power of each band; the n-th lies at n * `step` Hz. */
  power: Float64Array;
  step: number;
}

const sizeFor = (frames: number): number => 2 ** max(8, Math.ceil(Math.log2(max(1, frames))));

/**
 * The power spectrum of a sound, or of a part of it.
 *
 * @param rate frames a second
 * @param from where the part begins; the part may be no longer than half a minute
 * @example spectrumOf(new Float32Array(256), 8000).power.length // 128
 */
export const spectrumOf = (
  data: Float32Array,
  rate: number,
  from: Seconds = 0,
  seconds: Seconds = Infinity,
): Spectrum => {
  const first = min(data.length, Math.round(from * rate));
  const length = min(data.length - first, seconds === Infinity ? data.length : Math.round(seconds * rate));
  const size = sizeFor(min(length, 30 * rate));
  const fft = new FFT(size);
  const input = new Float64Array(size);
  for (let i = 0; i < min(length, size); i++) input[i] = data[first + i]!;
  const out = fft.createComplexArray();
  fft.realTransform(out, input as unknown as number[]);
  const power = new Float64Array(size / 2);
  for (let band = 0; band < power.length; band++) power[band] = out[2 * band]! ** 2 + out[2 * band + 1]! ** 2;
  return { power, step: rate / size };
};

/**
 * The share of a sound's energy between two frequencies.
 *
 * @param from, to in Hz
 * @returns 0 to 1; 0 for silence
 * @example shareBetween(spectrumOf(new Float32Array(256), 8000), 0, 4000) // 0
 */
export const shareBetween = ({ power, step }: Spectrum, from: number, to: number): number => {
  let [inside, all] = [0, 0];
  power.forEach((value, band) => {
    all += value;
    if (band * step >= from && band * step < to) inside += value;
  });
  return all ? inside / all : 0;
};

/**
 * Where the weight of a spectrum lies: the mean frequency by amplitude, which is heard as brightness.
 *
 * @returns Hz; 0 for silence
 * @example centroidOf(spectrumOf(new Float32Array(256), 8000)) // 0
 */
export const centroidOf = ({ power, step }: Spectrum): number => {
  let [sum, all] = [0, 0];
  power.forEach((value, band) => {
    const level = sqrt(value);
    sum += level * band * step;
    all += level;
  });
  return all ? sum / all : 0;
};

/**
 * How long a sound rings: from its loudest moment until it stays below it by so many decibels, its level smoothed over 5 ms.
 *
 * @param decibels below the loudest
 * @example ringOf(new Float32Array(8), 8000) // 0
 */
export const ringOf = (data: Float32Array, rate: number, decibels = 60): Seconds => {
  const window = max(1, Math.round(rate * 0.005));
  const level = new Float64Array(Math.ceil(data.length / window));
  for (let at = 0; at < data.length; at++) level[floor(at / window)]! += data[at]! ** 2;
  const loudest = level.indexOf(max(...level));
  const least = level[loudest]! * 10 ** (-decibels / 10);
  if (!least) return 0;
  return ((level.findLastIndex((value) => value > least) - loudest) * window) / rate;
};
