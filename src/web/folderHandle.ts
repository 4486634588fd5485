import { openDB } from 'idb';
import { numbered } from '../../core/document/numbered';
import type { BeatFolder } from '../keeping/beatFolder';

/** A folder of the machine, where the browser gives one: chosen by the person, and remembered. */

/** What a file's name ends in: numbers go before it. */
const ENDING = /(\.ruddik)?\.json$/;

type Mode = { mode: 'readwrite' };
type Handle = FileSystemDirectoryHandle & {
  queryPermission?: (mode: Mode) => Promise<PermissionState>;
  requestPermission?: (mode: Mode) => Promise<PermissionState>;
  entries: () => AsyncIterable<[string, FileSystemHandle]>;
};
type Picker = (options: Mode & { id: string }) => Promise<Handle>;

const READ_WRITE: Mode = { mode: 'readwrite' };
const picker = (): Picker | undefined =>
  (window as unknown as { showDirectoryPicker?: Picker }).showDirectoryPicker;

const kept = () => openDB('ruddik.folder', 1, { upgrade: (db) => void db.createObjectStore('folder') });

/** Whether the browser has folders to give. */
export const hasFolders = (): boolean => picker() !== undefined;

export interface ChosenFolder {
  name: string;
  folder: BeatFolder;
}

/** Where files of deleted beats go. */
const AWAY = 'deleted';

const writeFile = async (handle: FileSystemDirectoryHandle, name: string, text: string): Promise<void> => {
  // It is written beside and put in place at the end: nobody reads half a file.
  const stream = await (await handle.getFileHandle(name, { create: true })).createWritable();
  await stream.write(text);
  await stream.close();
};

const namesIn = async (handle: Handle): Promise<string[]> => {
  const names: string[] = [];
  for await (const [name, entry] of handle.entries()) if (entry.kind === 'file') names.push(name);
  return names.sort();
};

const textIn = async (handle: FileSystemDirectoryHandle, name: string): Promise<string> =>
  (await (await handle.getFileHandle(name)).getFile()).text();

const folderOf = (handle: Handle): ChosenFolder => ({
  name: handle.name,
  folder: {
    names: () => namesIn(handle),
    read: (name) => textIn(handle, name),
    write: (name, text) => writeFile(handle, name, text),
    remove: (name) => handle.removeEntry(name),
    putAway: async (name) => {
      const away = (await handle.getDirectoryHandle(AWAY, { create: true })) as Handle;
      const [bare, ending] = [name.replace(ENDING, ''), ENDING.exec(name)?.[0] ?? ''];
      const taken = (await namesIn(away)).map((one) => one.replace(ENDING, ''));
      await writeFile(away, numbered(bare, taken) + ending, await textIn(handle, name));
      await handle.removeEntry(name);
    },
    putAwayFiles: async () => {
      const away = (await handle.getDirectoryHandle(AWAY).catch(() => null)) as Handle | null;
      if (!away) return [];
      return Promise.all(
        (await namesIn(away)).map(async (name) => ({ name, text: await textIn(away, name) })),
      );
    },
    removeAway: async (name) => (await handle.getDirectoryHandle(AWAY)).removeEntry(name),
  },
});

/** Asks for a folder; null where the person does not choose one. */
export const chooseFolder = async (): Promise<ChosenFolder | null> => {
  const handle = await picker()?.({ ...READ_WRITE, id: 'beats' }).catch(() => null);
  if (!handle) return null;
  await (await kept()).put('folder', handle, 'beats').catch(() => undefined);
  return folderOf(handle);
};

/** The folder of the last visit. @param asks whether the person may be asked for leave again: only at a press */
export const rememberedFolder = async (
  asks: boolean,
): Promise<ChosenFolder | { name: string; folder: null } | null> => {
  const handle = (await (await kept()).get('folder', 'beats').catch(() => undefined)) as Handle | undefined;
  if (!handle) return null;
  const may = await (asks ? handle.requestPermission : handle.queryPermission)?.call(handle, READ_WRITE);
  return may === undefined || may === 'granted' ? folderOf(handle) : { name: handle.name, folder: null };
};

export const forgetFolder = async (): Promise<void> => {
  await (await kept()).delete('folder', 'beats');
};
