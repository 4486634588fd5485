import { wrap, type Remote } from 'comlink';
import type { Read } from '../../core/document/file';
import type { read as readHere, Readers } from './readers';
import { words } from '../words/workers';

/** No file may take longer: its worker is ended, and the next file gets a new one. */
export const MOST_MS = 10_000;

type Given<K extends keyof Readers> = Parameters<Readers[K]>;
type Got<K extends keyof Readers> = ReturnType<Readers[K]> extends Read<infer T> ? T : never;

interface Far {
  read: typeof readHere;
}

let worker: Worker | null = null;
let remote: Remote<Far> | null = null;
let failed: Promise<never> | null = null;

const end = (): void => {
  worker?.terminate();
  [worker, remote, failed] = [null, null, null];
};

const start = (): { remote: Remote<Far>; failed: Promise<never> } => {
  if (remote && failed) return { remote, failed };
  const made = new Worker(new URL('./readWorker', window.location.href));
  worker = made;
  remote = wrap<Far>(made);
  failed = new Promise<never>((_, reject) => {
    made.onerror = () => reject(new Error('failed'));
  });
  failed.catch(() => undefined);
  return { remote, failed };
};

const LATE = words.itTookTooLong;
const FAILED = words.itCouldNotBeRead;

/**
 * Has a file read beside the page, so that none can hold it up.
 *
 * @returns what was read; a sentence where it cannot be, or takes longer than ten seconds
 */
export const readAside = async <K extends keyof Readers>(
  what: K,
  ...given: Given<K>
): Promise<Read<Got<K>>> => {
  const { remote: one, failed: broken } = start();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<'late'>((resolve) => {
    timer = setTimeout(() => resolve('late'), MOST_MS);
  });
  try {
    const call = (one.read as unknown as (of: K, all: Given<K>) => Promise<Read<Got<K>>>)(what, given);
    const read = await Promise.race([call, late, broken]);
    if (read !== 'late') return read;
    end();
    return { ok: false, error: LATE };
  } catch {
    end();
    return { ok: false, error: FAILED };
  } finally {
    clearTimeout(timer);
  }
};
