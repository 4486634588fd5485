import { addRinging, driven, fades, filterAll, finished, noise, noiseAt } from './dsp';
import { asInKit, roomOf, withRoom } from './finish';
import type { Finish } from './kits/kit';

/** Taken once: looked up for every sample they would cost more than what they do. */
const { abs, exp, max, min, sin } = Math;

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

/** Something drawn over a skin, a tarp or a string of things: a noise that comes and goes. */
export interface Swish extends Common {
  voice: 'swish';
  /** Hz of its colour at the beginning, and at the end. */
  colour: number;
  towards: number;
  /** Seconds until it is loudest. */
  rise: number;
  /** How rough it is: 0 a breath, 1 wires on a coated skin. */
  rough: number;
  /** Level of the tap with which it begins. */
  tap: number;
}

export type Recipe = Skin | Snare | Clap | Metal | Wood | Shaken | Swish;

const TAU = 2 * Math.PI;

const blank = (seconds: number, rate: number): Float32Array => new Float32Array(Math.ceil(seconds * rate));

/** Noise that is filtered, so long as it is heard. */
const colouredNoise = (
  seed: number,
  length: number,
  rate: number,
  ...filters: [Parameters<typeof filterAll>[1], number, number][]
): Float32Array => {
  const out = noise(seed, length);
  for (const [kind, hertz, q] of filters) filterAll(out, kind, hertz, q, rate);
  return out;
};

/** After so many times its time constant nothing is left of a click. */
const OVER = 9;

/** Adds a knock: noise that is gone after some milliseconds. */
const addKnock = (
  out: Float32Array,
  knock: Float32Array,
  level: number,
  seconds: number,
  rate: number,
): void => {
  const fade = exp(-1 / (seconds * rate));
  let now = level;
  for (let i = 0; i < min(out.length, knock.length); i++) {
    out[i]! += knock[i]! * now;
    now *= fade;
  }
};

const framesOf = (seconds: number, rate: number): number => Math.ceil(seconds * rate);

const skin = (r: Skin, force: Force, rate: number): Float32Array => {
  const out = blank(r.decay, rate);
  const bend = 1 + (r.bend - 1) * (0.55 + 0.45 * force);
  const [falls, modeFalls, sweeps] = [
    fades(r.decay, rate),
    fades(r.decay * 0.4, rate),
    exp(-1 / (r.sweep * rate)),
  ];
  let [phase, level, modeLevel, sweep] = [0, 1, r.mode, bend - 1];
  const turn = (TAU * r.pitch) / rate;
  for (let i = 0; i < out.length; i++) {
    phase += turn * (1 + sweep);
    out[i] = sin(phase) * level * min(1, i / (0.0008 * rate));
    if (modeLevel > 1e-5) out[i]! += sin(1.593 * phase) * modeLevel;
    level *= falls;
    modeLevel *= modeFalls;
    sweep *= sweeps;
  }
  const length = min(out.length, framesOf(0.0025 * OVER, rate));
  const knock = colouredNoise(r.seed ?? 1, length, rate, ['highpass', 900 + 2600 * force, 0.7]);
  addKnock(out, knock, r.click * force * force, 0.0025, rate);
  const drive = r.drive * force;
  if (drive > 0) for (let i = 0; i < out.length; i++) out[i] = driven(out[i]!, drive);
  return out;
};

const snare = (r: Snare, force: Force, rate: number): Float32Array => {
  const out = blank(max(r.decay, r.wireDecay), rate);
  const rattle = colouredNoise(
    r.seed ?? 2,
    out.length,
    rate,
    ['highpass', r.bright, 0.7],
    ['lowpass', 3200 + 9000 * force, 0.7],
  );
  const shellFalls = fades(r.decay, rate);
  const upperFalls = fades(r.decay * 0.6, rate);
  const [wiresFall, snapFall] = [fades(r.wireDecay, rate), fades(0.03, rate)];
  const drops = exp(-1 / (0.012 * rate));
  let [shell, upper, wires, snap, drop] = [1, 0.55, 0.75, 0.6, 0.35];
  const level = r.wires * (0.5 + 0.5 * force) * 1.6;
  for (let i = 0; i < out.length; i++) {
    const t = i / rate;
    out[i] =
      sin(TAU * r.pitch * (1 + drop) * t) * shell +
      sin(TAU * r.pitch * 1.78 * t + 0.4) * upper +
      rattle[i]! * level * (wires + snap);
    shell *= shellFalls;
    upper *= upperFalls;
    wires *= wiresFall;
    snap *= snapFall;
    drop *= drops;
  }
  if (r.rim) {
    addRinging(out, rate, { frequency: 1130, phase: 0, level: r.rim * force, decay: 0.09 });
    addRinging(out, rate, { frequency: 2710, phase: 0, level: 0.6 * r.rim * force, decay: 0.05 });
  }
  for (let i = 0; i < out.length; i++)
    out[i] = driven(out[i]! * 0.6 * min(1, i / (0.0004 * rate)), 0.5 * force);
  return out;
};

const HANDS = [0, 1, 1.9, 3.1];

const clap = (r: Clap, force: Force, rate: number): Float32Array => {
  const out = blank(r.decay + 4 * r.apart, rate);
  const top = 2600 + 8000 * force;
  const x = noise(r.seed ?? 3, out.length);
  const colour = filterAll(Float32Array.from(x), 'bandpass', r.colour, 1.1, rate);
  const air = filterAll(x, 'highpass', r.colour * 0.6, 0.7, rate);
  for (let i = 0; i < out.length; i++) out[i] = colour[i]! * 1.6 + air[i]! * 0.25;
  filterAll(out, 'lowpass', top, 0.7, rate);
  const levels = new Float32Array(out.length);
  for (const hand of HANDS) {
    const fade = exp(-1 / ((hand === 3.1 ? r.decay / 6.9 : 0.004) * rate));
    let level = 1;
    for (let i = framesOf(hand * r.apart, rate); i < out.length; i++) {
      levels[i] = max(levels[i]!, level);
      level *= fade;
    }
  }
  for (let i = 0; i < out.length; i++) out[i]! *= levels[i]!;
  return out;
};

const ringing = (r: Metal, force: Force, rate: number, out: Float32Array): void => {
  // Where its partials lie is the thing itself: another strike of it has the same.
  const seed = (r.seed ?? 4) % 1000;
  for (let k = 0; k < r.partials; k++) {
    const along = (k + 0.5 + 0.45 * noiseAt(seed, 9000 + k)) / r.partials;
    const level = (0.6 + 0.4 * noiseAt(seed, 9200 + k)) * Math.pow(0.35 + 0.65 * force, 3 * along);
    addRinging(out, rate, {
      frequency: r.low * Math.pow(r.high / r.low, along),
      phase: Math.PI * noiseAt(r.seed ?? 4, 9100 + k),
      level: (0.9 * level) / Math.sqrt(r.partials),
      decay: r.decay * (1.05 - 0.55 * along),
    });
  }
};

const metal = (r: Metal, force: Force, rate: number): Float32Array => {
  const out = blank(r.decay, rate);
  const seed = r.seed ?? 4;
  ringing(r, force, rate, out);
  const hiss = colouredNoise(seed, out.length, rate, ['bandpass', 6500 + 3500 * force, 0.6]);
  const falls = fades(r.decay * 0.8, rate);
  let level = r.hiss * 2 * force;
  for (let i = 0; i < out.length; i++) {
    out[i]! += hiss[i]! * level;
    level *= falls;
    if (r.swell > 0) out[i]! *= 0.45 + 0.55 * min(1, i / (r.swell * rate));
  }
  if (r.ping) addRinging(out, rate, { frequency: r.pitch, phase: 0, level: r.ping, decay: r.decay * 0.7 });
  const tick = noise(seed + 1, min(out.length, framesOf(0.0012 * OVER, rate)));
  addKnock(out, tick, 0.5 * force, 0.0012, rate);
  return filterAll(out, 'highpass', r.cut, 0.7, rate);
};

const wood = (r: Wood, force: Force, rate: number): Float32Array => {
  const out = blank(r.decay, rate);
  r.modes.forEach((frequency, k) =>
    addRinging(out, rate, {
      frequency,
      phase: 0,
      level: (k ? force : 1) / (1 + k),
      decay: r.decay / (1 + 0.5 * k),
    }),
  );
  const length = min(out.length, framesOf(0.0018 * OVER, rate));
  const knock = colouredNoise(r.seed ?? 5, length, rate, ['bandpass', 1800 + 3200 * force, 0.8]);
  addKnock(out, knock, r.click * 2.5 * force, 0.0018, rate);
  return out;
};

const JINGLES = [4190, 5530, 6710, 7950, 9120];

const shaken = (r: Shaken, force: Force, rate: number): Float32Array => {
  const out = colouredNoise(
    r.seed ?? 6,
    framesOf(r.decay + r.rise, rate),
    rate,
    ['bandpass', r.colour * (0.8 + 0.3 * force), 0.9],
    ['highpass', r.colour * 0.5, 0.7],
  );
  if (r.jingle)
    for (const frequency of JINGLES)
      addRinging(out, rate, {
        frequency,
        phase: 0,
        level: (r.jingle / 5) * (0.4 + 0.6 * force),
        // As long as it is shaken they ring on.
        decay: 100,
      });
  const [rise, falls] = [r.rise * rate, fades(r.decay, rate)];
  let level = 1;
  for (let i = 0; i < out.length; i++) {
    if (i < rise) out[i]! *= 0.35 * (i / rise) ** 2;
    else {
      out[i]! *= level;
      level *= falls;
    }
  }
  return out;
};

/** A sweep goes from one colour to another over its length: both are made, and one fades into the other. */
const swish = (r: Swish, force: Force, rate: number): Float32Array => {
  const length = framesOf(r.decay + r.rise, rate);
  const seed = r.seed ?? 7;
  const hard = 0.75 + 0.4 * force;
  const out = colouredNoise(seed, length, rate, ['bandpass', r.colour * hard, 0.7]);
  const late = colouredNoise(seed, length, rate, ['bandpass', r.towards * hard, 0.7]);
  const grains = 256;
  const [rise, falls] = [r.rise * rate, fades(r.decay, rate)];
  let level = 1;
  for (let i = 0; i < length; i++) {
    const share = i / length;
    const [a, b] = [
      abs(noiseAt(seed + 3, Math.floor(i / grains))),
      abs(noiseAt(seed + 3, 1 + Math.floor(i / grains))),
    ];
    const grain = a + (b - a) * ((i % grains) / grains);
    const now = i < rise ? Math.pow(i / rise, 1.5) : level;
    if (i >= rise) level *= falls;
    out[i] = (out[i]! * (1 - share) + late[i]! * share) * now * (1 - 0.7 * r.rough * grain) * 1.5;
  }
  const tap = colouredNoise(seed + 1, min(length, framesOf(0.05, rate)), rate, [
    'bandpass',
    900 + 2200 * force,
    0.7,
  ]);
  addKnock(out, tap, r.tap * force, 0.05 / 6.9, rate);
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
    case 'swish':
      return swish(recipe, force, rate);
  }
};

/** Another strike of the same drum: a hair higher or lower, longer or shorter, elsewhere on it. */
const another = (recipe: Recipe, strike: number): Recipe => {
  if (!strike) return recipe;
  const seed = (recipe.seed ?? 0) + 7;
  const by = (part: number, most: number) => 1 + most * noiseAt(seed * 31 + strike, 500 + part);
  // One higher, the next lower: never twice nearly as high.
  const higher = 1 + (strike % 2 ? 1 : -1) * (0.005 + 0.005 * abs(noiseAt(seed * 31 + strike, 501)));
  const out = { ...recipe, seed: seed + 1000 * strike, decay: recipe.decay * by(0, 0.06) };
  switch (out.voice) {
    case 'skin':
      return {
        ...out,
        pitch: out.pitch * higher,
        bend: out.bend * by(2, 0.05),
        click: out.click * by(3, 0.2),
      };
    case 'snare':
      return {
        ...out,
        pitch: out.pitch * higher,
        wires: out.wires * by(2, 0.1),
        rim: out.rim * by(3, 0.4),
      };
    case 'clap':
      return { ...out, apart: out.apart * by(1, 0.15), colour: out.colour * by(2, 0.05) };
    case 'metal':
      return {
        ...out,
        seed: recipe.seed! + 1000 * strike,
        low: out.low * by(1, 0.01),
        high: out.high * by(2, 0.02),
        hiss: out.hiss * by(3, 0.15),
      };
    case 'wood':
      return {
        ...out,
        modes: out.modes.map((mode, at) => mode * higher * by(4 + at, 0.002)),
        click: out.click * by(1, 0.2),
      };
    case 'shaken':
      return { ...out, rise: out.rise * by(1, 0.2), colour: out.colour * by(2, 0.04) };
    case 'swish':
      return {
        ...out,
        rise: out.rise * by(1, 0.1),
        colour: out.colour * by(2, 0.05),
        towards: out.towards * by(3, 0.05),
      };
  }
};

/**
 * One drum struck as hard, several times.
 *
 * @param force above 0 to 1
 * @param rate frames a second
 * @param strikes how many: the first is as the recipe says, every other one a little different
 * @param finish what is done to every drum of its kit
 * @param level of its kit
 * @returns one channel each; the loudest sample is the recipe's peak whatever the force, the mixer sets the level
 */
export const struckVoice = (
  recipe: Recipe,
  force: Force,
  rate: number,
  strikes = 1,
  finish: Finish = {},
  level = 1,
): Float32Array[] => {
  let room: Float32Array | null = null;
  return Array.from({ length: strikes }, (_, which) => {
    const dry = asInKit(shape(another(recipe, which), force, rate), finish, rate);
    // The room cannot tell one strike from another.
    if (which === 0) room = roomOf(dry, finish, rate);
    return finished(withRoom(dry, room), recipe.peak * level, rate);
  });
};
