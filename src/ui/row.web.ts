import type { KeyboardEvent } from 'react';
import { isPlain, memberAt } from './arrows';

/** What is walked along; fields and sliders in a row keep their own keys, and their own stop of Tab. */
const MEMBER = 'button, [role="button"], a[href]';
const ROW = '[data-row]';
const ITEM = `[role="listitem"], ${ROW}`;

type Keys = KeyboardEvent<HTMLElement>;

const isThere = (one: HTMLElement): boolean =>
  !one.matches('[disabled], [aria-disabled="true"]') && one.getClientRects().length > 0;

/** Those of a row itself, not of rows within it. */
const membersOf = (row: HTMLElement): HTMLElement[] =>
  [...row.querySelectorAll<HTMLElement>(MEMBER)].filter(
    (one) => one.closest(ROW) === row && isThere(one) && !one.matches('[role="tab"], [role="radio"]'),
  );

/** The others are passed over by this press of Tab: the browser looks for the next stop once the key was heard. */
const passOver = (others: HTMLElement[]): void => {
  const before = others.map((one) => one.getAttribute('tabindex'));
  for (const one of others) one.setAttribute('tabindex', '-1');
  setTimeout(() => {
    for (const [at, one] of others.entries())
      if (before[at] == null) one.removeAttribute('tabindex');
      else one.setAttribute('tabindex', before[at]);
  });
};

const alongRow = (event: Keys): void => {
  const row = event.currentTarget;
  const members = membersOf(row);
  const on = members.indexOf(event.target as HTMLElement);
  if (!isPlain(event) || on < 0) return;
  if (event.key === 'Tab') return passOver(members.filter((_, at) => at !== on));
  if (event.shiftKey) return;
  const to = memberAt(event.key, on, members.length, row.dataset['row'] === 'column');
  if (to === undefined || members.length < 2) return;
  event.preventDefault();
  members[to]!.focus();
};

const downList = (event: Keys): void => {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  const list = event.currentTarget;
  const target = event.target as HTMLElement;
  if (by === undefined || !isPlain(event) || event.shiftKey) return;
  const items = [...list.querySelectorAll<HTMLElement>(ITEM)].filter((one) => {
    const around = one.parentElement!.closest(ITEM);
    return !around || !list.contains(around);
  });
  const on = items.findIndex((one) => one.contains(target));
  const stops = (item: HTMLElement) => [...item.querySelectorAll<HTMLElement>(MEMBER)].filter(isThere);
  // What holds nothing to be pressed is passed over.
  const next = items
    .slice(...(by > 0 ? [on + 1] : [0, Math.max(0, on)]))
    .filter((one) => stops(one).length)
    .at(by > 0 ? 0 : -1);
  const at = on < 0 ? -1 : stops(items[on]!).indexOf(target);
  if (at < 0 || !next) return;
  event.preventDefault();
  const there = stops(next);
  there[Math.min(at, there.length - 1)]!.focus();
};

/**
 * What a row of buttons is given: it is one stop of Tab, Left and Right walk along it, Home and End to its ends.
 *
 * @example <View {...buttonRow}><Button … /><Button … /></View>
 */
export const buttonRow: object = { dataSet: { row: '' }, onKeyDown: alongRow };

/** The same for buttons one below the other: Up and Down walk along it too. */
export const buttonColumn: object = { dataSet: { row: 'column' }, onKeyDown: alongRow };

/**
 * What a list of such rows is given: Up and Down go to the same button of the row above or below.
 *
 * @example <View role="list" {...rowList}>…</View>
 */
export const rowList: object = { onKeyDown: downList };
