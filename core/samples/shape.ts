import { filterAll, type FilterKind } from '../synthesis/dsp';
import type { Lane } from '../document/schema';

/** How a lane changes the sound of its instrument. */
export interface SoundShape {
  /** In semitones. */
  tune: number;
  /** How much of its ringing is left, 1 is all. */
  decay: number;
  /** In Hz. */
  lowPass: number;
  highPass: number;
}

const OPEN = { lowPass: 20000, highPass: 20 } as const;

/**
 * A lane's changes to its sound, as the mixer takes them.
 *
 * @example soundShapeOf({ tune: 2 }) // { tune: 2, decay: 1, lowPass: 20000, highPass: 20 }
 */
export const soundShapeOf = (lane: Pick<Lane, 'tune' | 'decay' | 'lowPass' | 'highPass'>): SoundShape => ({
  tune: lane.tune ?? 0,
  decay: lane.decay ?? 1,
  lowPass: lane.lowPass ?? OPEN.lowPass,
  highPass: lane.highPass ?? OPEN.highPass,
});

/** Whether a shape leaves the sound as it is. @example isPlainShape(soundShapeOf({ decay: 0.5 })) // false */
export const isPlainShape = ({ tune, decay, lowPass, highPass }: SoundShape): boolean =>
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

/** A filter without a peak. */
const filtered = (data: Float32Array, hertz: number, rate: number, kind: FilterKind): Float32Array =>
  filterAll(Float32Array.from(data), kind, hertz, Math.SQRT1_2, rate);

const shaped = (data: Float32Array, shape: SoundShape, rate: number): Float32Array => {
  let out = shape.tune === 0 ? data : tuned(data, shape.tune);
  if (shape.decay < 1) out = damped(out, shape.decay);
  if (shape.lowPass < OPEN.lowPass) out = filtered(out, shape.lowPass, rate, 'lowpass');
  if (shape.highPass > OPEN.highPass) out = filtered(out, shape.highPass, rate, 'highpass');
  return out;
};

/**
 * All layers of a sound, shaped.
 *
 * @param rate frames a second
 * @example shapeLayers([new Float32Array(8)], soundShapeOf({ tune: 12 }), 8000)[0]!.length // 3
 */
export const shapeLayers = (layers: Float32Array[], shape: SoundShape, rate: number): Float32Array[] =>
  layers.map((layer) => shaped(layer, shape, rate));
