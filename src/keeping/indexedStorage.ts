import { openDB, type IDBPDatabase } from 'idb';

/**
 * The part of AsyncStorage that works the browser's database, mended: a connection that was closed underneath is opened
 * again, what is written together is written whole or not at all, removing ends when it is done, and a fault keeps its
 * name. The bundler puts it in the place of the package's own.
 */
const TABLE = 'entries';
type Database = IDBPDatabase;

const connections = new Map<string, Promise<Database>>();

const connect = (name: string): Promise<Database> => {
  const forget = () => {
    if (connections.get(name) === opening) connections.delete(name);
  };
  const opening: Promise<Database> = openDB(name, 1, {
    upgrade: (database) => {
      if (!database.objectStoreNames.contains(TABLE)) database.createObjectStore(TABLE);
    },
    // Someone wants to delete it or to bring it to a newer form: nothing may stand in the way.
    blocking: (_from, _to, event) => {
      forget();
      (event.target as IDBDatabase | null)?.close();
    },
    terminated: forget,
  });
  connections.set(name, opening);
  opening.catch(forget);
  return opening;
};

/** What is read before something is written. */
export interface StorageAsked {
  read: string[];
  /** Of these only whether they are there. */
  has: string[];
}

export interface Got {
  values: Record<string, string | null>;
  has: Set<string>;
}

/** Lets a change come to nothing. */
export const dropped = (change: { done: Promise<void>; abort(): void }): void => {
  change.done.catch(() => undefined);
  try {
    change.abort();
  } catch {
    // It is over already.
  }
};

/** Whether a connection turned out to be closed. */
export const isClosed = (fault: unknown): boolean =>
  fault instanceof DOMException && fault.name === 'InvalidStateError';

export default class IndexedStorage {
  constructor(private readonly dbName: string) {}

  /** Works with an open connection; with a new one where the old one turns out to be closed. */
  private async with<T>(work: (database: Database) => Promise<T>): Promise<T> {
    const opening = connections.get(this.dbName) ?? connect(this.dbName);
    try {
      return await work(await opening);
    } catch (fault) {
      if (!isClosed(fault)) throw fault;
      if (connections.get(this.dbName) === opening) connections.delete(this.dbName);
      return work(await (connections.get(this.dbName) ?? connect(this.dbName)));
    }
  }

  getValues = (keys: string[]): Promise<{ key: string; value: string | null }[]> =>
    this.with(async (database) => {
      const change = database.transaction(TABLE, 'readonly');
      const got = await Promise.all(
        keys.map(async (key) => ({
          key,
          value: ((await change.store.get(key)) as string | undefined) ?? null,
        })),
      );
      await change.done;
      return got;
    });

  setValues = (values: { key: string; value: string }[]): Promise<{ key: string; value: string }[]> =>
    this.with(async (database) => {
      const change = database.transaction(TABLE, 'readwrite');
      try {
        const puts = values.map(async ({ key, value }) => change.store.put(value, key));
        await Promise.all([...puts, change.done]);
      } catch (fault) {
        dropped(change);
        throw fault;
      }
      return values;
    });

  /** Reads and writes in one exchange, with nothing of another page in between. */
  changeValues = (asked: StorageAsked, work: (got: Got) => Record<string, string>): Promise<void> =>
    this.with(async (database) => {
      const change = database.transaction(TABLE, 'readwrite');
      try {
        const [values, keys] = await Promise.all([
          Promise.all(asked.read.map((key) => change.store.get(key) as Promise<string | undefined>)),
          Promise.all(asked.has.map((key) => change.store.getKey(key))),
        ]);
        const got: Got = {
          values: Object.fromEntries(asked.read.map((key, at) => [key, values[at] ?? null])),
          has: new Set(asked.has.filter((_, at) => keys[at] !== undefined)),
        };
        const puts = Object.entries(work(got)).map(async ([key, value]) => change.store.put(value, key));
        await Promise.all([...puts, change.done]);
      } catch (fault) {
        dropped(change);
        throw fault;
      }
    });

  removeValues = (keys: string[]): Promise<void> =>
    this.with(async (database) => {
      const change = database.transaction(TABLE, 'readwrite');
      await Promise.all([...keys.map((key) => change.store.delete(key)), change.done]);
    });

  clearStorage = (): Promise<void> => this.with((database) => database.clear(TABLE));

  getKeys = (): Promise<string[]> =>
    this.with(async (database) => (await database.getAllKeys(TABLE)) as string[]);
}
