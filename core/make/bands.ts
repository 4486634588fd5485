import { clamp, type MidiNote, type Velocity } from '../units';
import { draw, PURPOSE } from '../random/draw';
import { nearestNote } from './scales';

/** Hits drawn between two edges: for each quantity a lower and an upper one over the pattern. */

/** Where the edges of a band are at a place. In between they run in straight lines. */
export interface BandPoint {
  /** 0 at the beginning, 1 at the end. */
  at: number;
  low: number;
  high: number;
}

/** In order of place, at least one. */
export type HitBand = readonly BandPoint[];

/**
 * A band at a place: before its first point and after its last one as there.
 *
 * @param at 0 to 1
 * @example bandAt([{ at: 0, low: 0, high: 10 }, { at: 1, low: 10, high: 20 }], 0.5) // { low: 5, high: 15 }
 */
export const bandAt = (band: HitBand, at: number): { low: number; high: number } => {
  const after = band.findIndex((point) => point.at > at);
  const from = after === 0 ? band[0]! : after < 0 ? band[band.length - 1]! : band[after - 1]!;
  const to = after <= 0 ? from : band[after]!;
  const share = to.at > from.at ? (at - from.at) / (to.at - from.at) : 0;
  return { low: from.low + (to.low - from.low) * share, high: from.high + (to.high - from.high) * share };
};

/** A band that stays as it is. @example flatBand(60, 100) // [{ at: 0, low: 60, high: 100 }] */
export const flatBand = (low: number, high: number): HitBand => [{ at: 0, low, high }];

/** The shapes that a band may be given at once. */
export const BAND_SHAPES = [
  'flat',
  'rising',
  'falling',
  'arch',
  'valley',
  'waves',
  'stairs',
  'walk',
] as const;
export type BandShape = (typeof BAND_SHAPES)[number];

/** How many points a wave or a walk is drawn with. */
const FINE = 32;

/** How high the middle of a shape stands at a place, 0 to 1. */
const middleOf = (shape: BandShape, count: number, seed: number): ((at: number) => number) => {
  switch (shape) {
    case 'flat':
      return () => 0.5;
    case 'rising':
      return (at) => at;
    case 'falling':
      return (at) => 1 - at;
    case 'arch':
      return (at) => 1 - Math.abs(2 * at - 1);
    case 'valley':
      return (at) => Math.abs(2 * at - 1);
    case 'waves':
      return (at) => 0.5 - 0.5 * Math.cos(2 * Math.PI * count * at);
    case 'stairs':
      return (at) => Math.min(count - 1, Math.floor(at * count)) / Math.max(1, count - 1);
    case 'walk': {
      const steps = [0.5];
      for (let i = 1; i <= FINE; i++)
        steps.push(clamp(steps[i - 1]! + 0.3 * (draw(seed, i, PURPOSE.bandWalk) - 0.5), 0, 1));
      return (at) => steps[Math.round(at * FINE)]!;
    }
  }
};

/** The places at which a shape bends. */
const placesOf = (shape: BandShape, count: number): number[] => {
  if (shape === 'flat') return [0];
  if (shape === 'rising' || shape === 'falling') return [0, 1];
  if (shape === 'arch' || shape === 'valley') return [0, 0.5, 1];
  if (shape === 'stairs')
    return Array.from({ length: count }, (_, i) => [i / count, (i + 1) / count - 1e-6]).flat();
  const points = shape === 'waves' ? Math.max(8, count * 8) : FINE;
  return Array.from({ length: points + 1 }, (_, i) => i / points);
};

/**
 * A band of a shape within a range.
 *
 * @param width how far its edges lie apart, as a share of the range: 0 is a curve that is followed exactly
 * @param count how many waves or stairs
 * @example shapedBand('rising', 0, 100, 0).map(({ low }) => low) // [0, 100]
 */
export const shapedBand = (
  shape: BandShape,
  least: number,
  most: number,
  width: number,
  count = 2,
  seed = 1,
): HitBand => {
  const middle = middleOf(shape, count, seed);
  const half = (clamp(width, 0, 1) * (most - least)) / 2;
  return placesOf(shape, count).map((at) => {
    const centre = least + half + middle(at) * (most - least - 2 * half);
    return { at, low: centre - half, high: centre + half };
  });
};

/** The span of a band. */
export const BAND_OF = ['fullness', 'velocity', 'pitch', 'length', 'chance', 'nudge'] as const;
export type BandOf = (typeof BAND_OF)[number];

export interface Bands {
  /** How many of the places are struck, 0 to 1; only its middle counts. */
  fullness: HitBand;
  velocity: HitBand;
  /** Note numbers; left out, the lane's own note. */
  pitch?: HitBand;
  /** In slots; left out, hits ring out. */
  length?: HitBand;
  chance?: HitBand;
  /** Parts of a slot. */
  nudge?: HitBand;
}

export interface BandSettings {
  bands: Bands;
  /** How many places there are in time, and how many voices at once, 1 to 4. */
  slots: number;
  voices: number;
  /** The chance that a hit goes on through the next slot, 0 to 1. */
  heldOver: number;
  /** Bends what is struck towards the beat, 1 at the most, or off it, -1; 0 leaves it to the draw. */
  onBeat: number;
  /** How strong a slot is, 0 off the beat to 1 on the first beat; left out, all are alike. */
  strength?: (slot: number) => number;
  /** The notes of the scale that pitches go to, in order. */
  notes: readonly MidiNote[];
  seed: number;
  /** The lane's id as a number. */
  key: number;
}

export interface BandHit {
  slot: number;
  voice: number;
  velocity: Velocity;
  /** A note number; null is the lane's own. */
  note: MidiNote | null;
  /** In slots; null rings out. */
  length: number | null;
  chance: number;
  nudge: number;
}

/** A candidate's key for being struck, bent towards the beat or off it. Smaller keys are struck first. */
const strikeKey = (s: BandSettings, slot: number, voice: number): number => {
  const key = draw(s.seed, s.key, slot, voice, PURPOSE.bandStruck);
  const strength = s.strength?.(slot) ?? 0.5;
  return key - s.onBeat * (strength - 0.5) * 2;
};

/** Between the edges of a band, by a number of its own. */
const between = (band: HitBand, at: number, u: number): number => {
  const { low, high } = bandAt(band, at);
  return low + u * (high - low);
};

/**
 * The candidates that are struck: the candidate of rank r, by its key, if (r + 0.5) / N is below the middle of the fullness at
 * its slot. So a fuller set holds all of a sparser one.
 */
const struckOf = (s: BandSettings): Set<number> => {
  const count = s.slots * s.voices;
  const keys = Array.from({ length: count }, (_, at) => ({
    at,
    key: strikeKey(s, Math.floor(at / s.voices), at % s.voices),
  }));
  keys.sort((a, b) => a.key - b.key || a.at - b.at);
  const struck = new Set<number>();
  keys.forEach(({ at }, rank) => {
    const { low, high } = bandAt(s.bands.fullness, Math.floor(at / s.voices) / s.slots);
    if ((rank + 0.5) / count < (low + high) / 2) struck.add(at);
  });
  return struck;
};

/**
 * The hits between bands, in order of time.
 *
 * @example
 * bandHits({ bands: { fullness: flatBand(1, 1), velocity: flatBand(90, 90) }, slots: 4, voices: 1, heldOver: 0, onBeat: 0, notes: [], seed: 1, key: 0 }).length
 * // 4
 */
export const bandHits = (s: BandSettings): BandHit[] => {
  const struck = struckOf(s);
  const { velocity, pitch, length, chance, nudge } = s.bands;
  const out: BandHit[] = [];
  const heldIn = new Set<number>();
  for (let slot = 0; slot < s.slots; slot++) {
    const at = slot / s.slots;
    const taken = new Set<MidiNote>();
    for (let voice = 0; voice < s.voices; voice++) {
      const candidate = slot * s.voices + voice;
      if (!struck.has(candidate) || heldIn.has(candidate)) continue;
      const u = (purpose: number) => draw(s.seed, s.key, slot, voice, purpose);
      const note = pitch ? nearestNote(s.notes, between(pitch, at, u(PURPOSE.bandPitch)), taken) : null;
      // Every note of the scale is taken, or the lane's own is: nothing sounds twice at once.
      if (note === undefined || (note === null && voice > 0 && out.at(-1)?.slot === slot)) continue;
      if (note !== null) taken.add(note);
      let held = 0;
      while (
        slot + held + 1 < s.slots &&
        draw(s.seed, s.key, slot + held, voice, PURPOSE.bandHeld) < s.heldOver
      ) {
        held += 1;
        heldIn.add((slot + held) * s.voices + voice);
      }
      const own = length ? Math.max(0.05, between(length, at, u(PURPOSE.bandLength))) : null;
      out.push({
        slot,
        voice,
        velocity: Math.round(clamp(between(velocity, at, u(PURPOSE.bandVelocity)), 1, 127)),
        note,
        length: held ? held + (own === null ? 1 : Math.max(1, own)) : own,
        chance: chance ? clamp(between(chance, at, u(PURPOSE.bandChance)), 0, 1) : 1,
        nudge: nudge ? clamp(between(nudge, at, u(PURPOSE.bandNudge)), -0.5, 0.5) : 0,
      });
    }
  }
  return out;
};
