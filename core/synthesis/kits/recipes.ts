import type { Clap, Metal, Recipe, Shaken, Skin, Snare, Swish, Wood } from '../voices';

/** Short ways to write the recipes of a kit down. */

type Of<T> = Omit<T, 'voice'>;
/**
 * A skin, by its recipe.
 *
 * @example skin({ peak: 1, decay: 1, pitch: 50, bend: 2, sweep: 0.02, click: 1, drive: 0, mode: 0 }).voice // "skin"
 */
export const skin = (r: Of<Skin>): Skin => ({ voice: 'skin', ...r });
/** A snare, by its recipe. */
export const snare = (r: Of<Snare>): Snare => ({ voice: 'snare', ...r });
/**
 * Hands, by their recipe.
 *
 * @example clap({ peak: 1, decay: 0.2, colour: 1000, apart: 0.01 }).voice // "clap"
 */
export const clap = (r: Of<Clap>): Clap => ({ voice: 'clap', ...r });
/** Metal, by its recipe. */
export const metal = (r: Of<Metal>): Metal => ({ voice: 'metal', ...r });
/**
 * Wood, by its recipe.
 *
 * @example wood({ peak: 1, decay: 1, modes: [400], click: 0 }).voice // "wood"
 */
export const wood = (r: Of<Wood>): Wood => ({ voice: 'wood', ...r });
/** A sweep, by its recipe. */
export const swish = (r: Of<Swish>): Swish => ({ voice: 'swish', ...r });
/**
 * Something shaken, by its recipe.
 *
 * @example shaken({ peak: 1, decay: 0.1, colour: 6000, rise: 0.01, jingle: 0 }).voice // "shaken"
 */
export const shaken = (r: Of<Shaken>): Shaken => ({ voice: 'shaken', ...r });

/**
 * A tom, by its pitch in Hz and its decay in seconds.
 *
 * @example tom(92, 0.55).pitch // 92
 */
export const tom = (pitch: number, decay: number, bend = 1.5, mode = 0.35) =>
  skin({ peak: 0.7, decay, pitch, bend, sweep: 0.05, click: 0.35, drive: 0.4, mode });
/**
 * A skin that is struck by hand, likewise.
 *
 * @example hand(212, 0.34).decay // 0.34
 */
export const hand = (pitch: number, decay: number, mode = 0.5) =>
  skin({ peak: 0.55, decay, pitch, bend: 1.12, sweep: 0.02, click: 0.6, drive: 0.2, mode, seed: 12 });

/**
 * Hats: how long, how much hiss, how loud, what is cut below, in Hz.
 *
 * @example hat(0.075, 0.85, 0.36, 5200, 21).cut // 5200
 */
export const hat = (decay: number, hiss: number, peak: number, cut: number, seed: number) =>
  metal({ peak, decay, low: 3100, high: 13500, partials: 18, hiss, cut, ping: 0, pitch: 0, swell: 0, seed });
/**
 * A cymbal: how long, how loud, how slowly it swells, how much hiss.
 *
 * @example cymbal(2.1, 0.55, 0.03, 0.8, 41).swell // 0.03
 */
export const cymbal = (decay: number, peak: number, swell: number, hiss: number, seed: number) =>
  metal({ peak, decay, low: 420, high: 13000, partials: 34, hiss, cut: 500, ping: 0, pitch: 0, swell, seed });
/**
 * A ride, by the pitch and the level of its ping.
 *
 * @example ride(2950, 0.35, 1.7, 31).ping // 0.35
 */
export const ride = (pitch: number, ping: number, decay: number, seed: number) =>
  metal({
    peak: 0.42,
    decay,
    low: 900,
    high: 11000,
    partials: 24,
    hiss: 0.25,
    cut: 500,
    ping,
    pitch,
    swell: 0,
    seed,
  });

/** Pitched instruments: the same bars, tongues and pans in every kit that has none of its own. */
export const TUNED = {
  // A bar that is cut out below: its overtones stand at four and ten times its pitch.
  marimba: wood({ peak: 0.55, decay: 0.9, modes: [261.63, 1046.5, 2606], click: 0.25 }),
  // A tongue held at one end.
  kalimba: wood({ peak: 0.5, decay: 1.3, modes: [261.63, 1640, 4595], click: 0.12, seed: 61 }),
  steelPan: wood({ peak: 0.5, decay: 1.1, modes: [261.63, 523.25, 785.5, 1048], click: 0.1, seed: 62 }),
  // A tongue sawn into a hollow log.
  logDrum: wood({ peak: 0.6, decay: 0.45, modes: [130.81, 359, 748], click: 0.4, seed: 63 }),
  'kick.tuned': skin({
    peak: 0.86,
    decay: 0.75,
    pitch: 65.41,
    bend: 1.9,
    sweep: 0.02,
    click: 0.4,
    drive: 0.7,
    mode: 0.08,
    seed: 64,
  }),
} satisfies Record<string, Recipe>;
