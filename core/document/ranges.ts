import { SONG, SOUND, STEPS, SWING } from './choices';
import { TEMPO } from '../units';

/** From where to where a figure may go. */
export interface Range {
  least: number;
  most: number;
  /** Whole numbers only. */
  whole?: true;
  /** Its unit, for readers. */
  unit?: string;
}

/**
 * The bounds of every figure that is set by hand, written once: the schema, the edits, the controls and the documentation take
 * them from here.
 */
export const RANGES = {
  tempo: { ...TEMPO, unit: 'BPM' },
  swing: { ...SWING, unit: '%' },
  velocity: { least: 1, most: 127, whole: true },
  /** Of a hit, of all steps of a lane, of its off-beats. */
  nudge: { least: -0.5, most: 0.5, unit: 'steps' },
  length: { least: 0.05, most: 64, unit: 'steps' },
  chance: { least: 0, most: 1 },
  share: { least: 0, most: 1 },
  level: { least: 0, most: 2 },
  pan: { least: -1, most: 1 },
  tune: { least: -24, most: 24, unit: 'semitones' },
  slide: { least: 0, most: 500, unit: 'ms' },
  decay: { least: 0.02, most: 1 },
  lowPass: { least: 100, most: 20000, unit: 'Hz' },
  highPass: { least: 20, most: 8000, unit: 'Hz' },
  note: { least: 0, most: 127, whole: true },
  channel: { least: 1, most: 16, whole: true },
  choke: { least: 0, most: 8, whole: true },
  strokes: { least: 2, most: 16, whole: true },
  curve: { least: -1, most: 1 },
  graceBefore: { least: 1, most: 200, unit: 'ms' },
  strokeLevel: { least: 0, most: 127 },
  steps: { ...STEPS, whole: true },
  bars: { least: 1, most: 16, whole: true, unit: 'bars' },
  beats: { least: 1, most: 21, whole: true },
  times: { least: 1, most: SONG.times, whole: true },
  entryBars: { least: 1, most: SONG.bars, whole: true, unit: 'bars' },
  /** How far ahead of or behind the beat a lane is. */
  offset: { least: -100, most: 100, unit: 'ms' },
  /** Of a template. */
  amount: { least: 0, most: 1.5 },
  /** Of a lane's own share in the spread of all. */
  scale: { least: 0, most: 3 },
  /** Against the lane's own note. */
  pitch: { least: -127, most: 127, whole: true, unit: 'semitones' },
  interval: { least: -24, most: 24, whole: true, unit: 'semitones' },
  echoes: { least: 1, most: 32, whole: true },
  echoSlope: { least: 0.1, most: 1.5 },
  echoMs: { least: 1, most: 4000, unit: 'ms' },
  sparkFactor: { least: 0, most: 2 },
  sparkMs: { least: -1000, most: 4000, unit: 'ms' },
  /** Of a stagger: how many before it begins again, and how long each waits. */
  staggerCount: { least: 1, most: 64, whole: true },
  staggerMs: { least: 0, most: 2000, unit: 'ms' },
  staggerPercent: { least: 0, most: 1600, unit: '% of a 1/16' },
  /** Of a sound of one's own: where in it something is, and how long its envelope takes. */
  inSound: { least: 0, most: SOUND.seconds, unit: 's' },
  envelope: { least: 0, most: 5000, unit: 'ms' },
  fine: { least: -100, most: 100, unit: 'cents' },
  cutoff: { least: 20, most: 20000, unit: 'Hz' },
  /** By how many octaves the softest strike closes a filter. */
  follow: { least: 0, most: 6, unit: 'octaves' },
  drive: { least: 0, most: 10 },
  gate: { least: -80, most: -6, unit: 'dB' },
  crossFade: { least: 0, most: 64, whole: true },
  ceiling: { least: -12, most: 0, unit: 'dB' },
  loopBars: { least: 1, most: 64, whole: true, unit: 'bars' },
  timingSpread: { least: 0, most: 50, unit: 'ms' },
  velocitySpread: { least: 0, most: 40 },
  /** Of a player: how far its clock errs from one sixteenth to the next, and its hands from what it means to play. */
  clock: { least: 0, most: 10, unit: 'ms' },
  touch: { least: 0, most: 40, unit: 'ms' },
  /** By how much strokes lean over a phrase, into a fill or a section. */
  lean: { least: -60, most: 60, unit: 'ms' },
  leanBars: { least: 1, most: 16, whole: true, unit: 'bars' },
} as const satisfies Record<string, Range>;

/**
 * A figure held to a range; what is no number becomes its least.
 *
 * @example heldToRange(RANGES.velocity, 200.4) // 127
 */
export const heldToRange = ({ least, most, whole }: Range, value: number): number => {
  const held = Number.isNaN(value) ? least : Math.min(most, Math.max(least, value));
  return whole ? Math.round(held) : held;
};

/** The bounds alone, as a control takes them. @example bounds(RANGES.pan) // { least: -1, most: 1 } */
export const bounds = ({ least, most }: Range): { least: number; most: number } => ({ least, most });
