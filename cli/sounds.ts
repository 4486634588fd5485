import path from 'node:path';
import { decodeAudio } from '../core/samples/decode';
import { readKit, type KitFile } from '../core/files/kitFile';
import { samplesOfBeat } from '../core/samples/beatSamples';
import { renderLoop, renderVoice, type LoadSample } from '../core/samples/renderVoice';
import type { Audio } from '../core/samples/sample';
import type { Beat } from '../core/document/schema';
import { createSounds, type Sounds } from '../core/samples/sounds';
import { InputFault } from './fault';
import { bytesOf, warn } from './files';

/** The name of data: its SHA-256, in hexadecimal. */
export const nameOf = async (bytes: Uint8Array): Promise<string> =>
  Buffer.from(await crypto.subtle.digest('SHA-256', bytes as Uint8Array<ArrayBuffer>)).toString('hex');

/** Audio of a file, or a sentence that says why not; what is wrong with it and can be put up with is said. */
export const audioOf = async (file: string): Promise<Audio> => {
  const decoded = await decodeAudio(await bytesOf(file), path.basename(file));
  if (!decoded.ok) throw new InputFault(decoded.error);
  if (decoded.warning) warn(decoded.warning);
  return decoded.audio;
};

/** A kit of a file; what is missing in it is said. */
export const kitFrom = async (file: string): Promise<KitFile> => {
  const read = await readKit(await bytesOf(file), nameOf);
  if (!read.ok) throw new InputFault(`“${path.basename(file)}” could not be read. ${read.error}`);
  for (const name of read.value.missing)
    warn(`“${name}” is missing in “${path.basename(file)}”: a stand-in sounds.`);
  return read.value;
};

const loadFrom =
  (samples: ReadonlyMap<string, Uint8Array>): LoadSample =>
  async (id) => {
    const bytes = samples.get(id);
    const decoded = bytes && (await decodeAudio(bytes, id));
    return decoded?.ok ? decoded.audio : null;
  };

/** Sounds at a rate, those of one's own from the samples of a kit file. */
export const soundsWith = (rate: number, samples: ReadonlyMap<string, Uint8Array>): Sounds => {
  const load = loadFrom(samples);
  return createSounds(rate, undefined, (own, shape, at) =>
    'loop' in own ? renderLoop(own.loop, shape, at, load) : renderVoice(own.voice, shape, at, load),
  );
};

/** The samples of a beat's own sounds that are not at hand, by the names of their files. */
export const missingOf = (beat: Beat, samples: ReadonlyMap<string, Uint8Array>): string[] => {
  return [
    ...new Set(
      samplesOfBeat(beat)
        .filter(({ id }) => !samples.has(id))
        .map(({ file }) => file),
    ),
  ];
};
