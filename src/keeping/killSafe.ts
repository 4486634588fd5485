import { openDB, type IDBPDatabase } from 'idb';

/**
 * Records that outlive the browser when it is killed: each is handed to its database whole, in the breath in which it is
 * made, and no answer is waited for. The page may be busy for as long as it likes after that. (The small store outlives a
 * page that is closed, but the browser writes it to the disk seconds later.)
 */
export interface KillSafe {
  /** Puts records there together, each a key and its text. */
  put(records: [string, string][]): void;
  remove(key: string): void;
  /** What lies there, by key; nothing where there is no database. */
  all(): Promise<Map<string, string>>;
}

const TABLE = 'records';
/** Records that have become needless go together, when none has for so many ms. */
const REST_MS = 300;

/** For browsers that bar their database, and for servers. */
export const notKillSafe: KillSafe = {
  put: () => undefined,
  remove: () => undefined,
  all: () => Promise.resolve(new Map()),
};

/**
 * Records in a database of that name. Nothing here ever throws: it is a second place for what lies in the first one too.
 *
 * @param name of the database
 */
export const createKillSafe = (name: string): KillSafe => {
  let database: IDBPDatabase | null = null;
  let needless: string[] = [];
  let timer: ReturnType<typeof setTimeout> | null = null;
  /** What came before the database was open; null where it cannot be. */
  let waiting: (() => void)[] | null = [];

  const connect = async (): Promise<IDBPDatabase | null> => {
    try {
      database = await openDB(name, 1, {
        upgrade: (fresh) => {
          if (!fresh.objectStoreNames.contains(TABLE)) fresh.createObjectStore(TABLE);
        },
        blocking: (_from, _to, event) => {
          database = null;
          (event.target as IDBDatabase | null)?.close();
        },
        terminated: () => (database = null),
      });
    } catch {
      // Without it the first place is all there is.
      waiting = null;
      return null;
    }
    const late = waiting ?? [];
    waiting = [];
    for (const work of late) work();
    return database;
  };
  let opening = connect();

  /** Hands over a change in one go: committed by hand, it needs the page no more. */
  const change = (work: (table: IDBObjectStore) => void): void => {
    const hand = (again: boolean) => {
      if (!database) return;
      try {
        // The bare transaction: a promise for each request would be work that nobody waits for.
        const all = (database as unknown as { transaction: IDBDatabase['transaction'] }).transaction(
          TABLE,
          'readwrite',
          { durability: 'relaxed' },
        );
        work(all.objectStore(TABLE));
        all.commit();
      } catch {
        database = null;
        if (again) waiting?.push(() => hand(false));
        opening = connect();
      }
    };
    if (database) hand(true);
    else waiting?.push(() => hand(true));
  };

  const sweep = (): void => {
    if (timer) clearTimeout(timer);
    timer = null;
    if (!needless.length) return;
    const keys = needless;
    needless = [];
    change((table) => {
      for (const key of keys) table.delete(key);
    });
  };

  // A page that goes leaves none behind that the next one would have to look at.
  if (typeof addEventListener !== 'undefined') addEventListener('pagehide', sweep);

  return {
    put: (records) => change((table) => records.forEach(([key, text]) => table.put(text, key))),
    remove: (key) => {
      needless.push(key);
      if (timer) clearTimeout(timer);
      timer = setTimeout(sweep, REST_MS);
    },
    all: async () => {
      const there = database ?? (await opening);
      try {
        const table = there?.transaction(TABLE, 'readonly').store;
        const [keys, texts] = await Promise.all([table?.getAllKeys() ?? [], table?.getAll() ?? []]);
        const records = keys.flatMap((key, at): [string, string][] => {
          const text: unknown = texts[at];
          return typeof key === 'string' && typeof text === 'string' ? [[key, text]] : [];
        });
        return new Map(records);
      } catch {
        return new Map();
      }
    },
  };
};
