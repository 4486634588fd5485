/**
 * Loops of drums that are none of ours, with all that is known of them: for what finds hits, tempo and drums in audio. Each loop
 * has drums of its own, drawn anew: swept sines, struck resonators and filtered noise, dry, at 44.1 kHz.
 */
import type { Audio } from './sample';

export type ForeignDrum = 'kick' | 'snare' | 'hat.closed';
export interface ForeignHit {
  at: number;
  drum: ForeignDrum;
  /** Against the loudest of its kind. */
  level: number;
}
export interface ForeignLoop {
  audio: Audio;
  hits: ForeignHit[];
  bpm: number;
  bars: number;
  seconds: number;
}

const RATE = 44100;

/** A generator of its own (Park and Miller's minimal standard): nothing of what is tested is in it. */
const generator = (seed: number) => {
  let state = (seed * 7919 + 12345) % 2147483647;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
};
type Random = () => number;

const between = (random: Random, low: number, high: number): number => low + random() * (high - low);

/** A two-pole resonator over a signal. */
const resonated = (input: Float32Array, hertz: number, decay: number): Float32Array => {
  const r = Math.exp(-1 / (decay * RATE));
  const a = 2 * r * Math.cos((2 * Math.PI * hertz) / RATE);
  const out = new Float32Array(input.length);
  for (let i = 0; i < input.length; i++)
    out[i] = input[i]! + a * (out[i - 1] ?? 0) - r * r * (out[i - 2] ?? 0);
  return out;
};

const scaled = (data: Float32Array, to: number): Float32Array => {
  const peak = data.reduce((most, value) => Math.max(most, Math.abs(value)), 1e-9);
  return data.map((value) => (value * to) / peak);
};

const kickOf = (random: Random): Float32Array => {
  const [low, drop, fall, ring] = [
    between(random, 45, 62),
    between(random, 60, 180),
    between(random, 0.012, 0.035),
    between(random, 0.09, 0.3),
  ];
  const click = between(random, 0, 0.35);
  let phase = 0;
  return Float32Array.from({ length: Math.round(5 * ring * RATE) }, (_, i) => {
    const t = i / RATE;
    phase += (2 * Math.PI * (low + drop * Math.exp(-t / fall))) / RATE;
    const attack = Math.min(1, t / 0.0015);
    return attack * Math.exp(-t / ring) * Math.sin(phase) + click * (random() - 0.5) * Math.exp(-t / 0.004);
  });
};

const snareOf = (random: Random): Float32Array => {
  const [head, second, ring, wires] = [
    between(random, 170, 240),
    between(random, 1.5, 1.8),
    between(random, 0.04, 0.11),
    between(random, 0.06, 0.16),
  ];
  const noise = between(random, 0.5, 1.4);
  let last = 0;
  return Float32Array.from({ length: Math.round(6 * wires * RATE) }, (_, i) => {
    const t = i / RATE;
    const raw = random() * 2 - 1;
    const bright = raw - 0.6 * last;
    last = raw;
    const tone = Math.sin(2 * Math.PI * head * t) + 0.5 * Math.sin(2 * Math.PI * head * second * t);
    return Math.min(1, t / 0.0006) * (tone * Math.exp(-t / ring) + noise * bright * Math.exp(-t / wires));
  });
};

const hatOf = (random: Random): Float32Array => {
  const ring = between(random, 0.018, 0.07);
  const noise = Float32Array.from({ length: Math.round(7 * ring * RATE) }, () => random() * 2 - 1);
  const metal = [between(random, 7000, 9000), between(random, 9500, 12500), between(random, 13000, 16000)];
  const sum = new Float32Array(noise.length);
  for (const hertz of metal) resonated(noise, hertz, 0.002).forEach((value, i) => (sum[i]! += value));
  // Twice against the sample before: nothing is left of the low end.
  for (let pass = 0; pass < 2; pass++)
    for (let i = sum.length - 1; i > 0; i--) sum[i] = sum[i]! - 0.95 * sum[i - 1]!;
  return sum.map((value, i) => value * Math.exp(-i / RATE / ring));
};

/** The strokes of a bar, in sixteenths: kick, backbeat, hats, ghosts. */
const barOf = (random: Random, style: number, ghosts: boolean): [number, ForeignDrum, number][] => {
  const out: [number, ForeignDrum, number][] = [];
  const loud = () => between(random, 0.75, 1);
  const kicks = [
    [0, 8],
    [0, 6, 8],
    [0, 4, 8, 12],
    [0, 7, 10],
    [0, 3, 8, 11],
    [0, 10],
  ][style % 6]!;
  for (const step of kicks) out.push([step, 'kick', loud()]);
  for (const step of style % 5 === 4 ? [8] : [4, 12]) out.push([step, 'snare', loud()]);
  const every = style % 3 === 1 ? 1 : 2;
  for (let step = 0; step < 16; step += every)
    out.push([step, 'hat.closed', step % 4 === 0 ? loud() : between(random, 0.35, 0.8)]);
  if (ghosts)
    for (const step of [3, 7, 9, 14, 15])
      if (random() < 0.4 && !kicks.includes(step)) out.push([step, 'snare', between(random, 0.12, 0.3)]);
  return out;
};

/** A bass that moves with the kick: a few notes a bar, each a sawtooth through a soft filter. */
const bassOf = (random: Random, bars: number, bar: number, frames: number): Float32Array => {
  const out = new Float32Array(frames);
  for (let at = 0; at < bars * 4; at++) {
    if (random() < 0.3) continue;
    const from = Math.round(((at + (random() < 0.3 ? 0.5 : 0)) * bar * RATE) / 4);
    const hertz = 41.2 * 2 ** (Math.floor(random() * 12) / 12);
    const long = Math.round(between(random, 0.5, 1) * (bar / 4) * RATE);
    let smooth = 0;
    for (let i = 0; i < long && from + i < frames; i++) {
      const t = i / RATE;
      const saw = 2 * ((t * hertz) % 1) - 1;
      smooth += 0.06 * (saw - smooth);
      out[from + i] = smooth * Math.min(1, t / 0.012) * Math.min(1, (long - i) / (0.01 * RATE));
    }
  }
  return scaled(out, 0.5);
};

/**
 * A loop by its number: of 1, 2 or 4 bars, 65 to 180 BPM, straight or swung.
 *
 * @param ghosts softly struck snares between the beats
 * @param bass a bass line below
 */
export const foreignLoop = (number: number, { ghosts = true, bass = false } = {}): ForeignLoop => {
  const random = generator(number + 1);
  for (let i = 0; i < 20; i++) random();
  const bpm = Math.round(65 + ((number * 37) % 116));
  const bars = [1, 2, 2, 4][number % 4]!;
  const swing = number % 4 === 3 ? between(random, 54, 64) : 50;
  const sounds = { kick: kickOf(random), snare: snareOf(random), 'hat.closed': hatOf(random) };
  const loudness = { kick: 0.8, snare: 0.7, 'hat.closed': between(random, 0.18, 0.4) };
  const bar = 240 / bpm;
  const seconds = bars * bar;
  const frames = Math.round(seconds * RATE);
  const data = new Float32Array(frames);
  const hits: ForeignHit[] = [];
  for (let at = 0; at < bars; at++)
    for (const [step, drum, level] of barOf(random, number, ghosts)) {
      const late = step % 2 ? (swing - 50) / 50 : 0;
      const played = at * bar + ((step + late) * bar) / 16 + between(random, -0.004, 0.004);
      const time = Math.max(0, played);
      hits.push({ at: time, drum, level });
      const sound = scaled(sounds[drum], loudness[drum] * level);
      const from = Math.round(time * RATE);
      for (let i = 0; i < sound.length && from + i < frames; i++) data[from + i]! += sound[i]!;
    }
  if (bass) bassOf(random, bars, bar, frames).forEach((value, i) => (data[i]! += value));
  hits.sort((a, b) => a.at - b.at);
  return { audio: { rate: RATE, channels: [scaled(data, 0.9)] }, hits, bpm, bars, seconds };
};

/** A held tone with some movement in its level: nothing in it is struck but its beginning. */
export const heldTone = (number: number): Audio => {
  const random = generator(number + 500);
  const [hertz, depth, rate] = [between(random, 60, 900), between(random, 0, 0.5), between(random, 0.5, 6)];
  const partials = Array.from({ length: 8 }, (_, k) => between(random, 0.2, 1) / (k + 1));
  const data = Float32Array.from({ length: 3 * RATE }, (_, i) => {
    const t = i / RATE;
    const level =
      Math.min(1, t / 0.03, (3 - t) / 0.05) * (1 - depth * (0.5 - 0.5 * Math.cos(2 * Math.PI * rate * t)));
    return (
      level * partials.reduce((sum, one, k) => sum + one * Math.sin(2 * Math.PI * hertz * (k + 1) * t), 0)
    );
  });
  return { rate: RATE, channels: [scaled(data, 0.8)] };
};

/** Hits that fall together are one. */
const APART = 0.03;
export const struckTimes = (hits: readonly ForeignHit[]): number[] =>
  hits.reduce<number[]>(
    (times, { at }) => (times.length && at - times.at(-1)! < APART ? times : [...times, at]),
    [],
  );

/** How many of what was found are hits, and the other way round, each counted once. */
export const matched = (found: readonly number[], wanted: readonly number[], within: number): number => {
  const left = [...wanted];
  return found.filter((time) => {
    const at = left.findIndex((one) => Math.abs(one - time) <= within);
    if (at >= 0) left.splice(at, 1);
    return at >= 0;
  }).length;
};
