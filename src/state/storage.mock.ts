import type { KeyValue } from './storage';

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
    removeMany: (keys) => {
      for (const key of keys) data.delete(key);
      return Promise.resolve();
    },
    getAllKeys: () => Promise.resolve([...data.keys()]),
  };
};
