import type { KeyValue } from '../keeping/storage';
import { keepFiles, knownFiles, type KnownFiles } from '../grooves/importedFiles';
import {
  importFile,
  isHousekeeping,
  isMidiName,
  isZipName,
  FILE_BOUNDS,
  type Indexed,
  type LeftOut,
  type TakenIn,
} from '../../core/groove/importing';
import type { DrumMap } from '../../core/midi/drumMap/drumMap';
import { unpack, type Unpacked } from './unzip';
import { words } from '../words/workers';

export interface GivenFile {
  path: string;
  file: File;
}

/** What comes of an import, piece by piece. */
export type FromImport =
  /** The next few files are wanted. */
  | { type: 'more' }
  /** @param given how many of the files that were given are finished, archives counted once */
  | { type: 'progress'; done: number; total: number; given: number; taken: TakenIn[]; left: LeftOut[] }
  | { type: 'done'; cancelled: boolean; full: boolean };

/** Files come a few at a time: handing over thousands at once would hold up the page for seconds. */
export interface Importer {
  /**
   * @param total how many files will be given
   * @param map by which their notes are read
   * @param say hears how far it is, and when more files are wanted
   */
  begin(total: number, map: DrumMap, say: (message: FromImport) => void): void;
  files(files: GivenFile[], last: boolean): void;
  cancel(): void;
}

/** How many files are read between two words to the page. */
const BATCH = 100;
const LARGEST_ZIP = 200 * 1024 * 1024;

interface Run {
  say: (message: FromImport) => void;
  map: DrumMap;
  done: number;
  given: number;
  total: number;
  /** What is kept already: looked up once. */
  known: Promise<KnownFiles>;
  full: boolean;
  taken: TakenIn[];
  left: LeftOut[];
  bytes: Unpacked[];
  cancelled: boolean;
  /** What was given is worked through in its order. */
  queue: Promise<void>;
}

/** Up to one byte more than is wanted: asking a file for its size costs more than reading it. */
const bytesOf = async (file: File, most: number): Promise<Uint8Array | null> => {
  const bytes = new Uint8Array(await file.slice(0, most + 1).arrayBuffer());
  return bytes.length > most ? null : bytes;
};

interface Opened {
  files: Unpacked[];
  left: LeftOut[];
}

/** One of the files given: itself, or what it unpacks to. */
const opened = async ({ path, file }: GivenFile): Promise<Opened> => {
  const leave = (why: string) => ({ files: [], left: [{ path, why }] });
  try {
    if (isHousekeeping(path)) return { files: [], left: [] };
    if (isZipName(path)) {
      const archive = await bytesOf(file, LARGEST_ZIP);
      if (!archive) return leave(words.anArchiveMayBeUpTo);
      return unpack(archive, path.replace(/\.zip$/i, ''));
    }
    if (!isMidiName(path)) return leave(words.itIsNotAMidi);
    const bytes = await bytesOf(file, FILE_BOUNDS.bytes);
    return bytes ? { files: [{ path, bytes }], left: [] } : leave(words.itIsLargerThan4);
  } catch {
    return leave(words.theBrowserCouldNotRead);
  }
};

const FULL = words.theBrowsersStorageIsFull;

/**
 * Reads MIDI files and archives of them, and keeps them: the page only hears how far it is.
 *
 * @param storage where they are kept
 */
export const createImporter = (storage: KeyValue): Importer => {
  let run: Run | null = null;

  /** Keeps what has been read, and says how far it is. */
  const flush = async (now: Run): Promise<void> => {
    const { taken, bytes } = now;
    if (taken.length) {
      try {
        const kept = await keepFiles(
          storage,
          taken.map(({ indexed }) => indexed),
          bytes,
          await now.known,
        );
        now.taken = taken.map((one, at) => ({ ...one, indexed: kept[at]! }));
      } catch {
        now.full = true;
        now.left.push(
          ...taken.map(({ indexed }) => ({ path: indexed.row.id.slice('imported/'.length), why: FULL })),
        );
        now.taken = [];
      }
    }
    now.say({
      type: 'progress',
      done: now.done,
      total: now.total,
      given: now.given,
      taken: now.taken,
      left: now.left,
    });
    [now.taken, now.left, now.bytes] = [[], [], []];
  };

  const readOne = async (now: Run, file: Unpacked): Promise<void> => {
    const read = importFile(file.bytes, { path: file.path, source: 'imported', map: now.map });
    if (read.ok) {
      now.taken.push(read.value);
      now.bytes.push(file);
    } else now.left.push(read.value);
    now.done += 1;
    if (now.taken.length + now.left.length >= BATCH) await flush(now);
  };

  const stopped = (now: Run): boolean => now.cancelled || now.full;

  const take = async (now: Run, archives: Promise<Opened>[]): Promise<void> => {
    for (const archive of archives) {
      const { files, left } = await archive;
      if (stopped(now)) return;
      now.left.push(...left);
      now.total += Math.max(0, files.length - 1);
      if (!files.length) now.done += 1;
      for (const file of files) if (!stopped(now)) await readOne(now, file);
      if (!stopped(now)) now.given += 1;
    }
  };

  const end = async (now: Run): Promise<void> => {
    await flush(now);
    now.say({ type: 'done', cancelled: now.cancelled, full: now.full });
    if (run === now) run = null;
  };

  const given = (now: Run, files: GivenFile[], last: boolean): void => {
    // Read ahead, while those before are still being worked through.
    const archives = stopped(now) ? [] : files.map(opened);
    if (!last && !stopped(now)) now.say({ type: 'more' });
    now.queue = now.queue.then(async () => {
      await take(now, archives);
      if (run === now && (last || stopped(now))) await end(now);
    });
  };

  return {
    begin: (total, map, say) => {
      // Where it cannot be read, nothing is known again; what comes is kept all the same, or it is told.
      const known = knownFiles(storage).catch(() => new Map<string, Indexed[]>());
      const fresh = {
        done: 0,
        given: 0,
        known,
        full: false,
        taken: [],
        left: [],
        bytes: [],
        cancelled: false,
      };
      run = { ...fresh, say, total, map, queue: Promise.resolve() };
      say({ type: 'more' });
    },
    files: (files, last) => {
      if (run) given(run, files, last);
    },
    cancel: () => {
      if (!run) return;
      run.cancelled = true;
      given(run, [], true);
    },
  };
};
