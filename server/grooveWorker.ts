/** Reads the folder of grooves, away from the thread that answers requests: what is new or changed, and what is gone. */
import { lstat, readdir, readFile, realpath } from 'node:fs/promises';
import path from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import { importFile, isHousekeeping, isMidiName, FILE_BOUNDS } from '../core/groove/importing';
import { storedEntry, type FolderEntry } from '../core/groove/folderPage';
import { GENERAL_MIDI } from '../core/midi/drumMap';

/** What the worker tells: a piece of what it found, or that it has been through. */
export type FromGrooves =
  | { type: 'found'; path: string; entry: FolderEntry }
  | { type: 'left'; path: string; why: string }
  | { type: 'gone'; path: string }
  | { type: 'through' };

/** What is looked at, at the most. */
export const FOLDER_BOUNDS = { files: 20_000, depth: 16 } as const;

interface Seen {
  changed: number;
  size: number;
}

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

const readOne = async (root: string, at: string, seen: Map<string, Seen>): Promise<void> => {
  const stat = await lstat(path.join(root, at)).catch(() => null);
  if (!stat?.isFile()) return;
  const before = seen.get(at);
  if (before && before.changed === stat.mtimeMs && before.size === stat.size) return;
  seen.set(at, { changed: stat.mtimeMs, size: stat.size });
  if (stat.size > FILE_BOUNDS.bytes) return say({ type: 'left', path: at, why: 'It is larger than 4 MB.' });
  const bytes = await readFile(path.join(root, at)).catch(() => null);
  if (!bytes) return say({ type: 'left', path: at, why: 'It could not be read.' });
  const read = importFile(new Uint8Array(bytes), { path: at, source: 'folder', map: GENERAL_MIDI });
  if (read.ok) say({ type: 'found', path: at, entry: storedEntry(read.value.indexed) });
  else say({ type: 'left', path: at, why: read.value.why });
};

/** Goes through the folder once. */
const look = async (root: string, seen: Map<string, Seen>): Promise<void> => {
  const there = new Set<string>();
  for await (const at of filesIn(root)) {
    if (there.size >= FOLDER_BOUNDS.files) break;
    there.add(at);
    await readOne(root, at, seen);
  }
  for (const at of seen.keys())
    if (!there.has(at)) {
      seen.delete(at);
      say({ type: 'gone', path: at });
    }
  say({ type: 'through' });
};

const { folder, every } = workerData as { folder: string; every: number };

const run = async (): Promise<void> => {
  const seen = new Map<string, Seen>();
  for (;;) {
    const root = await realpath(folder).catch(() => null);
    if (root) await look(root, seen);
    else say({ type: 'through' });
    await new Promise((resolve) => setTimeout(resolve, every));
  }
};

void run();
