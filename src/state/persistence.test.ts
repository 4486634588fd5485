import type { Beat } from '../../core/document/schema';
import { writeBeat } from '../../core/document/text';
import { loadEdits } from './deferredEdits';
import { patternsEdited, stepSet, tempoSet, undone } from './doc';
import { memoryJournal } from './journal';
import { channel, demo, fromText, living, memory, open, second } from './persistence.mock';

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

const tap = (step: number, laneId = 'kick') => stepSet({ patternId: 'a', laneId, step, on: true });
const stepsOf = (beat: Beat, laneId = 'kick') =>
  (beat.patterns[0]!.parts[laneId]?.hits ?? []).map(({ step }) => step);

test('edits travel between tabs and are applied in one order; both have their history', async () => {
  const storage = memory();
  const tabsOf = channel();
  const one = await open(storage, tabsOf());
  const two = await open(storage, tabsOf());
  expect(one.texts()[0] ?? two.texts()[0]).toContain('is open in another tab too');
  one.store.dispatch(tempoSet({ tempo: 90 }));
  await settle();
  expect(two.beat().tempo).toBe(90);
  one.store.dispatch(tap(1));
  two.store.dispatch(tap(3));
  one.store.dispatch(tap(5));
  two.store.dispatch(tap(7, 'snare'));
  await settle();
  expect(one.beat()).toEqual(two.beat());
  expect(stepsOf(one.beat())).toEqual(expect.arrayContaining([1, 3, 5]));
  expect(stepsOf(one.beat(), 'snare')).toContain(7);
  one.store.dispatch(undone());
  await settle();
  expect(two.beat()).toEqual(one.beat());
  expect(
    one
      .state()
      .library.beats.map(({ name }) => name)
      .sort(),
  ).toEqual(['Demo', 'Second']);
});

test('ten tabs at once: not one of 640 edits is lost, and all show the same', async () => {
  const storage = memory();
  const tabsOf = channel();
  const all = [];
  for (let at = 0; at < 10; at++) all.push(await open(storage, tabsOf()));
  const lanes = demo.lanes.map(({ id }) => id);
  for (let step = 0; step < 64; step++)
    for (const [at, { store }] of all.entries()) {
      store.dispatch(
        stepSet({ patternId: 'a', laneId: lanes[at % 5]!, step: step * 2 + Math.floor(at / 5), on: true }),
      );
      if (step % 7 === at % 7) await Promise.resolve();
    }
  await Promise.all(all.map(({ persistence }) => persistence.flush()));
  for (const { persistence } of all) persistence.wake();
  await settle();
  const [first] = all;
  for (const { beat } of all) expect(beat()).toEqual(first!.beat());
  for (const lane of lanes.slice(0, 5)) {
    const steps = new Set(stepsOf(first!.beat(), lane));
    expect(Array.from({ length: 128 }, (_, step) => step).filter((step) => !steps.has(step))).toEqual([]);
  }
  const later = await open(memory(storage.data));
  expect(later.beat()).toEqual(first!.beat());
});

test('an edit is safe when it is seen: the page ends in the same breath, the next one has it', async () => {
  for (let at = 0; at < 16; at++) {
    const journal = memoryJournal();
    const one = await open(memory(), channel()(), journal);
    one.store.dispatch(tempoSet({ tempo: 100 + at / 2 }));
    one.store.dispatch(tap(3));
    // Some turns of the wheel later, or none.
    for (let turns = 0; turns < at % 8; turns++) await Promise.resolve();
    const data = new Map(one.storage.data);
    const kept = memoryJournal(new Map(journal.data));
    one.kill();
    const two = await open(memory(data), channel()(), kept);
    expect(two.beat().tempo).toBe(100 + at / 2);
    expect(stepsOf(two.beat())).toContain(3);
    await settle();
    expect(kept.data.size).toBe(0);
  }
}, 60000);

test('a browser is killed: its small store has kept nothing, and yet what was done before the last drag is there', async () => {
  for (let turns = 0; turns < 8; turns++) {
    const journal = memoryJournal();
    const one = await open(memory(), channel()(), journal);
    one.storage.full = true;
    for (let tempo = 101; tempo < 120; tempo++) one.store.dispatch(tempoSet({ tempo, gesture: 'drag' }));
    one.store.dispatch(tap(3));
    for (let tempo = 121; tempo < 130; tempo++) one.store.dispatch(tempoSet({ tempo, gesture: 'next' }));
    for (let turn = 0; turn < turns; turn++) await Promise.resolve();
    const hard = new Map(journal.hard);
    const kept = memoryJournal(new Map(), new Map(hard));
    one.kill();
    const two = await open(memory(new Map(one.storage.data)), channel()(), kept);
    expect(stepsOf(two.beat())).toContain(3);
    // The last drag was in the hand: at least where it began is there, and all of the one before.
    expect(two.beat().tempo).toBeGreaterThanOrEqual(119);
    await settle();
    expect([kept.data.size, kept.hard.size]).toEqual([0, 0]);
    // What is in the log already counts once, should its record come again.
    two.kill();
    const again = await open(memory(two.storage.data), channel()(), memoryJournal(new Map(), hard));
    expect(again.beat()).toEqual(two.beat());
  }
}, 60000);

test('the edits of a drag are written together when it rests; a page that ends in it has left them all', async () => {
  const one = await open();
  let writes = 0;
  const change = one.storage.change.bind(one.storage);
  one.storage.change = (asked, work) => {
    writes += 1;
    return change(asked, work);
  };
  const drag = (tempo: number, gesture = 'drag') => one.store.dispatch(tempoSet({ tempo, gesture }));
  for (let tempo = 100; tempo < 130; tempo++) {
    drag(tempo);
    await settle(5);
  }
  expect(writes).toBeLessThan(5);
  await settle(1000);
  expect(one.storage.data.get('beat/demo')).toContain('"tempo":129');
  for (let tempo = 130; tempo < 140; tempo++) drag(tempo, 'another');
  one.kill();
  const two = await open(memory(one.storage.data), channel()(), one.journal);
  expect(two.beat().tempo).toBe(139);
});

test('a drag that never rests is written within a second or so, and leaving waits for it', async () => {
  const one = await open();
  const drag = (tempo: number) => one.store.dispatch(tempoSet({ tempo, gesture: 'drag' }));
  for (let at = 0; at < 30; at++) {
    drag(100 + at);
    await settle(50);
  }
  const logged = () => [...one.storage.data].filter(([key]) => key.startsWith('log/demo/')).length;
  expect(logged()).toBeGreaterThan(10);
  drag(140);
  expect(await one.persistence.flush()).toBe(true);
  expect(one.storage.data.get('beat/demo')).toContain('"tempo":140');
});

test('what a dead page left of a beat that is not opened now is written too; a living one keeps its own', async () => {
  const journal = memoryJournal();
  const one = await open(memory(), channel()(), journal);
  await one.persistence.open('second');
  one.storage.full = true;
  one.store.dispatch(tempoSet({ tempo: 77 }));
  await one.persistence.flush();
  expect(journal.data.size).toBe(1);
  const beside = await open(memory(one.storage.data), channel()(), journal);
  expect(journal.data.size).toBe(1);
  expect(beside.state().doc.beat!.tempo).toBe(100);
  one.kill();
  one.storage.data.set('open', JSON.stringify({ beatId: 'demo', patternId: null }));
  const two = await open(memory(one.storage.data), channel()(), journal);
  expect(two.beat().id).toBe('demo');
  expect((await two.persistence.beat('second'))!.tempo).toBe(77);
  expect(journal.data.size).toBe(0);
});

test('what a closing tab leaves is taken up by one that is open already, once it is certain that it is gone', async () => {
  const journal = memoryJournal();
  const data = new Map<string, string>();
  const two = await open(memory(data), channel()(), journal);
  const one = await open(memory(data), channel()(), journal);
  one.storage.full = true;
  one.store.dispatch(tempoSet({ tempo: 77 }));
  const [key] = [...journal.data.keys()];
  journal.tell(key!);
  await settle(1300);
  expect(two.beat().tempo).toBe(100);
  expect(journal.data.size).toBe(1);
  one.kill();
  await settle(5500);
  expect(two.beat().tempo).toBe(77);
  expect(journal.data.size).toBe(0);
}, 20000);

test('a beat renamed in another tab is renamed here, and forks nothing', async () => {
  const storage = memory();
  const tabsOf = channel();
  const one = await open(storage, tabsOf());
  const two = await open(storage, tabsOf());
  await two.persistence.open('second');
  await two.persistence.rename('demo', 'Rain');
  one.store.dispatch(tap(2));
  await settle();
  expect(one.beat().name).toBe('Rain');
  expect(stepsOf(one.beat())).toContain(2);
  expect(
    one
      .state()
      .library.beats.map(({ name }) => name)
      .sort(),
  ).toEqual(['Rain', 'Second']);
});

test('a beat deleted in another tab is told, and kept again with the next edit', async () => {
  const storage = memory();
  const tabsOf = channel();
  const one = await open(storage, tabsOf());
  const two = await open(storage, tabsOf());
  await two.persistence.remove('demo');
  expect(one.texts().at(-1)).toContain('was deleted in another tab');
  one.store.dispatch(tap(2));
  await settle();
  expect(storage.data.get('beat/demo')).toContain('"step":2');
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

test('Undo delete of a beat that another tab has kept again meanwhile keeps both', async () => {
  const storage = memory();
  const tabsOf = channel();
  const one = await open(storage, tabsOf());
  const two = await open(storage, tabsOf());
  two.store.dispatch(tap(2));
  await settle();
  await one.persistence.remove('demo');
  two.store.dispatch(tap(6));
  await settle();
  await one.persistence.restore('demo');
  await settle();
  const kept = [...storage.data]
    .filter(([key]) => key.startsWith('beat/'))
    .map(([, text]) => JSON.parse(text) as Beat);
  expect(kept.filter(({ name }) => name === 'Demo').map((beat) => stepsOf(beat))).toEqual([[2, 6], [2]]);
  expect(new Set(kept.map(({ id }) => id)).size).toBe(3);
});

test('an edit that turns is done once, whoever is written first', async () => {
  await loadEdits();
  const storage = memory();
  const tabsOf = channel();
  const one = await open(storage, tabsOf());
  const two = await open(storage, tabsOf());
  one.store.dispatch(tap(0));
  one.store.dispatch(tap(0, 'snare'));
  await settle();
  const turn = (laneId: string) =>
    patternsEdited({ patternIds: ['a'], edit: { edit: 'rotate', args: { laneIds: [laneId], by: 1 } } });
  for (let at = 0; at < 5; at++) {
    one.store.dispatch(turn('kick'));
    two.store.dispatch(turn('snare'));
    await Promise.resolve();
  }
  await settle();
  // Each is turned five times, in both.
  expect([stepsOf(one.beat()), stepsOf(one.beat(), 'snare')]).toEqual([[5], [5]]);
  expect(two.beat()).toEqual(one.beat());
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
