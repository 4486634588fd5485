/** Small parts that the synthesized drums are made of. Levels are linear, 1 is full scale. */

/** Taken once: looked up for every sample they would cost more than what they do. */
const { abs, exp, imul, max, min, sin, tanh } = Math;

/**
 * White noise from -1 to 1, a pure function of its place, so that a kit is the same wherever it is made.
 *
 * @example Math.abs(noiseAt(1, 5)) <= 1 // true
 */
export const noiseAt = (seed: number, i: number): number => {
  let h = imul(i + 1, 0x9e3779b1) ^ imul(seed + 1, 0x85ebca6b);
  h = imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = imul(h ^ (h >>> 12), 0x297a2d39);
  return (h ^ (h >>> 15)) / 2147483648;
};

export type FilterKind = 'lowpass' | 'highpass' | 'bandpass';

/** The coefficients of a second-order filter, after R. Bristow-Johnson's cookbook for audio equalizers. */
const coefficients = (kind: FilterKind, frequency: number, q: number, rate: number) => {
  const w = (2 * Math.PI * min(frequency, rate * 0.45)) / rate;
  const alpha = sin(w) / (2 * q);
  const cos = Math.cos(w);
  const a0 = 1 + alpha;
  const shape = { lowpass: (1 - cos) / 2, highpass: (1 + cos) / 2, bandpass: alpha }[kind];
  return {
    b0: shape / a0,
    b1: (kind === 'lowpass' ? 1 - cos : kind === 'highpass' ? -(1 + cos) : 0) / a0,
    b2: (kind === 'bandpass' ? -alpha : shape) / a0,
    a1: (-2 * cos) / a0,
    a2: (1 - alpha) / a0,
  };
};

/**
 * Filters a sound in its place. A whole sound at once is many times as fast as sample by sample.
 *
 * @param frequency in Hz, held below half the sample rate
 * @param q resonance; 0.707 is flat
 * @returns what was given
 * @example filterAll(new Float32Array(8), 'highpass', 200, Math.SQRT1_2, 8000).length // 8
 */
export const filterAll = (
  data: Float32Array,
  kind: FilterKind,
  frequency: number,
  q: number,
  rate: number,
): Float32Array => {
  const { b0, b1, b2, a1, a2 } = coefficients(kind, frequency, q, rate);
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  for (let at = 0; at < data.length; at++) {
    const x = data[at]!;
    const y = b0 * x + b1 * x1 + b2 * x2 - a1 * y1 - a2 * y2;
    x2 = x1;
    x1 = x;
    y2 = y1;
    y1 = y;
    data[at] = y;
  }
  return data;
};

/** So many samples of noise. @example noise(1, 4).length // 4 */
export const noise = (seed: number, length: number): Float32Array => {
  const out = new Float32Array(length);
  for (let at = 0; at < length; at++) out[at] = noiseAt(seed, at);
  return out;
};

/**
 * By what an exponential decay is multiplied from sample to sample; `decay` is the time to a thousandth (60 dB).
 *
 * @example fades(1, 8000) ** 8000 < 0.0011 // true
 */
export const fades = (decay: number, rate: number): number => exp(-6.907755 / (decay * rate));

/**
 * How far an exponential decay has fallen after `t` seconds; `decay` is the time to a thousandth (60 dB).
 *
 * @example fall(1, 1).toFixed(3) // "0.001"
 */
export const fall = (t: number, decay: number): number => exp((-6.907755 * t) / decay);

/**
 * Adds a ringing tone: a damped sine, by the two-term recurrence of its samples (`y = 2r cos(w) y' - r^2 y''`), which is
 * many times as fast as a sine a sample.
 *
 * @param frequency in Hz
 * @param decay seconds to a thousandth of the level
 */
export const addRinging = (
  out: Float32Array,
  rate: number,
  { frequency, phase, level, decay }: { frequency: number; phase: number; level: number; decay: number },
): void => {
  const w = (2 * Math.PI * frequency) / rate;
  const r = exp(-6.907755 / (decay * rate));
  const a = 2 * r * Math.cos(w);
  const b = r * r;
  let y1 = (sin(phase - w) * level) / r;
  let y2 = (sin(phase - 2 * w) * level) / b;
  const length = min(out.length, Math.ceil(decay * 1.2 * rate));
  for (let i = 0; i < length; i++) {
    const y = a * y1 - b * y2;
    out[i]! += y;
    y2 = y1;
    y1 = y;
  }
};

/** Drives a sample softly: 0 leaves it as it is. @example driven(0.5, 0) // 0.5 */
export const driven = (x: number, drive: number): number =>
  drive > 0 ? tanh(x * (1 + drive)) / tanh(1 + drive) : x;

/** Below this nothing is heard: it would only push the sum off its middle. */
const LOWEST = 16;
/** So softly it begins, in seconds: too short to be heard, long enough not to click. */
const HEAD = 0.0002;

/** Begins and ends a sound without a click, takes what it has of a constant, and brings its loudest sample to `peak`. */
export const finished = (out: Float32Array, peak: number, rate: number): Float32Array => {
  const head = min(out.length, HEAD * rate);
  for (let i = 0; i < head; i++) out[i]! *= i / (HEAD * rate);
  filterAll(out, 'highpass', LOWEST, Math.SQRT1_2, rate);
  const tail = min(out.length, Math.round(rate * 0.005));
  for (let i = 0; i < tail; i++) out[out.length - 1 - i]! *= i / tail;
  let most = 0;
  for (let i = 0; i < out.length; i++) most = max(most, abs(out[i]!));
  if (most > 0) for (let i = 0; i < out.length; i++) out[i]! *= peak / most;
  return out;
};
