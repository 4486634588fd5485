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
  /** Hears the keys that other pages write. */
  listen(hear: (key: string) => void): void;
}

const PREFIX = 'ruddik/journal/';

/** The browser's own small store; where it is barred nothing is written and nothing fails. */
export const browserJournal = (): Journal => {
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
    remove: (key) => guarded((store) => store.removeItem(PREFIX + key), undefined),
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

/** One that forgets with the page: for tests and for servers. */
export const memoryJournal = (
  data = new Map<string, string>(),
): Journal & { data: Map<string, string>; tell: (key: string) => void } => {
  const ears: ((key: string) => void)[] = [];
  return {
    data,
    /** As if another page had written it. */
    tell: (key) => ears.forEach((hear) => hear(key)),
    listen: (hear) => void ears.push(hear),
    write: (key, text) => {
      data.set(key, text);
      return true;
    },
    read: (key) => data.get(key) ?? null,
    remove: (key) => void data.delete(key),
    keys: () => [...data.keys()],
  };
};
