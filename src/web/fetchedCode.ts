/**
 * Pieces of code are fetched when they are wanted. One that does not come, or comes as something else (a page of words in the
 * place of code), is fetched again: the bundler's own loader would take it for there, and never ask again.
 */

import { renewScript } from './mendKept';

type Load = (path: string) => Promise<void>;

/** After so many ms each it is tried again. */
const AGAIN_MS = [150, 600];

const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Whether a fault is that of a script with such an address. */
const isOf = (path: string, { filename }: ErrorEvent): boolean => {
  try {
    return new URL(filename).pathname === path.split('?')[0];
  } catch {
    return false;
  }
};

interface Renewing {
  /** Has an address fetched past what the browser has kept of it. */
  renew: (path: string) => Promise<unknown>;
  pause?: (ms: number) => Promise<void>;
}

/**
 * Fetches a piece of code, again where that fails.
 *
 * @param load fetches it by its address; where the answer is no code it does not notice
 * @param hear hears what goes wrong in scripts. @returns ends it
 */
export const fetchAgain =
  (
    load: Load,
    hear: (told: (fault: ErrorEvent) => void) => () => void,
    { renew, pause = wait }: Renewing,
  ): Load =>
  async (path) => {
    for (let tries = 0; ; tries++) {
      // By another address it is another piece of code to the loader.
      const address = tries ? `${path}${path.includes('?') ? '&' : '?'}again=${tries}` : path;
      let broken: ErrorEvent | null = null;
      const stop = hear((fault) => {
        if (isOf(address, fault)) broken = fault;
      });
      try {
        await load(address);
        if (!broken) return;
        throw new Error('What came is no code.');
      } catch (fault) {
        const ms = AGAIN_MS[tries];
        if (ms === undefined) throw fault;
        await renew(path);
        await pause(ms);
      } finally {
        stop();
      }
    }
  };

const LOADER = '__loadBundleAsync';

/**
 * Has every piece of code of the page fetched so. To be called before any is; the loader itself may come to stand in its place
 * later.
 */
export const fetchCodeAgain = (page: object = globalThis): void => {
  if (typeof addEventListener === 'undefined') return;
  const hear = (told: (fault: ErrorEvent) => void) => {
    addEventListener('error', told);
    return () => removeEventListener('error', told);
  };
  const again = (load: Load | undefined) =>
    load && fetchAgain(load, hear, { renew: (path) => renewScript(new URL(path, location.href).href) });
  let loader = again((page as Record<string, Load | undefined>)[LOADER]);
  Object.defineProperty(page, LOADER, {
    configurable: true,
    get: () => loader,
    set: (load: Load | undefined) => {
      loader = again(load);
    },
  });
};
