/** Many tabs of one browser on one beat, pages that end, and what they leave. */
import type { Beat } from '../../core/document/schema';
import { loadEdits } from '../store/deferredEdits';
import { patternsEdited, stepSet, tempoSet, undone } from '../store/doc';
import { memoryJournal } from './journal';
import { channel, demo, living, memory, open } from './persistence.mock';

beforeEach(() => living.clear());

const settle = (ms = 450) => new Promise((resolve) => setTimeout(resolve, ms));

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
