import { notKillSafe, type KillSafe } from './killSafe';

/**
 * What is safe the moment it is written: a few small records that a page leaves behind when it ends before the storage has
 * them. The next page takes them up.
 */
export interface Journal {
  /** Kept at once; false where the browser has no room or no leave for it. */
  write(key: string, text: string): boolean;
  read(key: string): string | null;
  remove(key: string): void;
  keys(): string[];
  /** Keeps records, each a key and its text, so that they outlive a browser that is killed, too. */
  harden(records: [string, string][]): void;
  /** Brings back what a killed browser's small store has not kept of such records. */
  recovered(): Promise<Map<string, string>>;
  /** Hears the keys that other pages write. */
  listen(hear: (key: string) => void): void;
}

const PREFIX = 'ruddik/journal/';

/**
 * The browser's own small store; where it is barred nothing is written and nothing fails.
 *
 * @param killSafe where those records lie besides that have to outlive the browser
 */
export const browserJournal = (killSafe: KillSafe = notKillSafe): Journal => {
  const hardened = new Set<string>();
  const guarded = <T>(work: (store: Storage) => T, otherwise: T): T => {
    try {
      return work(localStorage);
    } catch {
      return otherwise;
    }
  };
  return {
    write: (key, text) =>
      guarded((store) => {
        store.setItem(PREFIX + key, text);
        return true;
      }, false),
    read: (key) => guarded((store) => store.getItem(PREFIX + key), null),
    remove: (key) => {
      guarded((store) => store.removeItem(PREFIX + key), undefined);
      if (hardened.delete(key)) killSafe.remove(key);
    },
    harden: (records) => {
      for (const [key] of records) hardened.add(key);
      killSafe.put(records);
    },
    recovered: async () => {
      const all = await killSafe.all();
      for (const key of all.keys()) hardened.add(key);
      return all;
    },
    keys: () =>
      guarded(
        (store) =>
          Object.keys(store)
            .filter((key) => key.startsWith(PREFIX))
            .map((key) => key.slice(PREFIX.length)),
        [],
      ),
    listen: (hear) => {
      if (typeof addEventListener === 'undefined') return;
      addEventListener('storage', ({ key, newValue }: StorageEvent) => {
        if (key?.startsWith(PREFIX) && newValue !== null) hear(key.slice(PREFIX.length));
      });
    },
  };
};

/**
 * One that forgets with the page: for tests and for servers.
 *
 * @param hard what outlives a killed browser
 */
export const memoryJournal = (
  data = new Map<string, string>(),
  hard = new Map<string, string>(),
): Journal & { data: Map<string, string>; hard: Map<string, string>; tell: (key: string) => void } => {
  const ears: ((key: string) => void)[] = [];
  return {
    data,
    hard,
    /** As if another page had written it. */
    tell: (key) => ears.forEach((hear) => hear(key)),
    listen: (hear) => void ears.push(hear),
    write: (key, text) => {
      data.set(key, text);
      return true;
    },
    read: (key) => data.get(key) ?? null,
    remove: (key) => {
      data.delete(key);
      hard.delete(key);
    },
    keys: () => [...data.keys()],
    harden: (records) => records.forEach(([key, text]) => hard.set(key, text)),
    recovered: () => Promise.resolve(new Map(hard)),
  };
};
