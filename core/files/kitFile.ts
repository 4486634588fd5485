import { strFromU8 } from 'fflate';
import { z } from 'zod';
import { MOST } from '../document/choices';
import { faultText, isRaw, parsed, type Read } from '../document/reading';
import { ownKitSchema, type OwnKit, type Sample } from '../document/soundSchema';
import { samplesIn } from '../samples/newVoice';
import { eachOnce } from '../samples/beatSamples';
import { pack, pathsFor, unpackSamples } from './samplePack';

/** A kit as a file: a ZIP with `kit.json` and the samples as they came. */

/** The version of `kit.json` that is read and written. */
const VERSION = 1;

const kitFileSchema = z.strictObject({
  kind: z.literal('ruddik.kit'),
  version: z.literal(VERSION),
  /** The kit below it. */
  kit: z.string().trim().min(1).max(MOST.name),
  ...ownKitSchema.shape,
  /** Where in the file each sample is, by its id. */
  samples: z.record(z.string(), z.string()),
});

/** A kit, and under it the kit that ships and plays what it does not have. */
export interface KitOnKit {
  kit: string;
  own: OwnKit;
}

/** The content of a kit file. */
export interface KitFile extends KitOnKit {
  /** By id. */
  samples: Map<string, Uint8Array>;
  /** The names of the files that are missing. */
  missing: string[];
}

/** All samples of a kit, each once. @example samplesOf({ name: 'Crates', voices: {} }) // [] */
export const samplesOf = ({ voices }: OwnKit): Sample[] =>
  eachOnce(Object.values(voices).flatMap((voice) => (voice ? samplesIn(voice) : [])));

/**
 * Writes a kit with its samples as one file.
 *
 * @param bytes by the id of each sample; one that is not there is left out, and missing for whoever opens it
 */
export const writeKit = ({ kit, own }: KitOnKit, bytes: ReadonlyMap<string, Uint8Array>): Uint8Array => {
  const paths = pathsFor(samplesOf(own));
  const json = {
    kind: 'ruddik.kit',
    version: VERSION,
    kit,
    ...own,
    samples: Object.fromEntries(paths),
  };
  return pack('kit.json', JSON.stringify(json, null, 1), paths, bytes);
};

/**
 * Reads a kit file.
 *
 * @param nameOf the id of a sample, by its bytes: one that is not what it is said to be counts as missing
 * @returns the kit, or a sentence for a person; it never throws
 */
export const readKit = async (
  bytes: Uint8Array,
  nameOf: (bytes: Uint8Array) => Promise<string>,
): Promise<Read<KitFile>> => {
  const files = unpackSamples(bytes);
  if (!files.ok) return files;
  const text = files.value.get('kit.json');
  if (files.value.get('beats.ruddik.json'))
    return { ok: false, error: 'It is a beat with its sounds: open it under Beats.' };
  if (!text) return { ok: false, error: 'It is a ZIP, but no kit: kit.json is missing.' };
  const json = parsed(strFromU8(text));
  if (!json.ok) return { ok: false, error: `Its kit.json could not be read. ${json.error}` };
  if (!isRaw(json.value) || json.value['kind'] !== 'ruddik.kit')
    return { ok: false, error: 'Its kit.json is JSON, but not a kit of Ruddik.' };
  if (typeof json.value['version'] === 'number' && json.value['version'] > VERSION)
    return { ok: false, error: 'It was saved by a newer Ruddik. Update Ruddik to open it.' };
  const checked = kitFileSchema.safeParse(json.value);
  if (!checked.success) return { ok: false, error: faultText(checked.error.issues, json.value) };
  const { kit, name, voices, samples: paths } = checked.data;
  const own = { name, voices };
  const samples = new Map<string, Uint8Array>();
  const missing: string[] = [];
  for (const { id, file } of samplesOf(own)) {
    const there = Object.hasOwn(paths, id) ? files.value.get(paths[id]!) : undefined;
    if (there && (await nameOf(there)) === id) samples.set(id, there);
    else missing.push(file);
  }
  return { ok: true, value: { kit, own, samples, missing } };
};
