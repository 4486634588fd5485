/** Named units, so that a signature says what it takes. Plain numbers at run time. */

/** A position or a length, 960 to the quarter note; real, not rounded, until a file is written. */
export type Ticks = number;
/** Milliseconds. */
export type Ms = number;
/** Seconds. */
export type Seconds = number;
/** Cycles a second. */
export type Hertz = number;
/** Sample frames of the audio clock. */
export type Frames = number;
/** Quarter notes a minute, 20 to 300. */
export type Bpm = number;
/** Semitones, up or down. */
export type Semitones = number;
/** 1 to 127. Zero is never written. */
export type Velocity = number;
/** A MIDI note number, 0 to 127. */
export type MidiNote = number;
/** A MIDI channel as people count them, 1 to 16. */
export type Channel = number;

/** Ticks in a quarter note. */
export const QUARTER: Ticks = 960;

export const TEMPO = { least: 20, most: 300 } as const;

/**
 * How many ticks one millisecond lasts at a tempo.
 *
 * @example ticksPerMs(120) // 1.92
 */
export const ticksPerMs = (bpm: Bpm): number => (QUARTER * bpm) / 60000;

/**
 * The seconds that a stretch of ticks lasts at one tempo.
 *
 * @example secondsOf(960, 120) // 0.5
 */
export const secondsOf = (ticks: Ticks, bpm: Bpm): Seconds => (ticks * 60) / (QUARTER * bpm);

/** The nearest value within a range; what is no number becomes `least`. @example clamp(200, 1, 127) // 127 */
export const clamp = (value: number, least: number, most: number): number =>
  Number.isNaN(value) ? least : Math.min(most, Math.max(least, value));
