import { openDB } from 'idb';
import type { BeatFolder } from '../state/beatFolder';

/** A folder of the machine, where the browser gives one: chosen by the person, and remembered. */

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

const folderOf = (handle: Handle): ChosenFolder => ({
  name: handle.name,
  folder: {
    names: async () => {
      const names: string[] = [];
      for await (const [name, entry] of handle.entries()) if (entry.kind === 'file') names.push(name);
      return names.sort();
    },
    read: async (name) => (await (await handle.getFileHandle(name)).getFile()).text(),
    write: async (name, text) => {
      // It is written beside and put in place at the end: nobody reads half a file.
      const stream = await (await handle.getFileHandle(name, { create: true })).createWritable();
      await stream.write(text);
      await stream.close();
    },
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
