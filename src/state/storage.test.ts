import { newBeat } from '../../core/beat/defaults';
import * as disk from './storage';
import { memory } from './storage.mock';

const beat = newBeat('b', 'Quay', 1);

test('a beat is saved under a revision that grows, and never over one that is not known', async () => {
  const storage = memory();
  expect(await disk.saveBeat(storage, beat, 0, 10)).toEqual({ kind: 'saved', revision: 1 });
  expect(await disk.saveBeat(storage, { ...beat, tempo: 90 }, 1, 20)).toEqual({ kind: 'saved', revision: 2 });
  expect(await disk.saveBeat(storage, { ...beat, tempo: 70 }, 1, 30)).toEqual({
    kind: 'conflict',
    revision: 2,
  });
  const { text, revision } = await disk.loadBeatText(storage, 'b');
  expect(revision).toBe(2);
  expect((JSON.parse(text!) as typeof beat).tempo).toBe(90);
});

test('a beat that is not there is nothing, and not a fault', async () => {
  expect(await disk.loadBeatText(memory(), 'gone')).toEqual({ text: null, revision: 0 });
  expect(await disk.readOpen(memory())).toBeNull();
});

test('the list tells name, tempo, meter and bars without reading the beats', async () => {
  const storage = memory();
  await disk.saveBeat(storage, beat, 0, 10);
  storage.data.set('beat/b', 'not even JSON');
  const { beats } = await disk.readLibrary(storage);
  expect(beats).toEqual([{ id: 'b', name: 'Quay', tempo: 100, meter: '4/4', bars: 1, saved: 10 }]);
});

test('a beat whose line in the list is damaged is listed all the same', async () => {
  const storage = memory();
  await disk.saveBeat(storage, beat, 0, 10);
  storage.data.set('summary/b', '{');
  const { beats } = await disk.readLibrary(storage);
  expect(beats.map(({ id, name }) => [id, name])).toEqual([['b', 'A beat without a name']]);
});

test('what is set aside keeps its text and its reason, and the beat is out of the way', async () => {
  const storage = memory();
  await disk.saveBeat(storage, beat, 0, 10);
  const aside = await disk.setAside(storage, 'b', '{"half":', 'It is not JSON.', 99);
  expect(aside).toEqual({ key: 'aside/b/99', name: 'Quay (damaged, set aside)', reason: 'It is not JSON.' });
  expect(await disk.asideText(storage, aside.key)).toBe('{"half":');
  expect(await disk.readLibrary(storage)).toEqual({ beats: [], aside: [aside] });
  await disk.removeAside(storage, aside.key);
  expect(storage.data.size).toBe(0);
});

test('settings that are missing or damaged take their defaults', async () => {
  const storage = memory();
  expect(await disk.readSettings(storage, { zoom: 1, glass: 2 })).toEqual({ zoom: 1, glass: 2 });
  await disk.writeSettings(storage, { zoom: 4 });
  expect(await disk.readSettings(storage, { zoom: 1, glass: 2 })).toEqual({ zoom: 4, glass: 2 });
  storage.data.set('settings', '{{');
  expect(await disk.readSettings(storage, { zoom: 1 })).toEqual({ zoom: 1 });
});

test('a beat that is removed leaves nothing', async () => {
  const storage = memory();
  await disk.saveBeat(storage, beat, 0, 10);
  await disk.writeOpen(storage, { beatId: 'b', patternId: null });
  await disk.removeBeat(storage, 'b');
  expect([...storage.data.keys()]).toEqual(['open']);
  expect(await disk.readOpen(storage)).toEqual({ beatId: 'b', patternId: null });
});
