import { nanoid } from '@reduxjs/toolkit';
import { isEntry } from './entry';
import type { Journal } from './journal';
import { JOURNAL_EDITS } from './line';
import { append, type LogItem } from './log';
import type { KeyValue } from './storage';

/** Whether the page of a tab still lives. */
export type Alive = (tab: string) => Promise<boolean>;

export interface Left {
  key: string;
  id: string;
  item: LogItem;
}

const leftIn = async (journal: Journal): Promise<Left[]> => {
  const recovered = await journal.recovered();
  return [...new Set([...journal.keys(), ...recovered.keys()])].flatMap((key) => {
    if (!key.startsWith(JOURNAL_EDITS)) return [];
    try {
      const text = journal.read(key) ?? recovered.get(key) ?? '';
      const { id, item } = JSON.parse(text) as { id: string; item: LogItem };
      if (typeof id === 'string' && typeof item.tab === 'string' && isEntry(item.entry))
        return [{ key, id, item }];
    } catch {
      // What cannot be read is no edit.
    }
    journal.remove(key);
    return [];
  });
};

/**
 * Takes up what pages that ended left in the journal, beat by beat in its order.
 *
 * @returns what could not be written, by the beat that it belongs to: of beats that are not there, or for want of room
 */
export const takeUp = async (
  storage: KeyValue,
  journal: Journal,
  alive: Alive,
): Promise<Map<string, Left[]>> => {
  const left = new Map<string, Left[]>();
  const living = new Map<string, boolean>();
  for (const one of (await leftIn(journal)).sort((a, b) => a.item.n - b.item.n)) {
    const { tab } = one.item;
    if (!living.has(tab)) living.set(tab, await alive(tab));
    if (!living.get(tab)) left.set(one.id, [...(left.get(one.id) ?? []), one]);
  }
  for (const [id, all] of left) {
    try {
      const result = await append(
        storage,
        id,
        null,
        all.map(({ item }) => item),
      );
      if (result.kind !== 'appended') continue;
      for (const { key } of all) journal.remove(key);
      left.delete(id);
    } catch {
      // It stays in the journal, and is done again in the beat when that is opened.
    }
  }
  return left;
};

/** After a page wrote an edit, it has this long to bring it into the storage itself, in ms. */
const ITS_OWN_TIME = 1000;
/** What still lies there is looked at again, in ms. */
const AGAIN = 5000;

/** Whether an edit in the journal is another page's. */
export const isForeign = (key: string, tab: string): boolean =>
  key.startsWith(JOURNAL_EDITS) && !key.startsWith(`${JOURNAL_EDITS}${tab}/`);

/**
 * Has what other pages leave behind taken up while this one is open.
 *
 * @param takeUpMore takes up what lies there; tells whether some of it has to stay for now
 */
export const watchLeft = (journal: Journal, takeUpMore: () => Promise<boolean>): void => {
  let timer: ReturnType<typeof setTimeout> | null = null;
  const soon = (after: number): void => {
    timer ??= setTimeout(() => {
      timer = null;
      takeUpMore().then(
        (more) => more && soon(AGAIN),
        () => soon(AGAIN),
      );
    }, after);
  };
  // A page writes only for itself, so that what is heard here comes from others.
  journal.listen((key) => key.startsWith(JOURNAL_EDITS) && soon(ITS_OWN_TIME));
};

/** The browser's word on it: each page holds a lock for as long as it lives. */
export const browserLife = (): { tab: string; alive: Alive; others: () => Promise<string[]> } => {
  const tab = nanoid(12);
  const LOCK = 'ruddik/tab/';
  const name = (one: string) => LOCK + one;
  const locks = typeof navigator === 'undefined' ? undefined : navigator.locks;
  void locks?.request(name(tab), () => new Promise<void>(() => undefined)).catch(() => undefined);
  let before: string | null = null;
  try {
    // A page that takes another's place, a reload, may begin before that one has let go.
    before = sessionStorage.getItem('ruddik/tab');
    sessionStorage.setItem('ruddik/tab', tab);
  } catch {
    before = null;
  }
  return {
    tab,
    others: async () => {
      const { held = [] } = (await locks?.query?.()) ?? {};
      const names = held.flatMap((one) => (one.name?.startsWith(LOCK) ? [one.name.slice(LOCK.length)] : []));
      return names.filter((one) => one !== tab);
    },
    alive: async (other) => {
      if (other === tab) return true;
      if (!locks) return false;
      const tries = other === before ? 20 : 1;
      for (let at = 0; at < tries; at++) {
        const free = await locks.request(name(other), { ifAvailable: true }, (lock) => lock !== null);
        if (free) return false;
        await new Promise((resolve) => setTimeout(resolve, 25));
      }
      return true;
    },
  };
};
