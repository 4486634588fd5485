/** Reads MIDI files and archives of them, and keeps them: the page only hears how far it is. */
import { browserStorage } from '../state/storage';
import { keepFiles } from '../state/importedFiles';
import {
  importFile,
  isHousekeeping,
  isMidiName,
  isZipName,
  FILE_BOUNDS,
  type LeftOut,
  type TakenIn,
} from '../../core/groove/importing';
import type { DrumMap } from '../../core/midi/drumMap';
import { unpack, type Unpacked } from './unzip';

export interface ImportAsked {
  type: 'import';
  files: { path: string; file: File }[];
  map: DrumMap;
}
export type ToImport = ImportAsked | { type: 'cancel' };

export type FromImport =
  | { type: 'progress'; done: number; total: number; taken: TakenIn[]; left: LeftOut[] }
  | { type: 'done'; cancelled: boolean; full: boolean };

/** How many files are read between two words to the page. */
const BATCH = 100;
const LARGEST_ZIP = 200 * 1024 * 1024;

const state = { cancelled: false };
const storage = browserStorage();
const say = (message: FromImport) => postMessage(message);
const breath = () => new Promise((resolve) => setTimeout(resolve, 0));

const bytesOf = async (file: File) => new Uint8Array(await file.arrayBuffer());

/** One of the files given: itself, or what it unpacks to. */
const opened = async ({
  path,
  file,
}: ImportAsked['files'][number]): Promise<{ files: Unpacked[]; left: LeftOut[] }> => {
  const leave = (why: string) => ({ files: [], left: [{ path, why }] });
  try {
    if (isZipName(path)) {
      if (file.size > LARGEST_ZIP) return leave('An archive is taken in up to 200 MB.');
      return unpack(await bytesOf(file), path.replace(/\.zip$/i, ''));
    }
    if (!isMidiName(path)) return leave('It is not a MIDI file.');
    if (file.size > FILE_BOUNDS.bytes) return leave('It is larger than 4 MB.');
    return { files: [{ path, bytes: await bytesOf(file) }], left: [] };
  } catch {
    return leave('The browser could not read it.');
  }
};

const run = async ({ files, map }: ImportAsked) => {
  state.cancelled = false;
  let [done, total] = [0, files.length];
  let full = false;
  let taken: TakenIn[] = [];
  let left: LeftOut[] = [];
  let bytes: Unpacked[] = [];
  const flush = async () => {
    if (taken.length) {
      try {
        await keepFiles(
          storage,
          taken.map(({ indexed }) => indexed),
          bytes,
        );
      } catch {
        full = true;
        left.push(
          ...taken.map(({ indexed }) => ({
            path: indexed.row.id.slice('imported/'.length),
            why: 'The browser’s storage is full.',
          })),
        );
        taken = [];
      }
    }
    say({ type: 'progress', done, total, taken, left });
    [taken, left, bytes] = [[], [], []];
    await breath();
  };
  for (const one of files) {
    if (state.cancelled || full) break;
    if (isHousekeeping(one.path)) {
      done += 1;
      continue;
    }
    const archive = await opened(one);
    left.push(...archive.left);
    total += Math.max(0, archive.files.length - 1);
    for (const file of archive.files) {
      if (state.cancelled || full) break;
      const read = importFile(file.bytes, { path: file.path, source: 'imported', map });
      if (read.ok) {
        taken.push(read.value);
        bytes.push(file);
      } else left.push(read.value);
      done += 1;
      if (taken.length + left.length >= BATCH) await flush();
    }
    if (!archive.files.length) done += 1;
  }
  await flush();
  say({ type: 'done', cancelled: state.cancelled, full });
};

onmessage = ({ data }: MessageEvent<ToImport>) => {
  if (data.type === 'cancel') state.cancelled = true;
  else void run(data);
};
