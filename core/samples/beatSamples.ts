import type { Beat } from '../document/schema';
import type { Sample } from '../document/soundSchema';
import { samplesIn } from './newVoice';

/** Each sample once. @example eachOnce([]) // [] */
export const eachOnce = (samples: Sample[]): Sample[] => [
  ...new Map(samples.map((sample) => [sample.id, sample])).values(),
];

/**
 * All samples of a beat's own sounds, each once: of its kit, its lanes and its loops.
 *
 * @example samplesOfBeat(beat) // []
 */
export const samplesOfBeat = ({ own, lanes }: Pick<Beat, 'own' | 'lanes'>): Sample[] => {
  const voices = [...Object.values(own?.voices ?? {}), ...lanes.map(({ voice }) => voice)];
  return eachOnce([
    ...voices.flatMap((voice) => (voice ? samplesIn(voice) : [])),
    ...lanes.flatMap(({ loop }) => (loop ? [loop.sample] : [])),
  ]);
};
