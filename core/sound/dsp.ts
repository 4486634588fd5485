/** Small parts that the synthesized drums are made of. Levels are linear, 1 is full scale. */

/**
 * White noise from -1 to 1, a pure function of its place, so that a kit is the same wherever it is made.
 *
 * @example Math.abs(noiseAt(1, 5)) <= 1 // true
 */
export const noiseAt = (seed: number, i: number): number => {
  let h = Math.imul(i + 1, 0x9e3779b1) ^ Math.imul(seed + 1, 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return (h ^ (h >>> 15)) / 2147483648;
};

export type FilterKind = 'lowpass' | 'highpass' | 'bandpass';

/**
 * A second-order filter, after R. Bristow-Johnson's cookbook formulas for audio equalizer biquads.
 *
 * @param frequency in Hz, held below half the sample rate
 * @param q resonance; 0.707 is flat
 * @returns a function from sample to sample
 * @example biquad('highpass', 200, Math.SQRT1_2, 8000)(0) // 0
 */
export const biquad = (
  kind: FilterKind,
  frequency: number,
  q: number,
  rate: number,
): ((x: number) => number) => {
  const w = (2 * Math.PI * Math.min(frequency, rate * 0.45)) / rate;
  const alpha = Math.sin(w) / (2 * q);
  const cos = Math.cos(w);
  const a0 = 1 + alpha;
  const shape = { lowpass: (1 - cos) / 2, highpass: (1 + cos) / 2, bandpass: alpha }[kind];
  const b0 = shape / a0;
  const b1 = (kind === 'lowpass' ? 1 - cos : kind === 'highpass' ? -(1 + cos) : 0) / a0;
  const b2 = (kind === 'bandpass' ? -alpha : shape) / a0;
  const a1 = (-2 * cos) / a0;
  const a2 = (1 - alpha) / a0;
  let x1 = 0;
  let x2 = 0;
  let y1 = 0;
  let y2 = 0;
  return (x) => {
    const y = b0 * x + b1 * x1 + b2 * x2 - a1 * y1 - a2 * y2;
    x2 = x1;
    x1 = x;
    y2 = y1;
    y1 = y;
    return y;
  };
};

/**
 * How far an exponential decay has fallen after `t` seconds; `decay` is the time to a thousandth (60 dB).
 *
 * @example fall(1, 1).toFixed(3) // "0.001"
 */
export const fall = (t: number, decay: number): number => Math.exp((-6.907755 * t) / decay);

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
  const r = Math.exp(-6.907755 / (decay * rate));
  const a = 2 * r * Math.cos(w);
  const b = r * r;
  let y1 = (Math.sin(phase - w) * level) / r;
  let y2 = (Math.sin(phase - 2 * w) * level) / b;
  const length = Math.min(out.length, Math.ceil(decay * 1.2 * rate));
  for (let i = 0; i < length; i++) {
    const y = a * y1 - b * y2;
    out[i]! += y;
    y2 = y1;
    y1 = y;
  }
};

/** Drives a sample softly: 0 leaves it as it is. @example driven(0.5, 0) // 0.5 */
export const driven = (x: number, drive: number): number =>
  drive > 0 ? Math.tanh(x * (1 + drive)) / Math.tanh(1 + drive) : x;

/** Ends a sound without a click and brings its loudest sample to `peak`. */
export const finished = (out: Float32Array, peak: number, rate: number): Float32Array => {
  const tail = Math.min(out.length, Math.round(rate * 0.005));
  for (let i = 0; i < tail; i++) out[out.length - 1 - i]! *= i / tail;
  let most = 0;
  for (const x of out) most = Math.max(most, Math.abs(x));
  if (most > 0) for (let i = 0; i < out.length; i++) out[i]! *= peak / most;
  return out;
};
