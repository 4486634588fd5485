/** Longer than this nothing waits for what is kept to be looked through. */
const MOST_MS = 1500;

/**
 * Has what the browser keeps of the app looked through, and what is at fault in it fetched anew.
 *
 * @returns when that is done; soon where the app is not kept, or no answer comes
 */
export const mendKept = (): Promise<void> =>
  new Promise((resolve) => {
    const workers = typeof navigator === 'undefined' ? undefined : navigator.serviceWorker;
    if (!workers?.controller) return resolve();
    const done = () => {
      workers.removeEventListener('message', hear);
      resolve();
    };
    const hear = ({ data }: MessageEvent<unknown>) => {
      if (typeof data === 'object' && data !== null && 'mended' in data) done();
    };
    workers.addEventListener('message', hear);
    workers.controller.postMessage('look through');
    setTimeout(done, MOST_MS);
  });

/** A script that turned out to be none is fetched past what is kept of it; where it is not told which, all is looked through. */
export const renewScript = (address: string): Promise<unknown> =>
  /^https?:/.test(address) ? fetch(address, { cache: 'reload' }).catch(() => undefined) : mendKept();
