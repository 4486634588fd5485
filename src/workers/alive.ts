/**
 * In a worker: says by which lock the browser knows that it lives. The browser lets go of it when the worker ends, however that
 * comes about, and the page that waits for the lock knows at once.
 */
export const sayAlive = (): void => {
  const { locks } = navigator;
  // Where there are no locks its end is noticed by what it does not answer.
  void locks
    ?.request(`ruddik/worker/${Math.random().toString(36).slice(2)}`, (lock) => {
      postMessage({ alive: lock!.name });
      return new Promise<void>(() => undefined);
    })
    .catch(() => undefined);
};
