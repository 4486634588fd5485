import type { KeyboardEvent } from 'react';

const ACROSS: Record<string, number> = { ArrowRight: 1, ArrowLeft: -1 };
const DOWN: Record<string, number> = { ArrowDown: 1, ArrowUp: -1 };

/** Whether the app's own keys, with others held, are left aside. */
export const isPlain = (event: KeyboardEvent): boolean =>
  !event.defaultPrevented && !event.ctrlKey && !event.metaKey && !event.altKey;

/**
 * To which member of a row a key leads, round and round; undefined where it leads nowhere.
 *
 * @param on the member that has the focus, from 0
 * @param upDown whether Up and Down lead along it too
 * @example memberAt('ArrowRight', 2, 3, false) // 0
 */
export const memberAt = (key: string, on: number, count: number, upDown: boolean): number | undefined => {
  const by = ACROSS[key] ?? (upDown ? DOWN[key] : undefined);
  return { Home: 0, End: count - 1 }[key] ?? (by === undefined ? undefined : (on + by + count) % count);
};

/**
 * Keys of a row whose members are walked along: arrows to the one beside, Home and End to the first and last.
 *
 * @param which the members, as a selector
 * @param onGo told which one the focus went to
 */
export const onArrows = (which: string, onGo?: (index: number, member: HTMLElement) => void): object => ({
  onKeyDown: (event: KeyboardEvent<HTMLElement>) => {
    if (!isPlain(event)) return;
    const all = [...event.currentTarget.querySelectorAll<HTMLElement>(which)];
    const on = all.findIndex((one) => one.contains(event.target as Node));
    if (on < 0) return;
    const next = memberAt(event.key, on, all.length, true);
    if (next === undefined) return;
    event.preventDefault();
    all[next]!.focus();
    onGo?.(next, all[next]!);
  },
});
