import { writeBeat } from '../../core/document/text';
import { tempoSet } from '../store/doc';
import { demo, fromText, living, memory, open, second } from './persistence.mock';

beforeEach(() => living.clear());

const settle = (ms = 450) => new Promise((resolve) => setTimeout(resolve, ms));

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
  expect(await one.persistence.open('second')).toBe(true);
  const two = await open(memory(one.storage.data));
  expect(two.state().doc.beat!.id).toBe('second');
});

test('no beat is left before it is safe, in the storage or in a file', async () => {
  const { store, persistence, storage, state, texts, beat } = await open();
  storage.full = true;
  store.dispatch(tempoSet({ tempo: 81 }));
  expect(await persistence.open('second')).toBe(false);
  expect(beat()).toMatchObject({ id: 'demo', tempo: 81 });
  expect(texts().at(-1)).toContain('Save it to a file first');
  await persistence.create();
  await persistence.bringIn('x.json', fromText(writeBeat(second)));
  expect(beat().id).toBe('demo');
  persistence.taken(state().doc.beat!);
  expect(await persistence.open('second')).toBe(true);
});

test('Undo delete on a full storage can be asked for again', async () => {
  const { persistence, storage, state } = await open();
  await persistence.remove('second');
  storage.full = true;
  await persistence.restore('second');
  expect(state().library.beats.map(({ name }) => name)).toEqual(['Demo']);
  expect(state().notices.some(({ action }) => action?.label === 'Undo delete')).toBe(true);
  storage.full = false;
  await persistence.restore('second');
  expect(
    state()
      .library.beats.map(({ name }) => name)
      .sort(),
  ).toEqual(['Demo', 'Second']);
});

test('a beat of a newer version stays where it is, is shown as newer, and is not opened', async () => {
  const one = await open();
  const newer = JSON.stringify({ ...JSON.parse(writeBeat(second)), version: 99, glow: true });
  one.storage.data.set('beat/second', newer);
  one.storage.data.delete('summary/second');
  const two = await open(memory(one.storage.data));
  expect(two.state().library.beats.find(({ id }) => id === 'second')).toMatchObject({
    name: 'Second',
    newer: true,
  });
  expect(await two.persistence.open('second')).toBe(false);
  expect(await two.persistence.open('second')).toBe(false);
  expect(two.texts().filter((text) => text.includes('saved by a newer Ruddik'))).toHaveLength(1);
  expect(two.texts().at(-1)).toContain('saved by a newer Ruddik');
  expect(two.storage.data.get('beat/second')).toBe(newer);
  expect(await two.persistence.textOf('second')).toBe(newer);
});

test('a list that disagrees with what it lists is mended, at the start and by hand', async () => {
  const one = await open();
  one.storage.data.set('summary/second', '{"name":7}');
  const two = await open(memory(one.storage.data));
  expect(
    two
      .state()
      .library.beats.map(({ name }) => name)
      .sort(),
  ).toEqual(['Demo', 'Second']);
  two.storage.data.set(
    'summary/second',
    JSON.stringify({ name: 'Wrong', tempo: 1, meter: '9/9', bars: 3, saved: 5 }),
  );
  expect(await two.persistence.check()).toBe('2 beats looked through; 1 mended or set aside.');
  expect(two.storage.data.get('summary/second')).toContain('"Second"');
  expect(await two.persistence.check()).toBe('2 beats looked through; all is as it should be.');
});

test('junk in any one place: the app starts, lists its beats, and what was junk is kept', async () => {
  const JUNK = ['null', '{}', '[]', '7', '"x"', '{"metronome":null}', '{{', '', '[null]'];
  const first = await open();
  first.store.dispatch(tempoSet({ tempo: 90 }));
  await settle();
  for (const key of first.storage.data.keys())
    for (const junk of JUNK) {
      const data = new Map(first.storage.data).set(key, junk);
      const { state, storage } = await open(memory(data));
      expect([key, junk, state().doc.beat === null]).toEqual([key, junk, false]);
      expect([key, junk, state().library.beats.length >= 1]).toEqual([key, junk, true]);
      const other = key.includes('demo') ? 'beat/second' : 'beat/demo';
      expect(storage.data.get(other)).toBe(first.storage.data.get(other));
    }
}, 60000);

test('without any storage the app works and says that nothing is kept', async () => {
  const away = () => Promise.reject(new Error('barred'));
  const storage = {
    ...memory(),
    getItem: away,
    getMany: away,
    setMany: away,
    removeMany: away,
    getAllKeys: away,
  };
  const { store, state, texts } = await open(storage);
  store.dispatch(tempoSet({ tempo: 70 }));
  expect(state().doc.beat!.tempo).toBe(70);
  expect(texts().join(' ')).toContain('The browser’s storage does not take it');
});

test('two beats of one id in one file are both kept', async () => {
  const { persistence, state } = await open();
  const both = { kind: 'ruddik.beats', beats: ['One', 'Two'].map((name) => ({ ...demo, id: 'same', name })) };
  await persistence.bringIn('both.json', fromText(JSON.stringify(both)));
  expect(
    state()
      .library.beats.map(({ name }) => name)
      .sort(),
  ).toEqual(['Demo', 'One', 'Second', 'Two']);
});

test('thousands of faulty beats in one file are told in a few words', async () => {
  const { persistence, state } = await open();
  const text = JSON.stringify({ kind: 'ruddik.beats', beats: Array.from({ length: 5000 }, () => ({})) });
  await persistence.bringIn('many.json', fromText(text));
  expect(
    state()
      .notices.map(({ text: one }) => one)
      .at(-1),
  ).toContain('4997 more of its beats');
});

test('damaged data is set aside with its text, and another beat opens', async () => {
  const one = await open();
  one.storage.data.set('beat/demo', '{"kind":"ruddik');
  const two = await open(memory(one.storage.data));
  expect(two.state().doc.beat!.id).toBe('second');
  const [aside] = two.state().library.aside;
  expect(aside!.name).toBe('Demo (damaged, set aside)');
  expect(await two.persistence.asideText(aside!.key)).toBe('{"kind":"ruddik');
  expect(two.storage.data.has('beat/demo')).toBe(false);
  await two.persistence.removeAside(aside!.key);
  expect(two.state().library.aside).toEqual([]);
});

test('a full storage is said with a way out, and saving is tried again', async () => {
  const { store, storage, state, persistence } = await open();
  storage.full = true;
  store.dispatch(tempoSet({ tempo: 80 }));
  await persistence.flush();
  expect(state().notices[0]).toMatchObject({ lasting: true, action: { does: { kind: 'saveBeat' } } });
  expect(state().notices[0]!.text).toContain('storage is full');
  storage.full = false;
  store.dispatch(tempoSet({ tempo: 81 }));
  await persistence.flush();
  expect(state().notices).toEqual([]);
  expect(storage.data.get('beat/demo')).toContain('"tempo":81');
});

test('beats are made, renamed, duplicated, deleted and had back', async () => {
  const { persistence, state } = await open();
  await persistence.create();
  expect(state().doc.beat).toMatchObject({ name: 'New beat', seed: 5 });
  await persistence.rename('second', 'Rain');
  await persistence.duplicate('second');
  const names = () =>
    state()
      .library.beats.map(({ name }) => name)
      .sort();
  expect(names()).toEqual(['Demo', 'New beat', 'Rain', 'Rain copy']);
  const made = state().doc.beat!.id;
  await persistence.remove(made);
  expect(names()).toEqual(['Demo', 'Rain', 'Rain copy']);
  expect(state().doc.beat!.id).not.toBe(made);
  await persistence.restore(made);
  expect(names()).toContain('New beat');
});

test('a file becomes a beat of its own, and a faulty one changes nothing', async () => {
  const { persistence, state, texts } = await open();
  await persistence.bringIn('demo.json', fromText(writeBeat({ ...demo, name: 'From a file' })));
  expect(state().doc.beat!.name).toBe('From a file');
  expect(state().doc.beat!.id).not.toBe('demo');
  const before = state().doc.beat;
  await persistence.bringIn('bad.json', fromText('{"kind":"ruddik.beat","version":1}'));
  expect(state().doc.beat).toBe(before);
  expect(texts().at(-1)).toMatch(/“bad.json” was not opened\. Its .* is missing/);
});
