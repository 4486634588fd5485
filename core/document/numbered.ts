import { MOST } from './choices';

const SPLIT = /^(.*?)(?: (\d+))?$/s;

/**
 * A name that is not taken: itself, or with the next number behind it. It is never longer than a name may be.
 *
 * @param taken the names there are; case counts
 * @example numbered('Late', ['Late', 'Late 2']) // "Late 3"
 * @example numbered('Late 2', ['Late 2']) // "Late 3"
 */
export const numbered = (name: string, taken: Iterable<string>): string => {
  const names = new Set(taken);
  const whole = name.trim().slice(0, MOST.name);
  if (!names.has(whole)) return whole;
  const [, base = whole, last] = SPLIT.exec(whole)!;
  for (let n = last ? Number(last) + 1 : 2; ; n++) {
    const end = ` ${n}`;
    const next = base.slice(0, MOST.name - end.length) + end;
    if (!names.has(next)) return next;
  }
};

/**
 * An id that is not taken: itself, or with the next number behind it.
 *
 * @param taken the ids there are
 * @example freeId('kick', ['kick', 'kick-2']) // "kick-3"
 */
export const freeId = (id: string, taken: Iterable<string>): string => {
  const ids = new Set(taken);
  let free = id;
  for (let n = 2; ids.has(free); n++) free = `${id}-${n}`;
  return free;
};
