import type { Read } from '../../core/document/file';
import { createCaller, type Answer } from './caller';
import type { read as readHere, Readers } from './readers';
import { words } from '../words/workers';

/** No file may take longer: its worker is ended, and the next file gets a new one. */
export const MOST_MS = 10_000;

type Given<K extends keyof Readers> = Parameters<Readers[K]>;
type Got<K extends keyof Readers> = ReturnType<Readers[K]> extends Read<infer T> ? T : never;

const call = createCaller<{ read: typeof readHere }>(
  () => new Worker(new URL('./readWorker', window.location.href)),
  MOST_MS,
);

/** Has something read beside the page; what came of the call, its answer among it. */
export const askAside = <K extends keyof Readers>(
  what: K,
  ...given: Given<K>
): Promise<Answer<Read<Got<K>>>> =>
  call((far) => (far.read as unknown as (of: K, all: Given<K>) => Promise<Read<Got<K>>>)(what, given));

/**
 * Has a file read beside the page, so that none can hold it up.
 *
 * @returns what was read; a sentence where it cannot be, or takes longer than ten seconds
 */
export const readAside = async <K extends keyof Readers>(
  what: K,
  ...given: Given<K>
): Promise<Read<Got<K>>> => {
  const answer = await askAside(what, ...given);
  if (answer.ok) return answer.value;
  return { ok: false, error: answer.why === 'late' ? words.itTookTooLong : words.itCouldNotBeRead };
};
