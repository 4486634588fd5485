import type { Lane } from '../document/schema';

/** How a lane changes the sound of its instrument. */
export interface Shape {
  /** In semitones. */
  tune: number;
  /** How much of its ringing is left, 1 is all. */
  decay: number;
  /** In Hz. */
  lowPass: number;
  highPass: number;
}

const OPEN = { lowPass: 20000, highPass: 20 } as const;

/** What a lane does to its sound, as the mixer takes it. */
export const shapeOf = (lane: Pick<Lane, 'tune' | 'decay' | 'lowPass' | 'highPass'>): Shape => ({
  tune: lane.tune ?? 0,
  decay: lane.decay ?? 1,
  lowPass: lane.lowPass ?? OPEN.lowPass,
  highPass: lane.highPass ?? OPEN.highPass,
});

/** Whether a shape leaves the sound as it is. */
export const isPlain = ({ tune, decay, lowPass, highPass }: Shape): boolean =>
  tune === 0 && decay >= 1 && lowPass >= OPEN.lowPass && highPass <= OPEN.highPass;

/** Read faster or slower: straight lines between samples. */
const tuned = (data: Float32Array, semitones: number): Float32Array => {
  const ratio = 2 ** (semitones / 12);
  return Float32Array.from({ length: Math.floor((data.length - 1) / ratio) }, (_, at) => {
    const place = at * ratio;
    const below = Math.floor(place);
    return data[below]! + (data[below + 1]! - data[below]!) * (place - below);
  });
};

/** Shorter by a falling envelope over the sound's own length. */
const damped = (data: Float32Array, decay: number): Float32Array => {
  const fall = (6.9 * (1 / decay - 1)) / data.length;
  return data.map((x, at) => x * Math.exp(-fall * at));
};

/**
 * A filter of the second order, without a peak.
 *
 * Coefficients from R. Bristow-Johnson, "Cookbook formulae for audio EQ biquad filter coefficients".
 */
const filtered = (data: Float32Array, hertz: number, rate: number, kind: 'low' | 'high'): Float32Array => {
  const w = (2 * Math.PI * Math.min(hertz, rate * 0.45)) / rate;
  const alpha = Math.sin(w) / (2 * Math.SQRT1_2);
  const a0 = 1 + alpha;
  const edge = kind === 'low' ? 1 - Math.cos(w) : 1 + Math.cos(w);
  const [b0, b1] = [edge / 2 / a0, (kind === 'low' ? edge : -edge) / a0];
  const [a1, a2] = [(-2 * Math.cos(w)) / a0, (1 - alpha) / a0];
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  return data.map((x) => {
    const y = b0 * x + b1 * x1 + b0 * x2 - a1 * y1 - a2 * y2;
    [x2, x1, y2, y1] = [x1, x, y1, y];
    return y;
  });
};

const shaped = (data: Float32Array, shape: Shape, rate: number): Float32Array => {
  let out = shape.tune === 0 ? data : tuned(data, shape.tune);
  if (shape.decay < 1) out = damped(out, shape.decay);
  if (shape.lowPass < OPEN.lowPass) out = filtered(out, shape.lowPass, rate, 'low');
  if (shape.highPass > OPEN.highPass) out = filtered(out, shape.highPass, rate, 'high');
  return out;
};

/** All layers of a sound, shaped. @param rate frames a second */
export const shapeLayers = (layers: Float32Array[], shape: Shape, rate: number): Float32Array[] =>
  layers.map((layer) => shaped(layer, shape, rate));
