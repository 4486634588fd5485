import { Unzip, UnzipInflate, type UnzipFile } from 'fflate';
import {
  ARCHIVE_BOUNDS,
  climbs,
  FILE_BOUNDS,
  isHousekeeping,
  isMidiName,
  type LeftOut,
} from '../../core/groove/importing';
import { words } from '../words/workers';

/** A file out of an archive. */
export interface Unpacked {
  path: string;
  bytes: Uint8Array;
}

/** What came out of an archive, and what was left in it. */
export interface Archive {
  files: Unpacked[];
  left: LeftOut[];
}

const joined = (pieces: Uint8Array[], size: number): Uint8Array => {
  const out = new Uint8Array(size);
  let at = 0;
  for (const piece of pieces) {
    out.set(piece, at);
    at += piece.length;
  }
  return out;
};

/** How many bytes of an archive are taken at once: it is looked at in between whether it swells. */
const PIECE = 64 * 1024;

const SWELLS = words.itUnpacksToMoreThan;

const ENDS = [0x50, 0x4b];

/**
 * Unpacks the MIDI files of a ZIP. It is unpacked piece by piece, so that one made to swell is stopped when it does;
 * what it says of its own sizes is not trusted.
 *
 * @param name the archive's, which becomes the outermost folder
 */
export const unpack = (bytes: Uint8Array, name: string): Archive => {
  const archive: Archive = { files: [], left: [] };
  const leave = (path: string, why: string) => archive.left.push({ path: `${name}/${path}`, why });
  if (bytes[0] !== ENDS[0] || bytes[1] !== ENDS[1]) {
    archive.left.push({ path: name, why: words.itIsNotAZip });
    return archive;
  }
  let swollen = 0;
  let stopped = false;
  let open: string | null = null;
  const begin = (file: UnzipFile) => {
    if (stopped || file.name.endsWith('/') || isHousekeeping(file.name)) return;
    if (climbs(file.name)) return void leave(file.name, words.itsPathLeadsOutOf);
    if (!isMidiName(file.name)) return void leave(file.name, words.itIsNotAMidi);
    if (archive.files.length >= ARCHIVE_BOUNDS.files) return void leave(file.name, words.anArchiveMayHold);
    const pieces: Uint8Array[] = [];
    let size = 0;
    let given = false;
    const giveUp = (why: string) => {
      if (given) return;
      given = true;
      leave(file.name, why);
      file.terminate();
    };
    open = file.name;
    file.ondata = (error, piece, last) => {
      if (error) {
        open = null;
        return giveUp(words.itIsDamagedInThe);
      }
      swollen += piece.length;
      size += piece.length;
      if (swollen > ARCHIVE_BOUNDS.bytes) {
        stopped = true;
        return giveUp(SWELLS);
      }
      if (size > FILE_BOUNDS.bytes) return giveUp(words.itIsLargerThan4);
      pieces.push(piece);
      if (!last || given) return;
      open = null;
      archive.files.push({ path: `${name}/${file.name}`, bytes: joined(pieces, size) });
    };
    file.start();
  };
  const unzip = new Unzip(begin);
  unzip.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length && !stopped; at += PIECE)
      unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
  } catch {
    archive.left.push({
      path: name,
      why: words.theArchiveIsDamagedWhat,
    });
    return archive;
  }
  if (open && !stopped) leave(open, words.itIsCutShortIn);
  if (!archive.files.length && !archive.left.length)
    archive.left.push({ path: name, why: words.nothingWasFoundInIt });
  return archive;
};
