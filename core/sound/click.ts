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

/** A click and a stronger, higher one. @param rate frames a second */
export const makeClicks = (rate: number): Float32Array[] => [click(1150, rate), click(1720, rate)];

export interface Clicking {
  beat: Ticks;
  bar: Ticks;
  /** 0 to 1. */
  level: number;
  /** Whether the first beat of a bar is stronger. */
  accent: boolean;
  frameAt: (tick: Ticks) => Frames;
}

/**
 * The clicks of a stretch of time: one a beat.
 *
 * @param from included, to excluded, in ticks from where the pattern began; before it, it counts in
 */
export const clickNotes = (
  from: Ticks,
  to: Ticks,
  { beat, bar, level, accent, frameAt }: Clicking,
): MixNote[] => {
  const notes: MixNote[] = [];
  for (let at = Math.ceil(from / beat - 1e-6); at * beat < to - 1e-6; at++) {
    const first = accent && Math.abs((((at * beat) % bar) + bar) % bar) < 1e-6;
    const sound = CLICKS + (first ? 1 : 0);
    notes.push({ frame: frameAt(at * beat), sound, layer: 0, left: level, right: level, group: 0 });
  }
  return notes;
};
