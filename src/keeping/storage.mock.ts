import type { StorageAsked, Got } from './indexedStorage';
import type { KeyValue } from './storage';

/** What lies there of what is asked for. */
export const changed = (data: Map<string, string>, { read, has }: StorageAsked): Got => ({
  values: Object.fromEntries(read.map((key) => [key, data.get(key) ?? null])),
  has: new Set(has.filter((key) => data.has(key))),
});

/** A storage that forgets with the test. */
export const memory = (): KeyValue & { data: Map<string, string> } => {
  const data = new Map<string, string>();
  return {
    data,
    getItem: (key) => Promise.resolve(data.get(key) ?? null),
    getMany: (keys) => Promise.resolve(Object.fromEntries(keys.map((key) => [key, data.get(key) ?? null]))),
    setMany: (entries) => {
      for (const [key, value] of Object.entries(entries)) data.set(key, value);
      return Promise.resolve();
    },
    change: (asked, work) => {
      const got = changed(data, asked);
      for (const [key, value] of Object.entries(work(got))) data.set(key, value);
      return Promise.resolve();
    },
    removeMany: (keys) => {
      for (const key of keys) data.delete(key);
      return Promise.resolve();
    },
    getAllKeys: () => Promise.resolve([...data.keys()]),
  };
};
