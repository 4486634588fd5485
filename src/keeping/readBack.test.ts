/** One slip of an edit does not cost the beat: what is written is read back, what spoilt it is taken back and named. */
import { beatRenamed, kitSet, stepSet, undone } from '../store/doc';
import { soundBeat, nameOfEntry } from './readBack';
import { readBeat } from '../../core/document/file';
import { demo, living, memory, open } from './persistence.mock';

beforeEach(() => living.clear());

const tap = (step: number) => stepSet({ patternId: 'a', laneId: 'kick', step, on: true });
/** Edits as a slip in the code would make them: they are taken, and leave a beat that is not read again. */
const SLIPS = {
  'a kit without a name': kitSet({ kit: ' ' }),
  'a name that is none': beatRenamed({ name: '' }),
  'a hit on half a step': tap(0.5),
};

test.each(Object.entries(SLIPS))(
  '%s: it is undone and named, what was done round it stays',
  async (_, slip) => {
    const page = await open();
    page.store.dispatch(tap(3));
    await page.persistence.flush();
    page.store.dispatch(tap(5));
    page.store.dispatch(slip);
    page.store.dispatch(tap(7));
    const spoilt = JSON.stringify(page.beat());
    await page.persistence.flush();
    const steps = page.beat().patterns[0]!.parts['kick']!.hits.map(({ step }) => step);
    expect(steps).toEqual(expect.arrayContaining([3, 5, 7]));
    expect(steps).not.toContain(0.5);
    expect([page.beat().kit, page.beat().name]).toEqual([demo.kit, demo.name]);
    expect(page.texts().join(' ')).toContain(
      `Your edit (${nameOfEntry(slip)}) could not have been opened again`,
    );
    // What lies there is read, and the beat as it was can be had.
    expect(readBeat(page.storage.data.get('beat/demo')!)).toEqual({ ok: true, value: page.beat() });
    const [aside] = page.state().library.aside;
    expect(await page.persistence.asideText(aside!.key)).toBe(spoilt);
    // Undo does not lead back into it.
    page.store.dispatch(undone());
    await page.persistence.flush();
    expect(readBeat(JSON.stringify(page.beat())).ok).toBe(true);
    expect(page.texts()).toHaveLength(1);
    page.kill();
    const next = await open(memory(page.storage.data));
    expect(next.beat()).toEqual(page.beat());
  },
);

test('a page that ends before it reads back: the next start leaves out the slip alone, and tells it once', async () => {
  const page = await open();
  page.store.dispatch(tap(3));
  await page.persistence.flush();
  for (const one of [tap(5), SLIPS['a hit on half a step'], tap(7)]) page.store.dispatch(one);
  page.kill();
  const next = await open(memory(page.storage.data), undefined, page.journal);
  const steps = next.beat().patterns[0]!.parts['kick']!.hits.map(({ step }) => step);
  expect(steps).toEqual(expect.arrayContaining([3, 5, 7]));
  expect(steps).not.toContain(0.5);
  expect(next.texts().join(' ')).toContain('Some edits of “Demo” could not be read');
  next.kill();
  const last = await open(memory(next.storage.data), undefined, next.journal);
  expect(last.texts().join(' ')).not.toContain('Some edits');
  expect(last.beat()).toEqual(next.beat());
});

test('where nobody can tell whether it is read again, the text stays as it was and every edit is kept', async () => {
  const page = await open(memory(), undefined, undefined, () => Promise.resolve(undefined));
  const before = page.storage.data.get('beat/demo');
  page.store.dispatch(tap(3));
  expect(await page.persistence.flush()).toBe(true);
  expect(page.storage.data.get('beat/demo')).toBe(before);
  page.kill();
  const next = await open(memory(page.storage.data), undefined, page.journal);
  expect(next.beat()).toEqual(page.beat());
});

test('a text that was set aside is opened again, without the part that is wrong; it is told, and stays', async () => {
  const first = await open();
  const text = first.storage.data.get('beat/demo')!;
  const data = new Map(first.storage.data).set('beat/demo', text.replace('"tempo":100', '"tempo":-4'));
  first.kill();
  const page = await open(memory(data));
  expect(page.beat().id).toBe('second');
  const notice = page.state().notices.find(({ also }) => also?.does.kind === 'openAside')!;
  const { key } = notice.also!.does as { key: string };
  expect(await page.persistence.openAside(key)).toBe(true);
  expect(page.beat()).toEqual(demo);
  expect(page.texts().at(-1)).toContain('was opened without what was damaged. Its tempo is -4');
  expect(await page.persistence.asideText(key)).toContain('"tempo":-4');
  expect(page.storage.data.has('beat/demo')).toBe(true);
});

test('a text that was set aside and is whole is opened as it is, beside a beat of its id, and is aside no more', async () => {
  const page = await open();
  const text = page.storage.data.get('beat/demo')!;
  page.storage.data.set('aside/demo/1', JSON.stringify({ name: 'Demo', reason: '', text }));
  expect(await page.persistence.openAside('aside/demo/1')).toBe(true);
  expect(page.beat()).toEqual({ ...demo, id: page.beat().id });
  expect(page.beat().id).not.toBe('demo');
  expect(page.storage.data.has('aside/demo/1')).toBe(false);
});

test('what is no beat is not opened, and stays', async () => {
  const page = await open();
  page.storage.data.set('aside/x/1', JSON.stringify({ name: 'X', reason: '', text: '7' }));
  expect(await page.persistence.openAside('aside/x/1')).toBe(false);
  expect(page.texts().at(-1)).toBe('It was not opened. Nothing of a beat can be read in it.');
  expect(page.storage.data.has('aside/x/1')).toBe(true);
});

test('of many edits each that spoils the beat is found, wherever it stands', () => {
  const reads = (beat: typeof demo) => readBeat(JSON.stringify(beat)).ok;
  const edits = Array.from({ length: 40 }, (_, at) => (at % 13 === 5 ? tap((at % 16) + 0.5) : tap(at % 16)));
  const { beat, left } = soundBeat(demo, edits, (one) => one, reads);
  expect(left).toEqual([edits[5], edits[18], edits[31]]);
  expect(reads(beat)).toBe(true);
});
