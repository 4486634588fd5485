import { isEntry, type LogEntry } from './entry';
import type { Got } from './indexedStorage';
import type { KeyValue } from './storage';

/**
 * The edits of a beat in the one order that holds for all tabs: each is written once, with its number, beside the beat as
 * it was at some number before. What was written is kept; the beat is written anew now and then, and entries long before
 * it are let go.
 */

/** An entry with the tab that made it and how many that tab had made before. */
export interface LogItem {
  tab: string;
  n: number;
  entry: LogEntry;
}

/** What is kept of a beat beside its text. */
interface Standing {
  /** The number of its last entry. */
  seq: number;
  /** Up to which one they are in its text. */
  base: number;
  /** The first one that is still kept. */
  first: number;
  /** How many of each tab's are in, so that what is taken up again after a crash counts once. */
  seen: Record<string, number>;
}

export const LOG_KEY = {
  beat: (id: string) => `beat/${id}`,
  standing: (id: string) => `state/${id}`,
  /** How beats were counted before they had a log. */
  revision: (id: string) => `revision/${id}`,
  entry: (id: string, seq: number) => `log/${id}/${String(seq).padStart(9, '0')}`,
};

/** So many entries are kept behind the beat's text, for tabs that come late. */
const BEHIND = 300;
/** So many tabs are remembered. */
const MOST_TABS = 60;

const queues = new Map<string, Promise<unknown>>();

/** One after the other within this page, for browsers that know no locks. */
const aloneHere = <T>(name: string, work: () => Promise<T>): Promise<T> => {
  const turn = (queues.get(name) ?? Promise.resolve()).then(work);
  queues.set(
    name,
    turn.catch(() => undefined),
  );
  return turn;
};

/** One after the other across all tabs, so that nobody writes between another's look and write. */
export const alone = <T>(name: string, work: () => Promise<T>): Promise<T> =>
  typeof navigator !== 'undefined' && navigator.locks
    ? (navigator.locks.request(`ruddik/${name}`, work) as Promise<T>)
    : aloneHere(name, work);

const count = (value: unknown): number =>
  typeof value === 'number' && Number.isInteger(value) && value >= 0 ? value : 0;

const parsed = (text: string | null | undefined): unknown => {
  try {
    return text ? (JSON.parse(text) as unknown) : null;
  } catch {
    return null;
  }
};

const standingOf = (text: string | null | undefined, revision: string | null | undefined): Standing => {
  const read = parsed(text);
  const old = count(Number(revision ?? 0));
  if (typeof read !== 'object' || read === null) return { seq: old, base: old, first: old + 1, seen: {} };
  const { seq, base, first, seen } = read as Partial<Standing>;
  const tabs = typeof seen === 'object' && seen !== null ? Object.entries(seen) : [];
  return {
    seq: count(seq),
    base: Math.min(count(base), count(seq)),
    first: count(first),
    seen: Object.fromEntries(tabs.filter(([, n]) => count(n) > 0)),
  };
};

/** What is asked to know where a beat stands. */
const asked = (id: string) => ({
  read: [LOG_KEY.standing(id), LOG_KEY.revision(id)],
  has: [LOG_KEY.beat(id)],
});

const standingIn = (id: string, { values, has }: Got): Standing | null =>
  has.has(LOG_KEY.beat(id)) ? standingOf(values[LOG_KEY.standing(id)], values[LOG_KEY.revision(id)]) : null;

/** Edits behind all that are there, those that are in already left out. */
const behind = (
  id: string,
  now: Standing,
  items: LogItem[],
): { next: Standing; entries: Record<string, string> } => {
  const fresh = items.filter(({ tab, n }) => n > (now.seen[tab] ?? 0));
  if (!fresh.length) return { next: now, entries: {} };
  const entries: Record<string, string> = {};
  fresh.forEach((item, at) => (entries[LOG_KEY.entry(id, now.seq + 1 + at)] = JSON.stringify(item)));
  const seen = { ...now.seen };
  for (const { tab, n } of fresh) {
    delete seen[tab];
    seen[tab] = n;
  }
  const next: Standing = {
    ...now,
    seq: now.seq + fresh.length,
    seen: Object.fromEntries(Object.entries(seen).slice(-MOST_TABS)),
  };
  return { next, entries: { ...entries, [LOG_KEY.standing(id)]: JSON.stringify(next) } };
};

const itemOf = (text: string | null | undefined): LogItem | null => {
  const read = parsed(text) as Partial<LogItem> | null;
  return read && typeof read.tab === 'string' && isEntry(read.entry)
    ? { tab: read.tab, n: count(read.n), entry: read.entry }
    : null;
};

/** Entries by their numbers, from one to another; null in the place of one that cannot be read. */
const entriesBetween = async (
  storage: KeyValue,
  id: string,
  from: number,
  to: number,
): Promise<(LogItem | null)[]> => {
  if (to < from) return [];
  const keys = Array.from({ length: to - from + 1 }, (_, at) => LOG_KEY.entry(id, from + at));
  const got = await storage.getMany(keys);
  return keys.map((key) => itemOf(got[key]));
};

export interface Logged {
  /** The beat's text; null where there is none. */
  text: string | null;
  /** What came after it, in order; null for what cannot be read. */
  items: (LogItem | null)[];
  seq: number;
}

/** A beat as it is kept: its text and what came after it. */
export const readLogged = (storage: KeyValue, id: string): Promise<Logged> =>
  alone(`log/${id}`, async () => {
    const got = await storage.getMany([LOG_KEY.beat(id), LOG_KEY.standing(id), LOG_KEY.revision(id)]);
    const text = got[LOG_KEY.beat(id)] ?? null;
    if (text === null) return { text, items: [], seq: 0 };
    const now = standingOf(got[LOG_KEY.standing(id)], got[LOG_KEY.revision(id)]);
    return { text, items: await entriesBetween(storage, id, now.base + 1, now.seq), seq: now.seq };
  });

/** Whether what came since is kept no more; what is ahead of the log belongs to a beat that was deleted and came back. */
const isFar = (now: Standing, known: number | null): boolean =>
  known !== null && (known > now.seq || (known + 1 < now.first && known < now.seq));

export type Appended =
  | {
      kind: 'appended';
      /** What others had written since `known`. */
      news: (LogItem | null)[];
      seq: number;
    }
  /** The beat is not there: it was deleted, or never written. */
  | { kind: 'gone' }
  /** What came since is kept no more: the beat has to be read anew. */
  | { kind: 'far' };

/**
 * Writes edits behind all those that are there, and tells which those are.
 *
 * @param known the number of the last entry that this tab has; null where it does not have the beat open
 * @throws what the storage throws when it is full
 */
export const append = (
  storage: KeyValue,
  id: string,
  known: number | null,
  items: LogItem[],
): Promise<Appended> =>
  alone(`log/${id}`, async () => {
    let found = null as Standing | null;
    let seq = 0;
    // Looked up and written in one exchange: what is killed soon after has it.
    await storage.change(asked(id), (got) => {
      found = standingIn(id, got);
      if (!found || isFar(found, known)) return {};
      const { next, entries } = behind(id, found, items);
      seq = next.seq;
      return entries;
    });
    if (!found) return { kind: 'gone' };
    if (isFar(found, known)) return { kind: 'far' };
    // What others wrote lies before it, and stays where it is.
    const news = await entriesBetween(storage, id, (known ?? found.seq) + 1, found.seq);
    return { kind: 'appended', news, seq };
  });

/**
 * Writes a beat's text anew where nothing came after it, and lets go of old entries.
 *
 * @param more what is written along with it: its summary
 * @returns false where another tab has written since
 */
export const rewrite = (
  storage: KeyValue,
  id: string,
  seq: number,
  text: string,
  more: Record<string, string>,
): Promise<boolean> =>
  alone(`log/${id}`, async () => {
    let old: string[] | null = null as string[] | null;
    await storage.change(asked(id), (got) => {
      const now = standingIn(id, got);
      if (now?.seq !== seq) return {};
      const first = Math.max(now.first, seq - BEHIND + 1);
      old = Array.from({ length: Math.max(0, first - now.first) }, (_, at) =>
        LOG_KEY.entry(id, now.first + at),
      );
      const next: Standing = { ...now, base: seq, first };
      return { ...more, [LOG_KEY.beat(id)]: text, [LOG_KEY.standing(id)]: JSON.stringify(next) };
    });
    if (!old) return false;
    // What is not yet gone when this fails is only a few keys too many.
    if (old.length) await storage.removeMany(old).catch(() => undefined);
    return true;
  });

/**
 * Writes a beat that has no log yet.
 *
 * @param seen what of this tab's edits is in it
 * @returns the number of its last entry; null where the beat is there already: nothing is overwritten
 */
export const begin = (
  storage: KeyValue,
  id: string,
  text: string,
  more: Record<string, string>,
  seen: Record<string, number> = {},
): Promise<number | null> =>
  alone(`log/${id}`, async () => {
    const seq = 1;
    let isThere = false;
    await storage.change(asked(id), (got) => {
      isThere = standingIn(id, got) !== null;
      const next: Standing = { seq, base: seq, first: seq + 1, seen };
      return isThere
        ? {}
        : { ...more, [LOG_KEY.beat(id)]: text, [LOG_KEY.standing(id)]: JSON.stringify(next) };
    });
    return isThere ? null : seq;
  });

/** The keys of all that is kept of a beat. */
export const logKeys = async (storage: KeyValue, id: string): Promise<string[]> => {
  const keys = await storage.getAllKeys();
  return [
    LOG_KEY.beat(id),
    LOG_KEY.standing(id),
    LOG_KEY.revision(id),
    ...keys.filter((key) => key.startsWith(`log/${id}/`)),
  ];
};
