import type { InstrumentId } from '../document/instruments';
import type { Sample, Voice } from '../document/schema';

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
