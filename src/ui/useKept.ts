import { useState } from 'react';

const kept = new Map<string, unknown>();

/** A choice that is still there when one comes back to its page: as `useState`, by a name of its own. */
export const useKept = <T>(name: string, first: T): [T, (next: T) => void] => {
  const [value, setValue] = useState<T>(() => (kept.has(name) ? (kept.get(name) as T) : first));
  return [
    value,
    (next) => {
      kept.set(name, next);
      setValue(next);
    },
  ];
};
