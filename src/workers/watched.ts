import { renewScript } from '../web/mendKept';

/** Why a worker is no longer there: it could not be fetched or broke down, or the browser ended it. */
export type Gone = 'failed' | 'ended';

/** One that has not said that it lives after so many ms never will: it ended before it could. */
const START_MS = 6000;

/** A worker whose end is noticed. */
export interface Watched {
  worker: Worker;
  /** Ends it on purpose: of that nothing is told. */
  end(): void;
}

const lockIn = (data: unknown): string | null => {
  const { alive } = (typeof data === 'object' && data !== null ? data : {}) as { alive?: unknown };
  return typeof alive === 'string' && alive.startsWith('ruddik/worker/') ? alive : null;
};

/**
 * Makes a worker and tells, once, when it is no longer there.
 *
 * @param onGone hears it at once where the browser has locks; else only of a worker that cannot be fetched or breaks down
 */
export const watched = (make: () => Worker, onGone: (why: Gone) => void): Watched => {
  const waiting = new AbortController();
  let over = false;
  let starting: ReturnType<typeof setTimeout> | null = null;
  const stop = () => {
    over = true;
    if (starting) clearTimeout(starting);
    waiting.abort();
    worker.terminate();
  };
  const gone = (why: Gone) => {
    if (over) return;
    stop();
    onGone(why);
  };
  const worker = make();
  worker.addEventListener('error', ({ filename }) => {
    // What is no code is fetched past what the browser has kept of it, so that another worker does not come to the same.
    void renewScript(filename).then(() => gone('failed'));
  });
  worker.addEventListener('message', ({ data }: MessageEvent<unknown>) => {
    const lock = lockIn(data);
    if (lock === null || over) return;
    if (starting) clearTimeout(starting);
    // It is ours only once the worker has let go of it.
    void navigator.locks
      .request(lock, { signal: waiting.signal }, () => gone('ended'))
      .catch(() => undefined);
  });
  if (globalThis.navigator?.locks) starting = setTimeout(() => gone('ended'), START_MS);
  return { worker, end: stop };
};
