/** Who is told of what the player does. */
import type { Frames } from '../../core/units';
import type { HandedNote } from './messages';
import type { Anchor } from './playerNow';

/** Who is told of what is handed to the audio clock: notes, where time is counted from, and that it ends. */
export interface Onlooker {
  /** @param fresh what was heard before may come again: something else plays, or it leapt */
  handed: (from: Frames, until: Frames, notes: readonly HandedNote[], fresh: boolean) => void;
  anchored: (anchor: Anchor) => void;
  stopped: () => void;
}
export const onlookers = new Set<Onlooker>();

/** Tells what is played ahead of its being heard. @returns stops it */
export const lookOn = (onlooker: Onlooker): (() => void) => {
  onlookers.add(onlooker);
  return () => void onlookers.delete(onlooker);
};

/** What of the sound is gone for good, though it was made anew. */
export type SoundTrouble = 'code' | 'output';
export const troubleHearers = new Set<(trouble: SoundTrouble) => void>();

/** Tells when play has ended because a part of it could not be made anew. @returns stops it */
export const hearTrouble = (hear: (trouble: SoundTrouble) => void): (() => void) => {
  troubleHearers.add(hear);
  return () => void troubleHearers.delete(hear);
};

export const peakHearers = new Set<(peaks: Float32Array, left: number) => void>();

/** Tells how loud each lane was, by its place, and what the limiter left of the loudest, some twelve times a second. @returns stops it */
export const hearPeaks = (give: (peaks: Float32Array, left: number) => void): (() => void) => {
  peakHearers.add(give);
  return () => peakHearers.delete(give);
};
