import type { InstrumentId } from '../document/instruments';
import type { Velocity } from '../units';
import { peakOf, toMono, type Audio } from './sample';
import { centroidOf, shareBetween, spectrumOf, type Spectrum } from './spectrum';
import { sliceFrames } from './renderVoice';

/** What a slice of a loop sounds like, by its spectrum. */
export interface SliceKind {
  instrument: InstrumentId;
  /** As hard as its peak says, against the loudest slice. */
  velocity: Velocity;
}

/** Only the beginning of a slice tells what was struck: the rest may be anything that rings. */
const LOOK_SECONDS = 0.09;

/** How even a spectrum is, from a tone, near 0, to noise, near 1: the geometric over the arithmetic mean of its power. */
export const flatnessOf = ({ power }: Spectrum): number => {
  let [logs, sum] = [0, 0];
  for (const value of power) {
    logs += Math.log(value + 1e-12);
    sum += value + 1e-12;
  }
  return Math.exp(logs / power.length) / (sum / power.length);
};

/** Below this is the kick's, above that the hats'. */
const LOW = 150;
const HIGH = 4500;

const kindOf = (data: Float32Array, rate: number): InstrumentId => {
  const spectrum = spectrumOf(data, rate, 0, LOOK_SECONDS);
  const low = shareBetween(spectrum, 20, LOW);
  const high = shareBetween(spectrum, HIGH, rate / 2);
  const middle = shareBetween(spectrum, LOW, 1200);
  if (low > 0.45 && high < 0.25) return 'kick';
  if (high > 0.55 && middle < 0.25 && centroidOf(spectrum) > 3500) return 'hat.closed';
  return low > 0.6 && flatnessOf(spectrum) < 0.1 ? 'kick' : 'snare';
};

/** The velocity of a level against the loudest: what the app makes of velocities, the other way round. */
const velocityFor = (share: number): Velocity =>
  Math.max(1, Math.min(127, Math.round(127 * share ** (1 / 1.6))));

/**
 * What each slice of a loop is like: a kick by its low end, a hat by its high one, all else a snare.
 *
 * @param audio of the loop
 * @example sliceKinds({ rate: 8000, channels: [new Float32Array(8000)] }, { marks: [0], end: 1 })[0]!.instrument // "snare"
 */
export const sliceKinds = (audio: Audio, cut: { marks: number[]; end: number }): SliceKind[] => {
  const data = toMono(audio);
  const slices = sliceFrames(cut, audio.rate).map(([from, to]) => data.subarray(from, to));
  const peaks = slices.map((slice) => peakOf([slice]));
  const loudest = Math.max(...peaks, 1e-9);
  return slices.map((slice, at) => ({
    instrument: kindOf(slice, audio.rate),
    velocity: velocityFor(peaks[at]! / loudest),
  }));
};
