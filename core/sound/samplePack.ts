import { strToU8, unzipSync, zipSync } from 'fflate';
import type { Read } from '../document/reading';
import type { Sample } from '../document/soundSchema';

/** A ZIP of a text and the samples that it speaks of: kit files and beats with their sounds. */

const FOLDER = 'samples/';

/** Where in the ZIP each sample is, by its id. No name leads out of the folder, and none is there twice. */
export const pathsFor = (samples: Sample[]): Map<string, string> => {
  const taken = new Set<string>();
  return new Map(
    samples.map(({ id, file }) => {
      const safe = file.replace(/[\\/:*?"<>|]/g, '_').replace(/^\.+/, '_');
      let name = safe;
      for (let n = 2; taken.has(name.toLowerCase()); n++) name = safe.replace(/(\.[^.]*)?$/, ` ${n}$1`);
      taken.add(name.toLowerCase());
      return [id, FOLDER + name];
    }),
  );
};

/**
 * Packs a text and samples.
 *
 * @param name what the text is called in it
 * @param paths where each sample is to be, by its id
 * @param bytes by the id of each sample; one that is not there is left out
 */
export const pack = (
  name: string,
  text: string,
  paths: ReadonlyMap<string, string>,
  bytes: ReadonlyMap<string, Uint8Array>,
): Uint8Array => {
  const files: Record<string, [Uint8Array, { level: 0 | 6 }]> = { [name]: [strToU8(text), { level: 6 }] };
  // Audio hardly gets smaller, and packing it takes time.
  for (const [id, path] of paths) if (bytes.has(id)) files[path] = [bytes.get(id)!, { level: 0 }];
  return zipSync(files, { mtime: new Date('2020-01-01T00:00:00Z') });
};

/** More than this is neither a kit nor a beat. */
const MOST_BYTES = 400 * 1024 * 1024;
const MOST_FILES = 1024;

/** Whether bytes begin as a ZIP does. @example isZip(Uint8Array.of(0x50, 0x4b, 3, 4)) // true */
export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/**
 * Unpacks a ZIP, by the names of its files.
 *
 * @returns a sentence for a person where it is none, is damaged, or swells beyond 400 MB or 1,024 files
 * @example unpack(new Uint8Array(4)) // { ok: false, error: 'It is no ZIP.' }
 */
export const unpack = (bytes: Uint8Array): Read<Record<string, Uint8Array>> => {
  if (!isZip(bytes)) return { ok: false, error: 'It is no ZIP.' };
  let [all, count] = [0, 0];
  let swells = false;
  try {
    const files = unzipSync(bytes, {
      filter: ({ originalSize }) => {
        all += originalSize;
        count += 1;
        swells ||= all > MOST_BYTES || count > MOST_FILES;
        return !swells;
      },
    });
    return swells
      ? { ok: false, error: 'It unpacks to more than such a file may hold (400 MB, 1,024 files).' }
      : { ok: true, value: files };
  } catch {
    return { ok: false, error: 'It is a ZIP, but a damaged one.' };
  }
};
