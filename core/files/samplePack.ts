import { strToU8, Unzip, UnzipInflate, zipSync, type UnzipFile } from 'fflate';
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
/** Nor has either so long a text. */
const MOST_TEXT = 64 * 1024 * 1024;

/** Whether bytes begin as a ZIP does. @example isZip(Uint8Array.of(0x50, 0x4b, 3, 4)) // true */
export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** So many bytes are taken at once: it is looked at in between whether it swells. */
const PIECE = 64 * 1024;

const joined = (pieces: Uint8Array[], size: number): Uint8Array => {
  const out = new Uint8Array(size);
  let at = 0;
  for (const piece of pieces) {
    out.set(piece, at);
    at += piece.length;
  }
  return out;
};

/** The record at the end of a whole ZIP: behind it stands no more than a remark of 64 KB. */
const END = [0x50, 0x4b, 5, 6];
const isWhole = (bytes: Uint8Array): boolean => {
  for (let at = bytes.length - 22; at >= Math.max(0, bytes.length - 22 - 0xffff); at--)
    if (END.every((byte, i) => bytes[at + i] === byte)) return true;
  return false;
};

const SWELLS = 'It unpacks to more than such a file may hold (400 MB, 1,024 files).';
const LIES = 'It is a ZIP, but a file in it is longer than it says.';
const LONG = 'A text in it is longer than any of Ruddik is (64 MB).';
const DAMAGED = 'It is a ZIP, but a damaged one.';

/**
 * Unpacks a ZIP, by the names of its files. It is unpacked piece by piece: one that is made to swell is stopped when it does, and
 * a file at what it claims to hold.
 *
 * @returns a sentence for a person where it is none, is damaged, or swells beyond 400 MB or 1,024 files
 * @example unpackSamples(new Uint8Array(4)) // { ok: false, error: 'It is no ZIP.' }
 */
export const unpackSamples = (bytes: Uint8Array): Read<ReadonlyMap<string, Uint8Array>> => {
  if (!isZip(bytes)) return { ok: false, error: 'It is no ZIP.' };
  if (!isWhole(bytes)) return { ok: false, error: DAMAGED };
  const files = new Map<string, Uint8Array>();
  let [all, count, open] = [0, 0, 0];
  let fault: string | null = null;
  const begin = (file: UnzipFile) => {
    count += 1;
    if (fault || count > MOST_FILES || (file.originalSize ?? 0) > MOST_BYTES) {
      fault ??= SWELLS;
      return;
    }
    const isText = file.name.endsWith('.json');
    if (isText && (file.originalSize ?? 0) > MOST_TEXT) {
      fault = LONG;
      return;
    }
    const pieces: Uint8Array[] = [];
    let size = 0;
    open += 1;
    file.ondata = (error, piece, last) => {
      if (fault) return;
      if (error) {
        fault = DAMAGED;
        return;
      }
      size += piece.length;
      all += piece.length;
      if (all > MOST_BYTES) fault = SWELLS;
      else if (isText && size > MOST_TEXT) fault = LONG;
      else if (file.originalSize !== undefined && size > file.originalSize) fault = LIES;
      if (fault) return file.terminate();
      pieces.push(piece);
      if (!last) return;
      open -= 1;
      files.set(file.name, joined(pieces, size));
    };
    file.start();
  };
  const unzip = new Unzip(begin);
  unzip.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length && !fault; at += PIECE)
      unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
  } catch {
    fault ??= DAMAGED;
  }
  if (fault ?? open) return { ok: false, error: fault ?? DAMAGED };
  return { ok: true, value: files };
};
