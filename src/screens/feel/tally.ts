import { browserStorage } from '../../keeping/storage';

/** How a blind test came out. */
export interface Tally {
  right: number;
  of: number;
  /** What the feel was set against, in words. */
  against: string;
  /** When it ended, in ms since 1970. */
  at: number;
}

const KEY = 'feel/blind';
const MOST = 50;

const isTally = (one: unknown): one is Tally => {
  const { right, of, against, at } = (one ?? {}) as Partial<Tally>;
  return (
    Number.isInteger(right) &&
    Number.isInteger(of) &&
    right! >= 0 &&
    right! <= of! &&
    typeof against === 'string' &&
    typeof at === 'number'
  );
};

/** The tests that were ended, the newest last; none where they cannot be read. */
export const readTallies = async (): Promise<Tally[]> => {
  try {
    const raw = JSON.parse((await browserStorage().getItem(KEY)) ?? '[]') as unknown;
    return Array.isArray(raw) ? raw.filter(isTally).slice(-MOST) : [];
  } catch {
    return [];
  }
};

/** One is kept after the other. */
let last: Promise<Tally[]> = Promise.resolve([]);

/** Keeps one more. @returns all that are kept */
export const keepTally = (tally: Tally): Promise<Tally[]> => {
  const keep = async () => {
    const all = [...(await readTallies()), tally].slice(-MOST);
    await browserStorage()
      .setMany({ [KEY]: JSON.stringify(all) })
      .catch(() => undefined);
    return all;
  };
  return (last = last.then(keep, keep));
};
