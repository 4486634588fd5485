/** What is known of the files of a groove folder, kept from one start of the server to the next. */
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import path from 'node:path';
import type { FolderEntry } from '../core/groove/folderPage';

/** What a file was found to be when it was last read, and when and how large it was then. */
export interface Known {
  /** In ms, as the file system has it. */
  changed: number;
  size: number;
  /** What it is, or why it was left out. */
  entry?: FolderEntry;
  why?: string;
}

/** Not kept: what stood in the way may be gone at the next start, though the file has not changed. */
export const UNREADABLE = 'It could not be read.';

export type GrooveIndex = Map<string, Known>;

/** Goes up whenever files are read in another way: what was kept before is then read anew. */
const VERSION = 2;

interface Kept {
  version: number;
  folder: string;
  files: [string, Known][];
}

/** Where the index of a folder lies among those of other folders. */
export const indexFile = (keptIn: string, folder: string): string =>
  path.join(keptIn, `grooves-${createHash('sha256').update(folder).digest('hex').slice(0, 16)}.json`);

/** What was kept of a folder; nothing where there is none, or it cannot be read: the files themselves are always there. */
export const readIndex = async (file: string, folder: string): Promise<GrooveIndex> => {
  try {
    const kept = JSON.parse(await readFile(file, 'utf8')) as Partial<Kept>;
    if (kept.version !== VERSION || kept.folder !== folder || !Array.isArray(kept.files)) return new Map();
    return new Map(kept.files.filter(([, known]) => known.entry !== undefined || known.why !== undefined));
  } catch {
    return new Map();
  }
};

/** Keeps an index: written beside its place and put there whole, so that a stop in the midst of it leaves the old one. */
export const keepIndex = async (file: string, folder: string, index: GrooveIndex): Promise<void> => {
  const files = [...index].filter(([, { why }]) => why !== UNREADABLE);
  const kept: Kept = { version: VERSION, folder, files };
  try {
    await mkdir(path.dirname(file), { recursive: true });
    const beside = `${file}.${process.pid}`;
    await writeFile(beside, JSON.stringify(kept));
    await rename(beside, file);
  } catch {
    // Without it the next start reads the folder again.
  }
};
