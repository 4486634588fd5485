import { addRinging, biquad, driven, fall, finished, noiseAt } from './dsp';

/** How hard a layer is struck, above 0 to 1. Harder is brighter, not only louder. */
export type Force = number;

interface Common {
  /** The loudest sample of a full stroke, 0 to 1. */
  peak: number;
  /** Seconds to a thousandth of the level. */
  decay: number;
  seed?: number;
}

/** A skin: a tone that falls onto its pitch, a second mode, and the beater's click. */
export interface Skin extends Common {
  voice: 'skin';
  /** Hz it settles on. */
  pitch: number;
  /** How many times as high it begins. */
  bend: number;
  /** Seconds in which it falls. */
  sweep: number;
  click: number;
  drive: number;
  /** Level of the second mode. */
  mode: number;
}

/** A snare: two modes of the shell and the wires below. */
export interface Snare extends Common {
  voice: 'snare';
  pitch: number;
  wires: number;
  /** Seconds. */
  wireDecay: number;
  /** Hz above which the wires sound. */
  bright: number;
  /** Level of the rim's ring. */
  rim: number;
}

/** Several hands that do not meet quite at once. */
export interface Clap extends Common {
  voice: 'clap';
  /** Hz. */
  colour: number;
  /** Seconds between hands. */
  apart: number;
}

/** Inharmonic partials and a hiss: hats, cymbals, bells. */
export interface Metal extends Common {
  voice: 'metal';
  /** Hz of the lowest partial, and of the highest. */
  low: number;
  high: number;
  partials: number;
  hiss: number;
  /** Hz below which nothing is left. */
  cut: number;
  /** Level of a clear tone on top, and its Hz. */
  ping: number;
  pitch: number;
  /** Seconds in which it swells. */
  swell: number;
}

/** A few clear short modes: wood, a rim, a small bell. */
export interface Wood extends Common {
  voice: 'wood';
  /** Hz of each mode. */
  modes: number[];
  click: number;
}

/** Grains in a shell, moved there and back. */
export interface Shaken extends Common {
  voice: 'shaken';
  /** Hz of the grains' colour. */
  colour: number;
  /** Seconds from the first movement to the accent. */
  rise: number;
  jingle: number;
}

export type Recipe = Skin | Snare | Clap | Metal | Wood | Shaken;

const TAU = 2 * Math.PI;

const blank = (seconds: number, rate: number): Float32Array => new Float32Array(Math.ceil(seconds * rate));

const skin = (r: Skin, force: Force, rate: number): Float32Array => {
  const out = blank(r.decay, rate);
  const snap = biquad('highpass', 900 + 2600 * force, 0.7, rate);
  const bend = 1 + (r.bend - 1) * (0.55 + 0.45 * force);
  let phase = 0;
  let second = 0;
  for (let i = 0; i < out.length; i++) {
    const t = i / rate;
    const pitch = r.pitch * (1 + (bend - 1) * Math.exp(-t / r.sweep));
    phase += (TAU * pitch) / rate;
    second += (TAU * pitch * 1.593) / rate;
    const body = Math.sin(phase) * fall(t, r.decay) * Math.min(1, t / 0.0008);
    const mode = Math.sin(second) * r.mode * fall(t, r.decay * 0.4);
    const click = snap(noiseAt(r.seed ?? 1, i)) * r.click * force * force * Math.exp(-t / 0.0025);
    out[i] = driven(body + mode + click, r.drive * force);
  }
  return out;
};

const snare = (r: Snare, force: Force, rate: number): Float32Array => {
  const out = blank(Math.max(r.decay, r.wireDecay), rate);
  const wires = biquad('highpass', r.bright, 0.7, rate);
  const air = biquad('lowpass', 3200 + 9000 * force, 0.7, rate);
  for (let i = 0; i < out.length; i++) {
    const t = i / rate;
    const drop = 1 + 0.35 * Math.exp(-t / 0.012);
    const shell =
      Math.sin(TAU * r.pitch * drop * t) * fall(t, r.decay) +
      0.55 * Math.sin(TAU * r.pitch * 1.78 * t + 0.4) * fall(t, r.decay * 0.6);
    const rim =
      r.rim *
      force *
      (Math.sin(TAU * 1130 * t) * fall(t, 0.09) + 0.6 * Math.sin(TAU * 2710 * t) * fall(t, 0.05));
    const rattle = air(wires(noiseAt(r.seed ?? 2, i)));
    const level = r.wires * (0.5 + 0.5 * force) * (0.75 * fall(t, r.wireDecay) + 0.6 * fall(t, 0.03));
    out[i] = driven((shell + rim + rattle * level * 1.6) * 0.6 * Math.min(1, t / 0.0004), 0.5 * force);
  }
  return out;
};

const HANDS = [0, 1, 1.9, 3.1];

const clap = (r: Clap, force: Force, rate: number): Float32Array => {
  const out = blank(r.decay + 4 * r.apart, rate);
  const colour = biquad('bandpass', r.colour, 1.1, rate);
  const air = biquad('highpass', r.colour * 0.6, 0.7, rate);
  const top = biquad('lowpass', 2600 + 8000 * force, 0.7, rate);
  for (let i = 0; i < out.length; i++) {
    const t = i / rate;
    let level = 0;
    for (const hand of HANDS) {
      const since = t - hand * r.apart;
      if (since >= 0) level = Math.max(level, Math.exp(-since / (hand === 3.1 ? r.decay / 6.9 : 0.004)));
    }
    const x = noiseAt(r.seed ?? 3, i);
    out[i] = top(colour(x) * 1.6 + air(x) * 0.25) * level;
  }
  return out;
};

const ringing = (r: Metal, force: Force, rate: number, out: Float32Array): void => {
  const seed = r.seed ?? 4;
  for (let k = 0; k < r.partials; k++) {
    const along = (k + 0.5 + 0.45 * noiseAt(seed, 9000 + k)) / r.partials;
    const level = (0.6 + 0.4 * noiseAt(seed, 9200 + k)) * Math.pow(0.35 + 0.65 * force, 3 * along);
    addRinging(out, rate, {
      frequency: r.low * Math.pow(r.high / r.low, along),
      phase: Math.PI * noiseAt(seed, 9100 + k),
      level: (0.9 * level) / Math.sqrt(r.partials),
      decay: r.decay * (1.05 - 0.55 * along),
    });
  }
};

const metal = (r: Metal, force: Force, rate: number): Float32Array => {
  const out = blank(r.decay, rate);
  const seed = r.seed ?? 4;
  ringing(r, force, rate, out);
  const pings = blank(r.decay, rate);
  if (r.ping) addRinging(pings, rate, { frequency: r.pitch, phase: 0, level: r.ping, decay: r.decay * 0.7 });
  const low = biquad('highpass', r.cut, 0.7, rate);
  const hiss = biquad('bandpass', 6500 + 3500 * force, 0.6, rate);
  const fades = Math.exp(-6.907755 / (r.decay * 0.8 * rate));
  let level = r.hiss * 2 * force;
  for (let i = 0; i < out.length; i++) {
    const t = i / rate;
    level *= fades;
    const x = out[i]! + hiss(noiseAt(seed, i)) * level;
    const tick = t < 0.02 ? noiseAt(seed + 1, i) * 0.5 * force * Math.exp(-t / 0.0012) : 0;
    const swell = r.swell > 0 ? 0.45 + 0.55 * Math.min(1, t / r.swell) : 1;
    out[i] = low(x * swell + pings[i]! + tick) * Math.min(1, t / 0.0003);
  }
  return out;
};

const wood = (r: Wood, force: Force, rate: number): Float32Array => {
  const out = blank(r.decay, rate);
  const snap = biquad('bandpass', 1800 + 3200 * force, 0.8, rate);
  for (let i = 0; i < out.length; i++) {
    const t = i / rate;
    let x = snap(noiseAt(r.seed ?? 5, i)) * r.click * 2.5 * force * Math.exp(-t / 0.0018);
    r.modes.forEach((mode, k) => {
      x += (Math.sin(TAU * mode * t) * fall(t, r.decay / (1 + 0.5 * k)) * (k ? force : 1)) / (1 + k);
    });
    out[i] = x * Math.min(1, t / 0.0003);
  }
  return out;
};

const JINGLES = [4190, 5530, 6710, 7950, 9120];

const shaken = (r: Shaken, force: Force, rate: number): Float32Array => {
  const out = blank(r.decay + r.rise, rate);
  const grains = biquad('bandpass', r.colour * (0.8 + 0.3 * force), 0.9, rate);
  const air = biquad('highpass', r.colour * 0.5, 0.7, rate);
  for (let i = 0; i < out.length; i++) {
    const t = i / rate;
    const before = t < r.rise ? 0.35 * Math.pow(t / r.rise, 2) : 0;
    const level = t < r.rise ? before : fall(t - r.rise, r.decay);
    let x = air(grains(noiseAt(r.seed ?? 6, i)));
    if (r.jingle) for (const f of JINGLES) x += (r.jingle / 5) * Math.sin(TAU * f * t) * (0.4 + 0.6 * force);
    out[i] = x * level;
  }
  return out;
};

const shape = (recipe: Recipe, force: Force, rate: number): Float32Array => {
  switch (recipe.voice) {
    case 'skin':
      return skin(recipe, force, rate);
    case 'snare':
      return snare(recipe, force, rate);
    case 'clap':
      return clap(recipe, force, rate);
    case 'metal':
      return metal(recipe, force, rate);
    case 'wood':
      return wood(recipe, force, rate);
    case 'shaken':
      return shaken(recipe, force, rate);
  }
};

/**
 * One drum struck once.
 *
 * @param force above 0 to 1
 * @param rate frames a second
 * @returns one channel; its loudest sample is the recipe's peak whatever the force, the mixer sets the level
 */
export const strike = (recipe: Recipe, force: Force, rate: number): Float32Array =>
  finished(shape(recipe, force, rate), recipe.peak, rate);
