import type { Ms } from '../../core/units';

/** So often something may be made anew within so many ms; beyond that it is told. */
const MOST = 4;
const WITHIN_MS = 15_000;
/** What passes before each of them, in ms. */
export const PAUSES_MS: readonly Ms[] = [0, 150, 500, 1000];

/** Counts how often parts of the sound had to be made anew of late. */
export const createRenewals = (now: () => Ms) => {
  let times: Ms[] = [];
  return {
    /** One more. @returns after how many ms; null where it was too often */
    next: (): Ms | null => {
      times = times.filter((at) => now() - at < WITHIN_MS);
      if (times.length >= MOST) return null;
      times.push(now());
      return PAUSES_MS[times.length - 1]!;
    },
    /** A person asks for it once more: it is counted from the start. */
    forget: (): void => {
      times = [];
    },
  };
};
