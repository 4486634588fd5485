/** Reads the folder of grooves, away from the thread that answers requests: what is new or changed, and what is gone. */
import { lstat, readdir, realpath } from 'node:fs/promises';
import path from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import { importFile, isHousekeeping, isMidiName, FILE_BOUNDS } from '../core/groove/importing';
import { storedEntry, type FolderEntry } from '../core/groove/folderPage';
import { GENERAL_MIDI } from '../core/midi/drumMap/drumMap';
import { readPlain } from './plainFile';
import { indexFile, keepIndex, readIndex, UNREADABLE, type GrooveIndex, type Known } from './grooveIndex';

/** What the worker tells: a piece of what it found, or that it has been through. */
export type FromGrooves =
  | { type: 'found'; path: string; entry: FolderEntry }
  | { type: 'left'; path: string; why: string }
  | { type: 'gone'; path: string }
  | { type: 'through' };

/** What is looked at, at the most. */
export const FOLDER_BOUNDS = { files: 20_000, depth: 16 } as const;

/** The files of a folder, by their paths in it. Links are not followed: they may lead anywhere. */
async function* filesIn(root: string, under = '', depth = 0): AsyncGenerator<string> {
  if (depth > FOLDER_BOUNDS.depth) return;
  const entries = await readdir(path.join(root, under), { withFileTypes: true }).catch(() => []);
  for (const entry of entries.sort((a, b) => a.name.localeCompare(b.name))) {
    const at = under ? `${under}/${entry.name}` : entry.name;
    if (isHousekeeping(at)) continue;
    if (entry.isDirectory()) yield* filesIn(root, at, depth + 1);
    else if (entry.isFile() && isMidiName(at)) yield at;
  }
}

const say = (message: FromGrooves) => parentPort?.postMessage(message);

/** What a file is, once it has been read. */
const readOne = async (root: string, at: string, size: number): Promise<Pick<Known, 'entry' | 'why'>> => {
  if (size > FILE_BOUNDS.bytes) return { why: 'It is larger than 4 MB.' };
  const bytes = await readPlain(root, at, FILE_BOUNDS.bytes);
  if (!bytes) return { why: UNREADABLE };
  const read = importFile(new Uint8Array(bytes), { path: at, source: 'folder', map: GENERAL_MIDI });
  return read.ok ? { entry: storedEntry(read.value.indexed) } : { why: read.value.why };
};

const tell = (at: string, { entry, why }: Known): void => {
  if (entry) say({ type: 'found', path: at, entry });
  else say({ type: 'left', path: at, why: why ?? '' });
};

/** @returns whether the file is another one than before */
const lookAt = async (root: string, at: string, index: GrooveIndex, told: Set<string>): Promise<boolean> => {
  const stat = await lstat(path.join(root, at)).catch(() => null);
  if (!stat?.isFile()) return false;
  const known = index.get(at);
  const same = known?.changed === stat.mtimeMs && known.size === stat.size;
  if (same && told.has(at)) return false;
  const now = same
    ? known
    : { changed: stat.mtimeMs, size: stat.size, ...(await readOne(root, at, stat.size)) };
  index.set(at, now);
  told.add(at);
  tell(at, now);
  return !same;
};

/** What was left out without being read; each is said once. */
const leftOut = new Set<string>();
const leave = (at: string, why: string): void => {
  if (leftOut.has(at)) return;
  leftOut.add(at);
  say({ type: 'left', path: at, why });
};

/** Goes through the folder once. @returns whether anything has changed */
const look = async (root: string, index: GrooveIndex, told: Set<string>): Promise<boolean> => {
  const there = new Set<string>();
  let changed = false;
  for await (const at of filesIn(root)) {
    if (there.size >= FOLDER_BOUNDS.files) {
      leave(
        at,
        `The folder holds more than ${FOLDER_BOUNDS.files.toLocaleString('en')} files: this one and those after it are not listed.`,
      );
      break;
    }
    if (at.includes('\uFFFD')) {
      leave(at, 'Its name is not in Unicode: it could not be asked for by it.');
      continue;
    }
    there.add(at);
    if (await lookAt(root, at, index, told)) changed = true;
  }
  for (const at of index.keys())
    if (!there.has(at)) {
      index.delete(at);
      changed = true;
      if (told.delete(at)) say({ type: 'gone', path: at });
    }
  say({ type: 'through' });
  return changed;
};

const { folder, every, keptIn } = workerData as { folder: string; every: number; keptIn: string | null };

const run = async (): Promise<void> => {
  const file = keptIn && indexFile(keptIn, folder);
  const index = file ? await readIndex(file, folder) : new Map<string, Known>();
  const told = new Set<string>();
  for (;;) {
    const root = await realpath(folder).catch(() => null);
    if (!root) say({ type: 'through' });
    else if ((await look(root, index, told)) && file) await keepIndex(file, folder, index);
    await new Promise((resolve) => setTimeout(resolve, every));
  }
};

void run();
