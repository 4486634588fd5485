import { useState, useSyncExternalStore } from 'react';
import { sinceThen } from './sinceThen';

const kept = new Map<string, unknown>();
const hearers = new Set<() => void>();

const hear = sinceThen((hearer) => {
  hearers.add(hearer);
  return () => void hearers.delete(hearer);
});

/** Sets a choice of a page from elsewhere, open or not. */
export const keep = (name: string, value: unknown): void => {
  kept.set(name, value);
  hearers.forEach((hearer) => hearer());
};

/** A choice that is still there when one comes back to its page: as `useState`, by a name of its own. */
export const useKept = <T>(name: string, first: T): [T, (next: T) => void] => {
  const [initial] = useState(() => first);
  const value = useSyncExternalStore(
    hear,
    () => (kept.has(name) ? (kept.get(name) as T) : initial),
    () => initial,
  );
  return [value, (next) => keep(name, next)];
};
