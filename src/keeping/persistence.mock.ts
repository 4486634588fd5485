import type { Read } from '../../core/document/reading';
import { newBeat } from '../../core/document/defaults';
import * as file from '../../core/document/file';
import * as formats from '../../core/formats';
import { memoryJournal } from './journal';
import { createPersistence, type PersistenceParts } from './persistence';
import { loadEdits } from '../store/deferredEdits';
import type { KeyValue } from './storage';
import { changed } from './storage.mock';
import { createStore } from '../store/store';
import type { TabsChannel, TabWord } from './tabs';

export const demo = newBeat('demo', 'Demo', 1);
export const second = newBeat('second', 'Second', 2);

/** A storage that can be full. */
export const memory = (
  data = new Map<string, string>(),
): KeyValue & { data: Map<string, string>; full: boolean } => ({
  data,
  full: false,
  getItem: (key) => Promise.resolve(data.get(key) ?? null),
  getMany: (keys) => Promise.resolve(Object.fromEntries(keys.map((key) => [key, data.get(key) ?? null]))),
  async setMany(entries) {
    await Promise.resolve();
    if (this.full) throw new Error('QuotaExceededError');
    for (const [key, value] of Object.entries(entries)) data.set(key, value);
  },
  async change(asked, work) {
    await Promise.resolve();
    await this.setMany(work(changed(data, asked)));
  },
  removeMany: (keys) => {
    keys.forEach((key) => data.delete(key));
    return Promise.resolve();
  },
  getAllKeys: () => Promise.resolve([...data.keys()]),
});

/** Tabs that hear one another at once. */
export const channel = () => {
  const ears: ((word: TabWord) => void)[] = [];
  return (): TabsChannel => {
    let mine: ((word: TabWord) => void) | null = null;
    return {
      say: (word) => ears.filter((ear) => ear !== mine).forEach((ear) => ear(word)),
      listen: (hear) => {
        mine = hear;
        ears.push(hear);
      },
    };
  };
};

/** Tabs by their names, those that still live. */
export const living = new Set<string>();
let tabs = 0;

/** A page of Ruddik, begun. */
export const open = async (
  storage: KeyValue & { data: Map<string, string>; full: boolean } = memory(),
  channelled = channel()(),
  journal = memoryJournal(),
  readBack: PersistenceParts['readBack'] = (text) => {
    const read = formats.readBeat(text);
    return Promise.resolve(read.ok ? null : read.error);
  },
) => {
  const store = createStore();
  const tab = `tab${++tabs}`;
  living.add(tab);
  const persistence = createPersistence({
    store,
    storage,
    journal,
    tabs: channelled,
    life: {
      tab,
      alive: (other) => Promise.resolve(living.has(other)),
      others: () => Promise.resolve([...living].filter((one) => one !== tab)),
    },
    loadEdits,
    soon: (work) => work(),
    isFull: () => Promise.resolve(null),
    demos: [demo, second],
    fileFormat: () => Promise.resolve(formats),
    readBack,
    now: () => 1,
    screenReady: Promise.resolve(),
    seed: () => 5,
  });
  await persistence.boot();
  const state = () => store.getState();
  const texts = () => state().notices.map(({ text }) => text);
  const beat = () => state().doc.beat!;
  /** The page ends, with nothing done on the way. */
  const kill = () => {
    living.delete(tab);
    store.hearEdits(() => undefined);
  };
  return { store, persistence, storage, journal, state, texts, beat, kill };
};

/** What is read from the text of a file. */
export const fromText = (text: string): Read<file.ReadBeats> => ({ ok: true, value: file.readBeats(text) });
