import type { Layer, Loop, Voice } from '../document/schema';
import type { Seconds } from '../units';
import { driven, filterAll, type FilterKind } from '../synthesis/dsp';
import { kitOf, standIn } from '../synthesis/kits';
import { FORCES, makeSound } from '../synthesis/layers';
import { attackOf, readAt, toRate, type Audio } from './sample';
import { isPlainShape, shapeLayers, type SoundShape } from './shape';
import type { PlannedLayer, Sound } from './voiceSound';

/** Voices and loops of one's own, worked out beforehand: while it plays the mixer only adds up. */

/** Where samples are had from, at any rate; null where one is missing. */
export type LoadSample = (id: string) => Promise<Audio | null>;

/** The buffers a layer is made from: for each force its strikes, for each strike its sides. */
interface Source {
  forces: number;
  strikes: number;
  sides: number;
  buffers: Float32Array[];
}

const FILTERS: Record<NonNullable<Layer['filter']>['pass'], FilterKind> = {
  low: 'lowpass',
  high: 'highpass',
  band: 'bandpass',
};

/** The fade at both ends of a cut, in seconds. */
const EDGE_SECONDS = 0.003;
const START_SECONDS = 0.001;

const ramp = (data: Float32Array, frames: number, atEnd: boolean): void => {
  const length = Math.min(data.length, frames);
  for (let i = 0; i < length; i++) data[atEnd ? data.length - 1 - i : i]! *= i / frames;
};

/** A part of a sound, without a click at its edges. */
const cut = (data: Float32Array, from: Seconds, to: Seconds, rate: number): Float32Array => {
  const first = Math.min(data.length, Math.round(from * rate));
  const last = Math.max(first, Math.min(data.length, Math.round(to * rate)));
  const out = data.slice(first, last);
  if (first > 0) ramp(out, Math.round(START_SECONDS * rate), false);
  if (last < data.length) ramp(out, Math.round(EDGE_SECONDS * rate), true);
  return out;
};

/** It rises over the attack, stays for the hold, and falls by 60 dB over the decay. */
const enveloped = (data: Float32Array, { attack, hold, decay }: Layer, rate: number): Float32Array => {
  const rise = ((attack ?? 0) / 1000) * rate;
  const fall = decay === undefined ? Infinity : rise + ((hold ?? 0) / 1000) * rate;
  const each = decay === undefined ? 1 : Math.exp(-6.907755 / Math.max(1, (decay / 1000) * rate));
  const length =
    decay === undefined ? data.length : Math.min(data.length, Math.ceil(fall + (decay / 1000) * rate * 1.1));
  const out = data.slice(0, length);
  let level = 1;
  for (let i = 0; i < length; i++) {
    if (i < rise) out[i]! *= i / rise;
    if (i < fall) continue;
    out[i]! *= level;
    level *= each;
  }
  if (length < data.length) ramp(out, Math.round(EDGE_SECONDS * rate), true);
  return out;
};

/** The level below the loudest at which a sound counts as over. */
const gated = (data: Float32Array, decibels: number, rate: number): Float32Array => {
  let most = 0;
  for (const x of data) most = Math.max(most, Math.abs(x));
  const least = most * 10 ** (decibels / 20);
  let last = data.length - 1;
  while (last > 0 && Math.abs(data[last]!) < least) last -= 1;
  const out = data.slice(0, Math.min(data.length, last + 1 + Math.round(EDGE_SECONDS * rate)));
  ramp(out, Math.round(EDGE_SECONDS * rate), true);
  return out;
};

/** Two filters of second order one after the other fall by 24 dB an octave; these dampings together stay flat (Butterworth). */
const STEEP = [0.541196, 1.306563];

const filtered = (
  data: Float32Array,
  { pass, hertz, slope, follow }: NonNullable<Layer['filter']>,
  force: number,
  rate: number,
): Float32Array => {
  const at = hertz * 2 ** (-follow * (1 - force));
  for (const q of slope === 24 ? STEEP : [Math.SQRT1_2]) filterAll(data, FILTERS[pass], at, q, rate);
  return data;
};

/** One buffer through all that a layer does, in this order. */
const shaped = (
  data: Float32Array,
  layer: Layer,
  force: number,
  shape: SoundShape,
  rate: number,
): Float32Array => {
  let out = cut(data, layer.start ?? 0, layer.end ?? Infinity, rate);
  if (layer.reverse) out.reverse();
  const tune = (layer.tune ?? 0) + (layer.fine ?? 0) / 100;
  if (tune) out = readAt(out, 2 ** (tune / 12));
  const { drive } = layer;
  if (drive) out = out.map((x) => driven(x, drive));
  if (layer.filter) out = filtered(out, layer.filter, force, rate);
  if (layer.attack || layer.decay !== undefined) out = enveloped(out, layer, rate);
  if (layer.gate !== undefined) out = gated(out, layer.gate, rate);
  return isPlainShape(shape) ? out : shapeLayers([out], shape, rate)[0]!;
};

const forcesOf = (source: Source, layer: Layer): number =>
  source.forces > 1 ? source.forces : layer.filter?.follow ? FORCES.length : 1;

/** A layer's buffers as it shapes them. A filter that follows the velocity makes one for each force. */
const rendered = (source: Source, layer: Layer, shape: SoundShape, rate: number): Source => {
  const forces = forcesOf(source, layer);
  const each = source.strikes * source.sides;
  const buffers = Array.from({ length: forces }, (_, at) =>
    source.buffers
      .slice(source.forces > 1 ? at * each : 0, source.forces > 1 ? (at + 1) * each : each)
      .map((data) => shaped(data, layer, forces > 1 ? FORCES[at]! : 1, shape, rate)),
  ).flat();
  return { ...source, forces, buffers };
};

const drumSource = (kit: string, drum: Parameters<typeof makeSound>[1], rate: number): Source => {
  const there = kitOf(kit);
  const buffers = makeSound(there, standIn(there, drum), rate).layers;
  return { forces: FORCES.length, strikes: buffers.length / FORCES.length, sides: 1, buffers };
};

const sourceOf = async (layer: Layer, load: LoadSample, rate: number): Promise<Source | null> => {
  if ('drum' in layer.source) return drumSource(layer.source.kit, layer.source.drum, rate);
  const audio = await load(layer.source.sample.id);
  if (!audio) return null;
  const { channels } = toRate(audio, rate);
  return { forces: 1, strikes: 1, sides: channels.length, buffers: channels };
};

/** How far after its beginning a layer's attack is: of its hardest strike, unless it was set by hand. */
const leadOf = ({ forces, strikes, sides, buffers }: Source, layer: Layer, rate: number): number => {
  if (layer.lands !== undefined) return Math.round(layer.lands * rate);
  const hardest = (forces - 1) * strikes * sides;
  return attackOf(buffers.slice(hardest, hardest + sides), rate);
};

/** The beginning of a kit's drum is its stroke, no late attack. */
const LEAST_LEAD_SECONDS = 0.001;

/**
 * Renders a voice at a rate. Layers whose sample is missing are left out.
 *
 * @param shape what its lane does to it besides
 * @returns null where none of its layers is there
 */
export const renderVoice = async (
  voice: Voice,
  shape: SoundShape,
  rate: number,
  load: LoadSample,
): Promise<Sound | null> => {
  const buffers: Float32Array[] = [];
  const layers: PlannedLayer[] = [];
  for (const layer of voice.layers) {
    const source = await sourceOf(layer, load, rate);
    if (!source) continue;
    const made = rendered(source, layer, shape, rate);
    const lead = voice.late ? 0 : leadOf(made, layer, rate);
    layers.push({
      low: Math.min(layer.low, layer.high),
      high: Math.max(layer.low, layer.high),
      level: layer.level ?? 1,
      pan: layer.pan ?? 0,
      first: buffers.length,
      forces: made.forces,
      strikes: made.strikes,
      sides: made.sides,
      lead: lead < LEAST_LEAD_SECONDS * rate ? 0 : lead,
    });
    buffers.push(...made.buffers);
  }
  if (!layers.length) return null;
  const { choose, crossFade = 0, held = false, choke } = voice;
  return {
    buffers,
    plan: { choose, crossFade, held, slices: false, ...(choke !== undefined && { choke }), layers },
  };
};

/** Played slower than it was recorded, a slice rings on for so long at the most. */
const RING_SECONDS = 0.12;

/** A slice, and after it its end turned round and fading: there is no sound to go on with but that of the next hit. */
const ringing = (data: Float32Array, from: number, to: number, rate: number): Float32Array => {
  const length = to - from;
  const ring = Math.min(Math.floor(length / 2), Math.round(RING_SECONDS * rate));
  const out = new Float32Array(length + ring);
  out.set(data.subarray(from, to));
  for (let i = 0; i < ring; i++) out[length + i] = data[to - 1 - i]! * (1 - i / ring) ** 2;
  return out;
};

/** Where each slice of a loop is heard, in frames. @example sliceFrames({ marks: [0, 0.5], end: 1 }, 8000) // [[0, 4000], [4000, 8000]] */
export const sliceFrames = ({ marks, end }: Pick<Loop, 'marks' | 'end'>, rate: number): [number, number][] =>
  marks.map((mark, at) => [Math.round(mark * rate), Math.round((marks[at + 1] ?? end) * rate)]);

/** A loop is as loud at this velocity as it was recorded, so that there is room above it. */
const AS_RECORDED = 100;
const LOOP_LEVEL = (127 / AS_RECORDED) ** 1.6;

/**
 * Renders the slices of a loop at a rate.
 *
 * @returns null where its sample is missing
 */
export const renderLoop = async (
  loop: Loop,
  shape: SoundShape,
  rate: number,
  load: LoadSample,
): Promise<Sound | null> => {
  const audio = await load(loop.sample.id);
  if (!audio) return null;
  const { channels } = toRate(audio, rate);
  const buffers: Float32Array[] = [];
  const layers = sliceFrames(loop, rate).map(([from, to], at): PlannedLayer => {
    const first = buffers.length;
    for (const data of channels) {
      const slice = ringing(data, Math.min(from, data.length), Math.min(to, data.length), rate);
      if (loop.reversed?.includes(at)) {
        const whole = data.slice(from, to).reverse();
        ramp(whole, Math.round(START_SECONDS * rate), false);
        ramp(whole, Math.round(EDGE_SECONDS * rate), true);
        buffers.push(whole);
      } else buffers.push(slice);
    }
    return {
      low: 1,
      high: 127,
      level: LOOP_LEVEL,
      pan: 0,
      first,
      forces: 1,
      strikes: 1,
      sides: channels.length,
      lead: 0,
    };
  });
  const all = isPlainShape(shape) ? buffers : shapeLayers(buffers, shape, rate);
  return {
    buffers: all,
    plan: { choose: 'velocity', crossFade: 0, held: false, slices: true, layers },
  };
};
