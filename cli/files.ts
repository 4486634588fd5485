import { readMidiFile } from '../core/midi/read/readMidi';
import { randomUUID } from 'node:crypto';
import { mkdir, open, readdir, readFile, realpath, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { FILE_BOUNDS } from '../core/midi/read/limits';
import type { MidiFile } from '../core/midi/read/midiFile';
import { InputFault } from './fault';

const REASONS: Record<string, string> = {
  EISDIR: 'it is a folder, and a file is wanted',
  EEXIST: 'there is a file of that name',
  ENOTDIR: 'a file stands where a folder is wanted',
  EACCES: 'this account may not do that there',
  EPERM: 'this account may not do that there',
  EROFS: 'nothing can be written there',
  ENOSPC: 'the disk is full',
  ENAMETOOLONG: 'its name is too long',
};

const reason = (fault: NodeJS.ErrnoException, missing: string): string =>
  fault.code === 'ENOENT' ? missing : (REASONS[fault.code ?? ''] ?? fault.message);

const unread = (file: string) => (fault: NodeJS.ErrnoException) => {
  throw new InputFault(`“${file}” could not be read: ${reason(fault, 'there is no such file')}.`);
};

/** The bytes of a file, or a sentence that says why not. */
export const bytesOf = async (file: string): Promise<Uint8Array> =>
  new Uint8Array(await readFile(file).catch(unread(file)));

/**
 * The bytes of a MIDI file. Of one that is larger than such a file may be no more is read than what tells that it is.
 */
export const midiBytesOf = async (file: string): Promise<Uint8Array> => {
  const most = FILE_BOUNDS.bytes + 1;
  const { size } = await stat(file).catch(unread(file));
  if (size < most) return bytesOf(file);
  const handle = await open(file).catch(unread(file));
  try {
    return (await handle.read(new Uint8Array(most), 0, most, 0).catch(unread(file))).buffer;
  } finally {
    await handle.close();
  }
};

export const fileTextOf = async (file: string): Promise<string> =>
  new TextDecoder().decode(await bytesOf(file));

/** Where nothing may be put beside a file, it may be written itself all the same. */
const NOT_BESIDE = ['EACCES', 'EPERM', 'EROFS'];

/** Writes beside the place and moves it there: what was there stays whole until all of the new is. */
const moveIntoPlace = async (file: string, data: Uint8Array | string): Promise<void> => {
  // Through a link to what it leads to; what is no file, such as a pipe, is written to as it is.
  const place = await realpath(file).catch(() => file);
  const there = await stat(place).catch(() => null);
  if (there && !there.isFile()) return writeFile(place, data);
  const beside = path.join(
    path.dirname(place),
    `.${path.basename(place).slice(0, 80)}.${randomUUID().slice(0, 8)}`,
  );
  try {
    await writeFile(beside, data, there ? { mode: there.mode & 0o7777 } : {});
    await rename(beside, place);
  } catch (fault) {
    await rm(beside, { force: true });
    if (there && NOT_BESIDE.includes((fault as NodeJS.ErrnoException).code ?? ''))
      return writeFile(place, data);
    throw fault;
  }
};

/** Writes a file whole or not at all, or says why not in a sentence. */
export const writeOut = (file: string, data: Uint8Array | string): Promise<void> =>
  moveIntoPlace(file, data).catch((fault: NodeJS.ErrnoException) => {
    throw new InputFault(`“${file}” could not be written: ${reason(fault, 'there is no such folder')}.`);
  });

export const midiFileOf = async (file: string): Promise<MidiFile> => {
  const midi = readMidiFile(await midiBytesOf(file));
  if (!midi.ok) throw new InputFault(`“${file}” could not be read. ${midi.error}`);
  return midi.value;
};

export const isFolder = async (file: string): Promise<boolean> =>
  (await stat(file).catch(() => null))?.isDirectory() ?? false;

/**
 * The MIDI files of a folder and of those in it, by their paths within it, in order. Each folder is gone through once, however many
 * links lead to it.
 */
export const midiFilesIn = async (folder: string): Promise<string[]> => {
  const found: string[] = [];
  const seen = new Set<string>();
  const waiting = [''];
  for (let within = waiting.pop(); within !== undefined; within = waiting.pop()) {
    const place = path.join(folder, within);
    const real = await realpath(place).catch(() => place);
    if (seen.has(real)) continue;
    seen.add(real);
    for (const entry of await readdir(place, { withFileTypes: true }).catch(unread(place))) {
      const name = path.join(within, entry.name);
      const isLink = entry.isSymbolicLink();
      if (entry.isDirectory() || (isLink && (await isFolder(path.join(folder, name))))) waiting.push(name);
      else if (/\.midi?$/i.test(entry.name)) found.push(name);
    }
  }
  return found.sort();
};

export const makeFolder = async (folder: string): Promise<void> => {
  await mkdir(folder, { recursive: true }).catch((fault: NodeJS.ErrnoException) => {
    throw new InputFault(`“${folder}” could not be made: ${reason(fault, 'there is no such place')}.`);
  });
};

/** What goes to standard error: one sentence a line. */
export const warn = (sentence: string): void => {
  process.stderr.write(`${sentence}\n`);
};
