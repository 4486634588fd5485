import type { Frames, Ticks } from '../units';
import type { MixNote } from './mixer';

/** The numbers of the clicks' sounds in the mixer, apart from those of the lanes. */
export const CLICKS = 100000;

const SECONDS = 0.045;

const click = (pitch: number, rate: number): Float32Array =>
  Float32Array.from({ length: Math.round(SECONDS * rate) }, (_, at) => {
    const time = at / rate;
    return 0.7 * Math.sin(2 * Math.PI * pitch * time) * Math.exp(-time * 90) * Math.min(1, time * 2000);
  });

/** A click and a stronger, higher one. @param rate frames a second @example makeClicks(8000).length // 2 */
export const makeClicks = (rate: number): Float32Array[] => [click(1150, rate), click(1720, rate)];

export interface Clicking {
  /** 0 to 1. */
  level: number;
  /** Whether the first beat of a bar is stronger. */
  accent: boolean;
  frameAt: (tick: Ticks) => Frames;
}

/** The clicks of beats: one each. */
export const clickNotes = (
  beats: { at: Ticks; first: boolean }[],
  { level, accent, frameAt }: Clicking,
): MixNote[] =>
  beats.map(({ at, first }) => ({
    frame: frameAt(at),
    sound: CLICKS + (first && accent ? 1 : 0),
    layer: 0,
    left: level,
    right: level,
    group: 0,
  }));
