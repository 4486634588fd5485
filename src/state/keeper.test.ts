import { newBeat } from '../../core/beat/defaults';
import * as file from '../../core/beat/file';
import { writeBeat } from '../../core/beat/text';
import { tempoSet } from './doc';
import { createKeeper } from './keeper';
import type { KeyValue } from './storage';
import { createStore } from './store';
import type { Tabs, TabWord } from './tabs';

const demo = newBeat('demo', 'Demo', 1);
const second = newBeat('second', 'Second', 2);

const memory = (
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
  removeMany: (keys) => {
    keys.forEach((key) => data.delete(key));
    return Promise.resolve();
  },
  getAllKeys: () => Promise.resolve([...data.keys()]),
});

/** Tabs that hear one another at once. */
const channel = () => {
  const ears: ((word: TabWord) => void)[] = [];
  return (): Tabs => {
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

const open = async (storage = memory(), tabs = channel()()) => {
  const store = createStore();
  const keeper = createKeeper({
    store,
    storage,
    tabs,
    demos: [demo, second],
    fileFormat: () => Promise.resolve(file),
    now: () => 1,
    screenReady: Promise.resolve(),
    seed: () => 5,
  });
  await keeper.boot();
  const state = () => store.getState();
  const texts = () => state().notices.map(({ text }) => text);
  return { store, keeper, storage, state, texts };
};

const settle = () => new Promise((resolve) => setTimeout(resolve, 450));

test('the first start opens the first demo beat and keeps them all', async () => {
  const { state, storage } = await open();
  expect(state().doc.beat).toEqual(demo);
  expect(
    state()
      .library.beats.map(({ name }) => name)
      .sort(),
  ).toEqual(['Demo', 'Second']);
  expect(storage.data.has('beat/second')).toBe(true);
});

test('an edit is saved within a second, and a later start comes back to it', async () => {
  const one = await open();
  one.store.dispatch(tempoSet({ tempo: 133 }));
  expect(one.storage.data.get('beat/demo')).not.toContain('133');
  await settle();
  expect(one.storage.data.get('beat/demo')).toContain('"tempo":133');
  const two = await open(memory(one.storage.data));
  expect(two.state().doc.beat!.tempo).toBe(133);
});

test('a beat that was opened is the one that a later start opens', async () => {
  const one = await open();
  expect(await one.keeper.open('second')).toBe(true);
  const two = await open(memory(one.storage.data));
  expect(two.state().doc.beat!.id).toBe('second');
});

test('a change that another tab has saved appears here; both are kept when both changed it', async () => {
  const storage = memory();
  const tabs = channel();
  const one = await open(storage, tabs());
  const two = await open(storage, tabs());
  expect(two.texts()[0]).toContain('is open in another tab too');
  one.store.dispatch(tempoSet({ tempo: 90 }));
  await settle();
  expect(two.state().doc.beat!.tempo).toBe(90);
  one.store.dispatch(tempoSet({ tempo: 91 }));
  two.store.dispatch(tempoSet({ tempo: 92 }));
  await one.keeper.flush();
  await two.keeper.flush();
  await settle();
  const beats = [one, two].map(({ state }) => state().doc.beat!);
  expect(beats.map(({ tempo }) => tempo)).toEqual([91, 92]);
  expect(beats.map(({ name }) => name)).toEqual(['Demo', 'Demo (second tab)']);
  const names = one.state().library.beats.map(({ name }) => name);
  expect(names).toContain('Demo (second tab)');
});

test('damaged data is set aside with its text, and another beat opens', async () => {
  const one = await open();
  one.storage.data.set('beat/demo', '{"kind":"ruddik');
  const two = await open(memory(one.storage.data));
  expect(two.state().doc.beat!.id).toBe('second');
  const [aside] = two.state().library.aside;
  expect(aside!.name).toBe('Demo (damaged, set aside)');
  expect(await two.keeper.asideText(aside!.key)).toBe('{"kind":"ruddik');
  expect(two.storage.data.has('beat/demo')).toBe(false);
  await two.keeper.removeAside(aside!.key);
  expect(two.state().library.aside).toEqual([]);
});

test('a full storage is said with a way out, and saving is tried again', async () => {
  const { store, storage, state, keeper } = await open();
  storage.full = true;
  store.dispatch(tempoSet({ tempo: 80 }));
  await keeper.flush();
  expect(state().notices[0]).toMatchObject({ lasting: true, action: { does: { kind: 'saveBeat' } } });
  expect(state().notices[0]!.text).toContain('storage is full');
  storage.full = false;
  store.dispatch(tempoSet({ tempo: 81 }));
  await keeper.flush();
  expect(state().notices).toEqual([]);
  expect(storage.data.get('beat/demo')).toContain('"tempo":81');
});

test('beats are made, renamed, duplicated, deleted and had back', async () => {
  const { keeper, state } = await open();
  await keeper.create();
  expect(state().doc.beat).toMatchObject({ name: 'New beat', seed: 5 });
  await keeper.rename('second', 'Rain');
  await keeper.duplicate('second');
  const names = () =>
    state()
      .library.beats.map(({ name }) => name)
      .sort();
  expect(names()).toEqual(['Demo', 'New beat', 'Rain', 'Rain copy']);
  const made = state().doc.beat!.id;
  await keeper.remove(made);
  expect(names()).toEqual(['Demo', 'Rain', 'Rain copy']);
  expect(state().doc.beat!.id).not.toBe(made);
  await keeper.restore(made);
  expect(names()).toContain('New beat');
});

test('a file becomes a beat of its own, and a faulty one changes nothing', async () => {
  const { keeper, state, texts } = await open();
  await keeper.bringIn('demo.json', writeBeat({ ...demo, name: 'From a file' }));
  expect(state().doc.beat!.name).toBe('From a file');
  expect(state().doc.beat!.id).not.toBe('demo');
  const before = state().doc.beat;
  await keeper.bringIn('bad.json', '{"kind":"ruddik.beat","version":1}');
  expect(state().doc.beat).toBe(before);
  expect(texts().at(-1)).toMatch(/“bad.json” was not opened\. Its .* is missing/);
});
