import { openDB, type IDBPDatabase } from 'idb';
import { dropped, isClosed } from './indexedStorage';

/**
 * Binary data that is kept in the browser: samples, loops, kits. Beside the storage of texts, in a database of its own, with the
 * same guarantees: what is put together is there whole or not at all, a connection that was closed underneath is opened again,
 * and a full storage is told by its own fault. Data is known by what is in it, so that the same is kept once.
 */
export interface BytesStore {
  /** Keeps data. @returns the name of each, by which it is had again @throws what the browser throws when it is full */
  put: (all: Uint8Array[]) => Promise<string[]>;
  /** Null where there is none. */
  get: (name: string) => Promise<Uint8Array | null>;
  has: (names: string[]) => Promise<boolean[]>;
  names: () => Promise<string[]>;
  /** How large each is, in bytes; 0 where there is none. */
  sizes: (names: string[]) => Promise<number[]>;
  remove: (names: string[]) => Promise<void>;
}

const TABLE = 'bytes';

/** The name of data: its SHA-256, in hexadecimal. */
export const bytesName = async (bytes: Uint8Array): Promise<string> => {
  const digest = await crypto.subtle.digest('SHA-256', bytes as Uint8Array<ArrayBuffer>);
  return Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join('');
};

/** @param database its name in the browser */
export const createIndexedBytes = (database: string): BytesStore => {
  let opening: Promise<IDBPDatabase> | null = null;

  const connect = (): Promise<IDBPDatabase> => {
    if (opening) return opening;
    const forget = () => {
      if (opening === mine) opening = null;
    };
    const mine: Promise<IDBPDatabase> = openDB(database, 1, {
      upgrade: (db) => void db.createObjectStore(TABLE),
      // Someone wants to delete it or to bring it to a newer form: nothing may stand in the way.
      blocking: (_from, _to, event) => {
        forget();
        (event.target as IDBDatabase | null)?.close();
      },
      terminated: forget,
    });
    opening = mine;
    mine.catch(forget);
    return mine;
  };

  /** Works with an open connection; with a new one where the old one turns out to be closed. */
  const using = async <T>(work: (db: IDBPDatabase) => Promise<T>): Promise<T> => {
    const first = connect();
    try {
      return await work(await first);
    } catch (fault) {
      if (!isClosed(fault)) throw fault;
      if (opening === first) opening = null;
      return work(await connect());
    }
  };

  return {
    put: async (all) => {
      const names = await Promise.all(all.map(bytesName));
      await using(async (db) => {
        const change = db.transaction(TABLE, 'readwrite');
        try {
          const puts = all.map(async (bytes, at) => change.store.put(bytes, names[at]!));
          await Promise.all([...puts, change.done]);
        } catch (fault) {
          dropped(change);
          throw fault;
        }
      });
      return names;
    },
    get: (name) => using(async (db) => ((await db.get(TABLE, name)) as Uint8Array | undefined) ?? null),
    has: (names) =>
      using(async (db) => {
        const look = db.transaction(TABLE, 'readonly');
        const keys = await Promise.all(names.map((name) => look.store.getKey(name)));
        return keys.map((key) => key !== undefined);
      }),
    // One after the other: all of them at once may be more than there is memory for.
    sizes: async (names) => {
      const sizes: number[] = [];
      for (const name of names)
        sizes.push(
          await using(async (db) => ((await db.get(TABLE, name)) as Uint8Array | undefined)?.byteLength ?? 0),
        );
      return sizes;
    },
    names: () => using(async (db) => (await db.getAllKeys(TABLE)) as string[]),
    remove: (names) =>
      using(async (db) => {
        const change = db.transaction(TABLE, 'readwrite');
        await Promise.all([...names.map((name) => change.store.delete(name)), change.done]);
      }),
  };
};
