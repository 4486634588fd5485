import { readMidiFile } from '../core/midi/read/readMidi';
import { mkdir, readdir, readFile, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
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

/** The bytes of a file, or a sentence that says why not. */
export const bytesOf = async (file: string): Promise<Uint8Array> =>
  new Uint8Array(
    await readFile(file).catch((fault: NodeJS.ErrnoException) => {
      throw new InputFault(`“${file}” could not be read: ${reason(fault, 'there is no such file')}.`);
    }),
  );

export const textOf = async (file: string): Promise<string> => new TextDecoder().decode(await bytesOf(file));

export const writeOut = (file: string, data: Uint8Array | string): Promise<void> =>
  writeFile(file, data).catch((fault: NodeJS.ErrnoException) => {
    throw new InputFault(`“${file}” could not be written: ${reason(fault, 'there is no such folder')}.`);
  });

export const midiOf = async (file: string): Promise<MidiFile> => {
  const midi = readMidiFile(await bytesOf(file));
  if (!midi.ok) throw new InputFault(`“${file}” could not be read. ${midi.error}`);
  return midi.value;
};

export const isFolder = async (file: string): Promise<boolean> =>
  (await stat(file).catch(() => null))?.isDirectory() ?? false;

/** The MIDI files of a folder and of those in it, by their paths within it, in order. */
export const midiFilesIn = async (folder: string): Promise<string[]> =>
  (await readdir(folder, { recursive: true })).filter((name) => /\.midi?$/i.test(name)).sort();

export const makeFolder = async (folder: string): Promise<void> => {
  await mkdir(folder, { recursive: true }).catch((fault: NodeJS.ErrnoException) => {
    throw new InputFault(`“${folder}” could not be made: ${reason(fault, 'there is no such place')}.`);
  });
};

/** What goes to standard error: one sentence a line. */
export const warn = (sentence: string): void => {
  process.stderr.write(`${sentence}\n`);
};

export const baseName = (file: string): string => path.basename(file);
