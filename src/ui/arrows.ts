import type { KeyboardEvent } from 'react';

const WAYS: Record<string, number> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

/**
 * Keys of a row whose members are walked along: arrows to the one beside, Home and End to the first and last.
 *
 * @param which the members, as a selector
 * @param onGo told which one the focus went to
 */
export const onArrows = (which: string, onGo?: (index: number, member: HTMLElement) => void): object => ({
  onKeyDown: (event: KeyboardEvent<HTMLElement>) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return;
    const all = [...event.currentTarget.querySelectorAll<HTMLElement>(which)];
    const on = all.findIndex((one) => one.contains(event.target as Node));
    if (on < 0) return;
    const by = WAYS[event.key];
    const ends = { Home: 0, End: all.length - 1 }[event.key];
    const next = ends ?? (by === undefined ? undefined : (on + by + all.length) % all.length);
    if (next === undefined) return;
    event.preventDefault();
    all[next]!.focus();
    onGo?.(next, all[next]!);
  },
});
