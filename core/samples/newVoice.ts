import type { InstrumentId } from '../document/instruments';
import { SOUND } from '../document/choices';
import type { OwnKit, Sample, Voice } from '../document/schema';

/** A layer as a sample alone makes it. */
export const layerOfSample = (sample: Sample): Voice['layers'][number] => ({
  source: { sample },
  low: 1,
  high: 127,
});

/**
 * A voice of some samples: one sounds alone, several each once before any comes again.
 *
 * @example voiceOfSamples([]).layers // []
 */
export const voiceOfSamples = (samples: readonly Sample[]): Voice => ({
  choose: samples.length > 1 ? 'shuffle' : 'velocity',
  layers: samples.map(layerOfSample),
});

/** A drum of a kit as a voice of one's own, to be changed. @example voiceOfDrum('quay', 'kick').layers.length // 1 */
export const voiceOfDrum = (kit: string, drum: InstrumentId): Voice => ({
  choose: 'velocity',
  layers: [{ source: { kit, drum }, low: 1, high: 127 }],
});

/** All samples of a voice. @example samplesIn(voiceOfDrum('quay', 'kick')) // [] */
export const samplesIn = ({ layers }: Voice): Sample[] =>
  layers.flatMap(({ source }) => ('sample' in source ? [source.sample] : []));

/**
 * Layers that share the velocities evenly, the first the softest.
 *
 * @example spreadOver(voiceOfDrum('quay', 'kick').layers)[0]!.high // 127
 */
export const spreadOver = (layers: Voice['layers']): Voice['layers'] =>
  layers.map((layer, at) => ({
    ...layer,
    low: Math.max(1, Math.round((127 * at) / layers.length) + (at ? 1 : 0)),
    high: Math.round((127 * (at + 1)) / layers.length),
  }));

/** A file given to a kit, and the drum that it is for; none where nothing says which. */
export interface VoiceFile {
  sample: Sample;
  drum: InstrumentId | null;
}

/**
 * The voices of a kit with files that were given to its drums: a drum that is given some plays those alone, the first twelve.
 *
 * @param before the voices without them
 * @returns `left` holds the places of files that no drum plays
 * @example voicesGiven({}, []).left // []
 */
export const voicesGiven = (
  before: OwnKit['voices'],
  files: readonly VoiceFile[],
): { voices: OwnKit['voices']; left: number[] } => {
  const byDrum = new Map<InstrumentId, Sample[]>();
  const left = files.flatMap(({ sample, drum }, at): number[] => {
    const own = drum && (byDrum.get(drum) ?? byDrum.set(drum, []).get(drum)!);
    if (!own || own.length >= SOUND.layers) return [at];
    own.push(sample);
    return [];
  });
  const voices = Object.fromEntries([...byDrum].map(([drum, samples]) => [drum, voiceOfSamples(samples)]));
  return { voices: { ...before, ...voices }, left };
};
