import { inOrder } from '../document/position';
import { lanePatternOf, newHit, patternTicks, stepsOf } from '../document/defaults';

import { gridTicks, type Grid } from '../document/grid';

import { barTicks, beatTicks } from '../document/meter';
import { modulo } from '../numbers';
import type { Hit, Lane, LanePattern, Pattern } from '../document/schema';

import { hashText } from '../random/draw';
import { type MidiNote } from '../units';
import { bandHits, flatBand, type HitBand, type Bands } from './bands';

import { notesInScale, scaleOf } from './scales';

import { partWith, type Made } from './makers';

/** The hits that bands give to lanes, as new hits or over those that are there. */

/** Bands as they are set: each as its points one after the other, place, low and high; without any it is left out. */
export interface BandsSettings {
  grid: Grid;
  voices: number;
  heldOver: number;
  onBeat: number;
  /** Only the hits that are there are shaped. */
  shape: boolean;
  fullness: number[];
  /** Empty where hits that are there keep theirs. */
  velocity: number[];
  pitch: number[];
  length: number[];
  chance: number[];
  nudge: number[];
  /** Root and scale. */
  scale: string;
}

export const BANDS_DEFAULTS: BandsSettings = {
  grid: '1/16',
  voices: 1,
  heldOver: 0,
  onBeat: 0.2,
  shape: false,
  fullness: [0, 0.5, 0.5, 1, 0.5, 0.5],
  velocity: [0, 60, 110, 1, 60, 110],
  pitch: [],
  length: [],
  chance: [],
  nudge: [],
  scale: 'C minor pentatonic',
};

/** A band from its points as they are kept. @example partBandOf([0, 1, 2]) // [{ at: 0, low: 1, high: 2 }] */
export const partBandOf = (points: readonly number[]): HitBand =>
  Array.from({ length: Math.floor(points.length / 3) }, (_, i) => ({
    at: points[3 * i]!,
    low: points[3 * i + 1]!,
    high: points[3 * i + 2]!,
  }));

/** A band's points as they are kept. @example pointsOf([{ at: 0, low: 1, high: 2 }]) // [0, 1, 2] */
export const pointsOf = (band: HitBand): number[] => band.flatMap(({ at, low, high }) => [at, low, high]);

const bandsOf = (s: BandsSettings): Bands => ({
  fullness: partBandOf(s.fullness),
  velocity: partBandOf(s.velocity.length ? s.velocity : BANDS_DEFAULTS.velocity),
  ...(s.pitch.length > 0 && { pitch: partBandOf(s.pitch) }),
  ...(s.length.length > 0 && { length: partBandOf(s.length) }),
  ...(s.chance.length > 0 && { chance: partBandOf(s.chance) }),
  ...(s.nudge.length > 0 && { nudge: partBandOf(s.nudge) }),
});

/** The notes of the scale that a pitch band can come to. */
const notesOf = (bands: Bands, scale: string): MidiNote[] => {
  const found = scaleOf(scale);
  if (!bands.pitch || !found.ok) return [];
  return notesInScale(
    found.value,
    Math.min(...bands.pitch.map(({ low }) => low)),
    Math.max(...bands.pitch.map(({ high }) => high)),
  );
};

/** The hits of one step are told apart by their order. */
const voicesOf = (hits: Hit[]): number[] => {
  const many = new Map<number, number>();
  return hits.map(({ step }) => {
    const voice = many.get(step) ?? 0;
    many.set(step, voice + 1);
    return voice;
  });
};

const NOTES = 128;
/** The pitch itself, or where another hit of the step has it the nearest that none has. */
const freePitch = (pitch: number, taken: ReadonlySet<number>): number => {
  for (let by = 0; by < NOTES; by++)
    for (const one of [pitch + by, pitch - by]) if (!taken.has(one)) return one;
  return pitch;
};

/** The hits that are there, each of their quantities by its band: what has none stays as it is. */
const shapedHits = (
  part: LanePattern,
  pattern: Pattern,
  lane: Lane,
  s: BandsSettings,
  seed: number,
): Hit[] => {
  const bands = bandsOf(s);
  const slots = stepsOf(part, pattern);
  const voice = voicesOf(part.hits);
  const made = new Map(
    // The same draws that new hits on the steps would have.
    bandHits({
      bands: { ...bands, fullness: flatBand(1, 1) },
      slots,
      voices: bands.pitch ? Math.max(1, ...voice.map((one) => one + 1)) : 1,
      heldOver: 0,
      onBeat: 0,
      notes: notesOf(bands, s.scale),
      seed,
      key: hashText(lane.id),
    }).map((hit) => [`${hit.slot} ${hit.voice}`, hit]),
  );
  const taken = new Map<number, Set<number>>();
  return part.hits.map((hit, at) => {
    const by = made.get(`${hit.step} ${bands.pitch ? voice[at] : 0}`) ?? made.get(`${hit.step} 0`);
    if (!by) return hit;
    const pitches = taken.get(hit.step) ?? new Set();
    taken.set(hit.step, pitches);
    const { pitch: own = 0, ...rest } = hit;
    const drawn = bands.pitch && by.voice === voice[at] && by.note !== null ? by.note - lane.note : own;
    const pitch = freePitch(drawn, pitches);
    pitches.add(pitch);
    return {
      ...rest,
      ...(s.velocity.length > 0 && { velocity: by.velocity }),
      ...(bands.length && { length: by.length }),
      ...(bands.chance && { chance: by.chance }),
      ...(bands.nudge && { nudge: by.nudge }),
      ...(pitch !== 0 && { pitch }),
    };
  });
};

/**
 * The hits that bands give to lanes, each by draws of its own.
 *
 * @example Object.keys(bandsParts(pattern, beat.lanes.slice(0, 1), BANDS_DEFAULTS, 7)) // ["kick"]
 */
export const bandsParts = (pattern: Pattern, lanes: Lane[], s: BandsSettings, seed: number): Made => {
  const bands = bandsOf(s);
  const g = gridTicks(s.grid);
  const slots = Math.max(1, Math.ceil(patternTicks(pattern) / g - 1e-9));
  const bar = barTicks(pattern.meter);
  const beat = beatTicks(pattern.meter);
  const strength = (slot: number): number => {
    const at = modulo(slot * g, bar);
    if (at < 1e-6) return 1;
    if (modulo(at, beat) < 1e-6) return 0.8;
    return modulo(at, beat / 2) < 1e-6 ? 0.45 : 0.15;
  };
  return Object.fromEntries(
    lanes.map((lane) => {
      const part = lanePatternOf(pattern, lane.id);
      const key = hashText(lane.id);
      if (s.shape) return [lane.id, { ...part, hits: inOrder(shapedHits(part, pattern, lane, s, seed)) }];
      const made = bandHits({
        bands,
        slots,
        voices: bands.pitch ? s.voices : 1,
        heldOver: s.heldOver,
        onBeat: s.onBeat,
        strength,
        notes: notesOf(bands, s.scale),
        seed,
        key,
      });
      const hits = made.map(({ slot, velocity, note, length, chance, nudge }): Hit => ({
        ...newHit(slot, velocity),
        length,
        chance,
        nudge,
        ...(note !== null && note !== lane.note && { pitch: note - lane.note }),
      }));
      return [lane.id, partWith(part, s.grid, null, hits)];
    }),
  );
};
