import { constants } from 'node:fs';
import { open, readlink, realpath, stat, type FileHandle } from 'node:fs/promises';
import path from 'node:path';

/** Whether a place lies in a folder. */
const isWithin = (root: string, place: string): boolean => {
  const way = path.relative(root, place);
  return way !== '' && !way.startsWith('..') && !path.isAbsolute(way);
};

/** Where an opened file lies: as the system knows it where it tells, since any way to it may be another one by now. */
const whereIs = async (handle: FileHandle, file: string): Promise<string> => {
  const known = await readlink(`/proc/self/fd/${handle.fd}`).catch(() => null);
  if (known !== null) return known;
  const to = await realpath(file);
  const [opened, there] = await Promise.all([handle.stat(), stat(to)]);
  if (there.ino !== opened.ino || there.dev !== opened.dev) throw new Error('It has been exchanged.');
  return to;
};

/**
 * Reads a plain file that lies in a folder when all links on the way to it have been followed. What was opened is what is
 * checked: the way to it may become another one at any moment. A pipe or a device is never waited for.
 *
 * @param at its path in the folder
 * @param most how many bytes it may have
 * @returns null for whatever else lies there
 */
export const readPlain = async (root: string, at: string, most: number): Promise<Buffer | null> => {
  const file = path.join(root, at);
  try {
    const handle = await open(file, constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK);
    try {
      const opened = await handle.stat();
      if (!opened.isFile() || opened.size > most) return null;
      const [from, to] = await Promise.all([realpath(root), whereIs(handle, file)]);
      if (!isWithin(from, to)) return null;
      return await handle.readFile();
    } finally {
      await handle.close();
    }
  } catch {
    return null;
  }
};
