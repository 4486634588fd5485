import {} from '../store/looked.mock';
import { newBeat } from '../../core/document/defaults';
import { readLogged } from './log';
import { fittingSettings, settingsOf } from './settings';
import * as disk from './storage';
import { memory } from './storage.mock';
import { createStore } from '../store/store';

const beat = newBeat('b', 'Quay', 1);

test('a beat is added once, and never over one that is there', async () => {
  const storage = memory();
  expect(await disk.addBeat(storage, beat, 10)).toBe(1);
  expect(await disk.addBeat(storage, { ...beat, tempo: 70 }, 30)).toBeNull();
  expect((await readLogged(storage, 'b')).text).toContain('"tempo":100');
});

test('a beat that is not there is nothing, and not a fault', async () => {
  expect(await readLogged(memory(), 'gone')).toEqual({ text: null, items: [], seq: 0 });
  expect(await disk.readOpen(memory())).toBeNull();
});

test('the list tells name, tempo, meter and bars without reading the beats', async () => {
  const storage = memory();
  await disk.addBeat(storage, beat, 10);
  storage.data.set('beat/b', 'not even JSON');
  const { beats } = await disk.readLibrary(storage);
  expect(beats).toEqual([{ id: 'b', name: 'Quay', tempo: 100, meter: '4/4', bars: 1, saved: 10 }]);
});

test('a beat whose line in the list is damaged is listed all the same', async () => {
  const storage = memory();
  await disk.addBeat(storage, beat, 10);
  storage.data.set('summary/b', '{');
  const { beats, unlisted } = await disk.readLibrary(storage);
  expect(unlisted).toEqual(['b']);
  expect(beats.map(({ id, name }) => [id, name])).toEqual([['b', 'A beat without a name']]);
});

test('what is set aside keeps its text and its reason, and the beat is out of the way', async () => {
  const storage = memory();
  await disk.addBeat(storage, beat, 10);
  const aside = await disk.setAside(storage, 'b', '{"half":', 'It is not JSON.');
  expect(aside).toEqual({
    key: 'aside/b/1',
    name: 'Quay (damaged, set aside)',
    reason: 'It is not JSON.',
    isBeat: false,
  });
  expect(await disk.asideText(storage, aside.key)).toBe('{"half":');
  expect(await disk.readLibrary(storage)).toEqual({ beats: [], aside: [aside], unlisted: [] });
  await disk.removeAside(storage, aside.key);
  expect(storage.data.size).toBe(0);
});

test.each(['null', '[]', '7', '"x"', '{"name":7}', '{"id":"other"}', '{"name":"A","tempo":null}'])(
  'a line of the list that reads %s hides no beat, and takes no other id',
  async (junk) => {
    const storage = memory();
    await disk.addBeat(storage, beat, 10);
    storage.data.set('summary/b', junk);
    const { beats, unlisted } = await disk.readLibrary(storage);
    expect(beats.map(({ id }) => id)).toEqual(['b']);
    expect(unlisted).toEqual(['b']);
  },
);

test('what is set aside never lies on what was set aside before, whatever the clock says', async () => {
  const storage = memory();
  const what = { name: 'A', reason: '', text: '1' };
  const keys = [];
  for (let at = 0; at < 3; at++) keys.push((await disk.keepAside(storage, 'b', what)).key);
  expect(new Set(keys).size).toBe(3);
});

test('settings that are missing, damaged or junk are told apart from those that fit', async () => {
  const storage = memory();
  expect(await disk.readSettings(storage)).toEqual({ kept: {}, junk: null });
  await disk.writeSettings(storage, { zoom: 4 });
  expect(await disk.readSettings(storage)).toEqual({ kept: { zoom: 4 }, junk: null });
  for (const junk of ['{{', 'null', '[1]', '"a"']) {
    storage.data.set('settings', junk);
    expect(await disk.readSettings(storage)).toEqual({ kept: {}, junk });
  }
  expect(fittingSettings({ metronome: null, zoom: 2, later: 1 })).toEqual({
    settings: { zoom: 2 },
    junk: true,
  });
  expect(fittingSettings({ zoom: 1e9, theme: 'pink', latency: 'x', glass: 3 })).toEqual({
    settings: {},
    junk: true,
  });
  const kept = settingsOf(createStore().getState());
  expect(Object.keys(kept)).toHaveLength(15);
  expect(fittingSettings(kept)).toEqual({ settings: kept, junk: false });
});

test('a beat that is removed leaves nothing', async () => {
  const storage = memory();
  await disk.addBeat(storage, beat, 10);
  await disk.writeOpen(storage, { beatId: 'b', patternId: null });
  await disk.removeBeat(storage, 'b');
  expect([...storage.data.keys()]).toEqual(['open']);
  expect(await disk.readOpen(storage)).toEqual({ beatId: 'b', patternId: null });
});
