import type { UnknownAction } from '@reduxjs/toolkit';
import type { Beat } from '../../core/document/schema';
import { docMerged, docReducer, type DocState } from '../store/doc';
import { anyNeedsEdits, logEntryOf, type LogEntry } from './entry';
import type { Journal } from './journal';
import { append, type LogItem } from './log';
import type { KeyValue } from './storage';
import type { EditHearer, Store } from '../store/store';
import type { TabsChannel, TabWord } from './tabs';
import { words } from '../words/state';

/** An edit of this tab that is not yet written, and what the document was with it. */
interface Pending {
  item: LogItem;
  after: DocState;
}

/** Where the open beat stands: what is written for certain, and what is still on its way. */
interface Standing {
  id: string;
  seq: number;
  confirmed: DocState;
  pending: Pending[];
}

export interface LineParts {
  store: Store;
  storage: KeyValue;
  journal: Journal;
  tabs: TabsChannel;
  /** The name of this tab, for as long as its page lives. */
  tab: string;
  loadEdits: () => Promise<void>;
  /** The storage did not take something. */
  onTrouble: (fault: unknown) => void;
  /** All is written. */
  onWritten: () => void;
  /** The beat is kept nowhere, deleted elsewhere say. @returns the number that it begins with; null where it is there by now */
  onGone: (beat: Beat, seen: Record<string, number>) => Promise<number | null>;
  /** Has something done in a moment, when what was seen at once is on the screen. */
  soon: (work: () => void) => void;
  /** What is kept of the beat is read anew, since too much came in between. */
  onFar: (id: string) => Promise<{ beat: Beat; seq: number } | null>;
}

/** So many edits are written at once. */
const BATCH = 200;
/** After a fault it is tried again. */
const AGAIN_MS = 2000;
/**
 * The edits of one drag are written together: when it rests, and at the latest after so long. Till then the journal keeps
 * them; the storage's answers to each would take as much of the page's time as drawing what is dragged.
 */
const REST_MS = 250;
const LATEST_MS = 1000;

export const JOURNAL_EDITS = 'edits/';

const gestureOf = (action: UnknownAction): string | undefined =>
  (action as { payload?: { gesture?: string } }).payload?.gesture;

/** Every tab does and leaves out the same. */
const soundly = (doc: DocState, entry: LogEntry): DocState => {
  try {
    return docReducer(doc, entry as never);
  } catch {
    return doc;
  }
};

/**
 * The way of an edit: it is seen at once, journalled in the same breath, then written behind all edits of the beat in the
 * order that holds for all tabs. What others wrote before it comes in before it here too.
 */
export const createLine = (parts: LineParts) => {
  const { store, storage, journal, tabs, tab } = parts;
  let open: Standing | null = null;
  let made = 0;
  let pumping: Promise<boolean> | null = null;
  let again: ReturnType<typeof setTimeout> | null = null;
  let unkept = 0;
  /** Up to which edit they outlive a browser that is killed. */
  let hardened = 0;
  /** The drag that is going on, and when what it has made so far is written. */
  let gesture: string | undefined;
  let gathering: { since: number; timer: ReturnType<typeof setTimeout> } | null = null;

  const journalKey = (n: number) => `${JOURNAL_EDITS}${tab}/${n}`;
  const recordOf = (id: string, item: LogItem) => JSON.stringify({ id, item });

  /** Takes in what was written, own and others', in order. */
  const merge = (now: Standing, items: (LogItem | null)[], seq: number): void => {
    const foreign = items.some((item) => item && item.tab !== tab);
    const own = items.flatMap((item) => (item?.tab === tab ? [item.n] : []));
    const lastOwn = Math.max(0, ...own);
    if (foreign) {
      now.confirmed = items.reduce((doc, item) => (item ? soundly(doc, item.entry) : doc), now.confirmed);
      now.pending = now.pending.filter(({ item }) => item.n > lastOwn);
      let shown = now.confirmed;
      for (const one of now.pending) shown = one.after = soundly(shown, one.item.entry);
      if (open === now) store.dispatch(docMerged({ doc: shown }));
    } else {
      now.confirmed = now.pending.findLast(({ item }) => item.n <= lastOwn)?.after ?? now.confirmed;
      now.pending = now.pending.filter(({ item }) => item.n > lastOwn);
    }
    now.seq = seq;
    for (const n of own) journal.remove(journalKey(n));
  };

  const writeBatch = async (now: Standing): Promise<void> => {
    const batch = now.pending.slice(0, BATCH).map(({ item }) => item);
    const result = await append(storage, now.id, now.seq, batch);
    if (result.kind === 'gone') {
      const last = now.pending.at(-1);
      const beat = (last?.after ?? now.confirmed).beat!;
      const seq = await parts.onGone(beat, last ? { [tab]: last.item.n } : {});
      if (seq === null) return;
      merge(
        now,
        last ? now.pending.filter(({ item }) => item.n <= last.item.n).map(({ item }) => item) : [],
        seq,
      );
      return;
    }
    if (result.kind === 'far') {
      const read = await parts.onFar(now.id);
      if (!read) throw new Error(words.whatIsKeptOfThe);
      const { confirmed } = now;
      now.confirmed = {
        ...confirmed,
        beat: read.beat,
        past: [...confirmed.past, confirmed.beat!],
        future: [],
      };
      now.seq = read.seq;
      let shown = now.confirmed;
      for (const one of now.pending) shown = one.after = soundly(shown, one.item.entry);
      if (open === now) store.dispatch(docMerged({ doc: shown }));
      return;
    }
    const known = new Set(result.news.flatMap((item) => (item?.tab === tab ? [item.n] : [])));
    const written = batch.filter(({ n }) => !known.has(n));
    if (anyNeedsEdits(result.news.flatMap((item) => item?.entry ?? []))) await parts.loadEdits();
    merge(now, [...result.news, ...written], result.seq);
    if (written.length)
      tabs.say({ type: 'edits', id: now.id, from: result.seq - written.length + 1, items: written });
  };

  const pump = async (): Promise<boolean> => {
    try {
      do {
        const now = open;
        if (!now) return true;
        await writeBatch(now);
      } while (open && (open.seq === 0 || (open.pending.length && !gathering)));
      unkept = 0;
      parts.onWritten();
      return true;
    } catch (fault) {
      parts.onTrouble(fault);
      again ??= setTimeout(() => {
        again = null;
        void kick();
      }, AGAIN_MS);
      return false;
    }
  };

  /** Writes what is pending and hears what others wrote. */
  const kick = (): Promise<boolean> => (pumping ??= pump().finally(() => (pumping = null)));

  /**
   * Keeps what is pending where a kill of the browser does not reach it. Writing it into its place takes answers, for which
   * the page may have no time just then. A drag that goes on is in the hand, and waits until it rests.
   */
  const harden = (): void => {
    if (!open) return;
    const { id, pending } = open;
    const fresh = pending.filter(({ item }) => item.n > hardened).map(({ item }) => item);
    hardened = made;
    journal.harden(fresh.map((item) => [journalKey(item.n), recordOf(id, item)]));
  };

  const gathered = (): void => {
    if (gathering) clearTimeout(gathering.timer);
    gathering = null;
  };

  /** Puts off the writing while a drag goes on. */
  const gather = (): void => {
    const since = gathering?.since ?? Date.now();
    gathered();
    const wait = Math.max(0, Math.min(REST_MS, since + LATEST_MS - Date.now()));
    gathering = {
      since,
      timer: setTimeout(() => {
        gathered();
        harden();
        void kick();
      }, wait),
    };
  };

  const hear: EditHearer = (before, action, after) => {
    if (!open || after.beat?.id !== open.id) return;
    const item: LogItem = { tab, n: ++made, entry: logEntryOf(before, action, after) };
    open.pending.push({ item, after });
    if (!journal.write(journalKey(item.n), recordOf(open.id, item))) unkept += 1;
    const goesOn = gestureOf(action) !== undefined && gestureOf(action) === gesture;
    gesture = gestureOf(action);
    if (goesOn && !unkept) return gather();
    gathered();
    parts.soon(() => {
      harden();
      void kick();
    });
  };
  store.hearEdits(hear);

  return {
    /** The beat that was just opened, and the number of its last entry. */
    begin: (id: string, seq: number): void => {
      open = { id, seq, confirmed: store.getState().doc, pending: [] };
    },
    /** Edits that were written by another tab. */
    heard: (word: TabWord & { type: 'edits' }): void => {
      if (word.id !== open?.id) return;
      const isNext = word.from === open.seq + 1 && !open.pending.length && !pumping;
      const late = anyNeedsEdits(word.items.map(({ entry }) => entry));
      if (isNext && !late) merge(open, word.items, open.seq + word.items.length);
      else void kick();
    },
    /** Until all edits are written; false where the storage does not take them. */
    settle: async (): Promise<boolean> => {
      gathered();
      while (pumping) await pumping;
      return open?.pending.length ? kick() : true;
    },
    /** Whether a drag goes on whose edits are not written yet. */
    isGathering: () => gathering !== null,
    /** Hears what was written meanwhile, after a sleep say. */
    kick,
    /** What is written for certain. */
    stand: () => (open ? { id: open.id, seq: open.seq, beat: open.confirmed.beat! } : null),
    /** Edits that would be gone with the page: neither written nor journalled. */
    unkept: () => (open?.pending.length ? unkept : 0),
  };
};

export type EditLine = ReturnType<typeof createLine>;
