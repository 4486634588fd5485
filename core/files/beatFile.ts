import { readBeats, type ReadBeats } from '../document/file';
import type { Read } from '../document/reading';
import type { Sample } from '../document/soundSchema';
import { eachOnce, samplesOfBeat } from '../samples/beatSamples';
import { pack, pathsFor, unpackSamples } from './samplePack';

/** Beats with the samples that they play, as one file: a ZIP of `beats.ruddik.json` and the samples as they came. */

const TEXT = 'beats.ruddik.json';

/**
 * Writes beats with their sounds as one file.
 *
 * @param text the beats, as `writeBeat` or `writeBeats` has them
 * @param samples what they play
 * @param bytes by the id of each sample; one that is not there is left out, and missing for whoever opens it
 */
export const writeBeatsWithSounds = (
  text: string,
  samples: Sample[],
  bytes: ReadonlyMap<string, Uint8Array>,
): Uint8Array => pack(TEXT, text, pathsFor(eachOnce(samples)), bytes);

/** The content of a file of beats with their sounds. */
export interface BeatsWithSounds extends ReadBeats {
  /** By id: what the beats speak of, and nothing else. */
  samples: Map<string, Uint8Array>;
  /** The names of the files of samples that are missing. */
  missing: string[];
}

/**
 * Reads a file of beats with their sounds.
 *
 * @param nameOf the id of a sample, by its bytes
 * @returns the beats with what is wrong with some of them, or a sentence for a person; it never throws
 */
export const readBeatsWithSounds = async (
  bytes: Uint8Array,
  nameOf: (bytes: Uint8Array) => Promise<string>,
): Promise<Read<BeatsWithSounds>> => {
  const files = unpackSamples(bytes);
  if (!files.ok) return files;
  if (files.value.get('kit.json'))
    return { ok: false, error: 'It is a kit: open it on the Pattern screen, under Kits and drums.' };
  const text = files.value.get(TEXT);
  if (!text) return { ok: false, error: `It is a ZIP, but no beat: ${TEXT} is missing.` };
  const read = readBeats(new TextDecoder().decode(text));
  const wanted = new Map(read.beats.flatMap(samplesOfBeat).map((sample) => [sample.id, sample]));
  const samples = new Map<string, Uint8Array>();
  for (const [path, data] of files.value) {
    if (path === TEXT) continue;
    const id = await nameOf(data);
    if (wanted.has(id)) samples.set(id, data);
  }
  const missing = [...wanted.values()].filter(({ id }) => !samples.has(id)).map(({ file }) => file);
  return { ok: true, value: { ...read, samples, missing: [...new Set(missing)] } };
};
