import { readFileSync } from 'node:fs';
import path from 'node:path';
import { importFile } from '../../core/groove/importing';
import { GENERAL_MIDI } from '../../core/midi/drumMap/drumMap';
import { FIRST_GROOVES, fittingGrooves, groovesChanged } from '../store/grooves';
import { forgetFiles, keepFiles, readFile, readImported } from './importedFiles';
import { createShelf } from './shelf';
import { memory } from '../keeping/storage.mock';
import { createStore } from '../store/store';

const bytes = new Uint8Array(
  readFileSync(path.join(__dirname, '..', '..', 'demo', 'grooves', 'Pad kit', 'Sampler on sixty.mid')),
);
const taken = (at: string) => {
  const read = importFile(bytes, { path: at, source: 'imported', map: GENERAL_MIDI });
  if (!read.ok) throw new Error(read.value.why);
  return read.value.indexed;
};
const away = () => Promise.reject(new Error('away'));

beforeEach(() => {
  global.fetch = jest.fn(away);
  jest.useFakeTimers({ doNotFake: ['queueMicrotask', 'performance'] });
});
afterEach(() => jest.useRealTimers());

describe('imported files', () => {
  test('come back as they were kept, bytes and all; a damaged piece of the list is passed over', async () => {
    const storage = memory();
    const [one, two] = [taken('Pier/a.mid'), taken('Pier/b.mid')];
    await keepFiles(storage, [one], [{ bytes }]);
    await keepFiles(storage, [two], [{ bytes }]);
    storage.data.set('grooves/list/0', '{broken');
    expect((await readImported(storage)).indexed).toEqual(
      [one, two].map((each) => ({ ...each, mark: expect.any(String) as string })),
    );
    expect([...(await readFile(storage, one.row.id))!]).toEqual([...bytes]);
    await forgetFiles(storage, [one.row.id]);
    expect((await readImported(storage)).indexed.map(({ row }) => row.name)).toEqual(['b']);
    expect(await readFile(storage, one.row.id)).toBeNull();
  });

  test('many small pieces of the list become one', async () => {
    const storage = memory();
    for (let at = 0; at < 70; at++) await keepFiles(storage, [taken(`${at}.mid`)], [{ bytes }]);
    const { indexed: all } = await readImported(storage);
    expect(all).toHaveLength(70);
    expect([...storage.data.keys()].filter((key) => key.startsWith('grooves/list/'))).toHaveLength(1);
    expect((await readImported(storage)).indexed).toEqual(all);
  });
});

describe('what is kept and what is listed', () => {
  test('files of one name and other contents are both kept; the same one again is kept once', async () => {
    const storage = memory();
    const other = Uint8Array.from(bytes);
    other[other.length - 1] = 1;
    const one = taken('fill.mid');
    const kept = await keepFiles(storage, [one, one, one], [{ bytes }, { bytes: other }, { bytes }]);
    expect(kept.map(({ row }) => [row.id, row.name])).toEqual([
      ['imported/fill.mid', 'fill'],
      ['imported/fill (2).mid', 'fill (2)'],
      ['imported/fill.mid', 'fill'],
    ]);
    const [again] = await keepFiles(storage, [one], [{ bytes: other }]);
    expect(again!.row.id).toBe('imported/fill (2).mid');
    expect((await readImported(storage)).indexed).toHaveLength(2);
    expect([...(await readFile(storage, 'imported/fill (2).mid'))!]).toEqual([...other]);
  });

  test('taken off the list while others come in: neither is lost', async () => {
    const storage = memory();
    const slow: typeof storage = {
      ...storage,
      setMany: async (entries) => {
        await Promise.resolve().then(() => Promise.resolve());
        return storage.setMany(entries);
      },
    };
    const many = Array.from({ length: 40 }, (_, at) => taken(`${at}.mid`));
    await keepFiles(
      slow,
      many.slice(0, 20),
      many.map(() => ({ bytes })),
    );
    await Promise.all([
      ...many.slice(20).map((one) => keepFiles(slow, [one], [{ bytes }])),
      ...many.slice(0, 10).map(({ row }) => forgetFiles(slow, [row.id])),
    ]);
    const { indexed, unlisted } = await readImported(storage);
    expect(indexed.map(({ row }) => row.id).sort()).toEqual(
      many
        .slice(10)
        .map(({ row }) => row.id)
        .sort(),
    );
    expect(unlisted).toEqual([]);
  });

  test('a list that lost what it listed is made anew from the files', async () => {
    const storage = memory();
    const many = Array.from({ length: 5 }, (_, at) => taken(`Pier/${at}.mid`));
    await keepFiles(
      storage,
      many,
      many.map(() => ({ bytes })),
    );
    const key = [...storage.data.keys()].find((one) => one.startsWith('grooves/list/'))!;
    for (const junk of [storage.data.get(key)!.slice(0, -5), 'null', '[null,{"row":{}}]']) {
      storage.data.set(key, junk);
      expect((await readImported(storage)).unlisted).toHaveLength(5);
    }
    jest.useRealTimers();
    const shelf = createShelf(createStore(), storage, '/api/grooves');
    await shelf.load();
    expect((await readImported(storage)).unlisted).toEqual([]);
    expect(shelf.indexed(many[3]!.row.id)!.hits).toBe(many[3]!.hits);
    expect(await shelf.check()).toBe(0);
  });

  test('settings with junk in them leave the rest as it was', () => {
    expect(fittingGrooves(null)).toEqual({});
    expect(fittingGrooves({ maps: [null], keepers: 3, hand: '1', query: 'rain', path: [1], odd: 1 })).toEqual(
      {
        query: 'rain',
      },
    );
    expect(fittingGrooves(FIRST_GROOVES)).toEqual(FIRST_GROOVES);
  });
});

describe('the shelf', () => {
  const shelved = async (storage = memory()) => {
    const store = createStore();
    const shelf = createShelf(store, storage, '/api/grooves');
    const loading = shelf.load();
    await jest.advanceTimersByTimeAsync(2000);
    await loading;
    return { store, storage, shelf };
  };

  test('has the built-in grooves and the imported ones, found by words of name, tags and folders', async () => {
    const storage = memory();
    await keepFiles(storage, [taken('Tide gate/a.mid')], [{ bytes }]);
    const { shelf } = await shelved(storage);
    const { rows } = shelf.now().catalogue;
    const found = (query: string) => {
      const mask = shelf.found(query)?.scores;
      return rows.filter((_, at) => !mask || mask[at]).map(({ name }) => name);
    };
    expect(found('')).toHaveLength(rows.length);
    expect(found('samba ghost')).toEqual(['Full nets, ghost notes']);
    expect(found('tide gat')).toEqual(['a']);
    expect(found('zzz')).toEqual([]);
    expect((await shelf.groove('imported/Tide gate/a.mid'))!.lanes.length).toBeGreaterThan(2);
    expect(await shelf.groove('imported/none.mid')).toBeNull();
    expect(shelf.likeness(rows[0]!.id)!.bar).toBeGreaterThan(0);
  });

  test('hundreds of files leave at once, and come back as they were', async () => {
    const storage = memory();
    const many = Array.from({ length: 300 }, (_, at) => taken(`Pier/${at}.mid`));
    await keepFiles(
      storage,
      many,
      many.map(() => ({ bytes })),
    );
    const { shelf } = await shelved(storage);
    const imported = () => shelf.now().catalogue.rows.filter(({ source }) => source === 'imported').length;
    jest.useRealTimers();
    const settled = async (n: number) => {
      for (let waits = 0; imported() !== n && waits < 500; waits++)
        await new Promise((resolve) => setTimeout(resolve, 10));
      expect(imported()).toBe(n);
    };
    await settled(300);
    const bringBack = await shelf.forget(many.slice(1).map(({ row }) => row.id));
    await settled(1);
    expect((await readImported(storage)).indexed).toHaveLength(1);
    await bringBack();
    await settled(300);
    expect([...(await readFile(storage, many[299]!.row.id))!]).toEqual([...bytes]);
  });

  test('a file is read anew with another map, and stays so', async () => {
    const { store, storage, shelf } = await shelved();
    const one = taken('pads.mid');
    await keepFiles(storage, [one], [{ bytes }]);
    shelf.add([one]);
    store.dispatch(
      groovesChanged({
        maps: [
          { kind: 'ruddik.drumMap', version: 1, name: 'Pads', notes: [{ note: 60, instrument: 'kick' }] },
        ],
      }),
    );
    await shelf.readAnew(one.row.id, { map: 'Pads' });
    const groove = (await shelf.groove(one.row.id))!;
    expect(groove.lanes.find(({ note }) => note === 60)!.instrument).toBe('kick');
    expect((await readImported(storage)).indexed[0]!.map).toBe('Pads');
    const before = await shelf.bytes(one.row.id);
    const bringBack = await shelf.forget([one.row.id]);
    expect(shelf.now().catalogue.byId.has(one.row.id)).toBe(false);
    expect(await shelf.groove(one.row.id)).toBeNull();
    await bringBack();
    expect(shelf.now().catalogue.byId.has(one.row.id)).toBe(true);
    expect(await shelf.bytes(one.row.id)).toEqual(before);
    expect((await readImported(storage)).indexed.map(({ row, map }) => [row.id, map])).toEqual([
      [one.row.id, 'Pads'],
    ]);
  });

  test('without its server the folder is away and is looked for again; the rest is there', async () => {
    const { shelf } = await shelved();
    await jest.advanceTimersByTimeAsync(10);
    expect(shelf.now().folder.kind).toBe('away');
    expect(shelf.now().catalogue.rows.length).toBeGreaterThan(200);
    const { likeness, ...rest } = taken('x.mid');
    const entry = {
      ...rest,
      row: { ...rest.row, id: 'folder/x.mid', source: 'folder' },
      likeness: { ...likeness, cells: [...likeness.cells], late: [...likeness.late] },
    };
    let version = '1';
    let grooves = [entry];
    const json = () =>
      Promise.resolve({
        total: grooves.length,
        version,
        page: 1,
        pages: 1,
        indexing: false,
        grooves,
        left: [],
      });
    global.fetch = jest.fn(() => Promise.resolve({ ok: true, status: 200, json } as Response));
    await jest.advanceTimersByTimeAsync(16_000);
    expect(shelf.now().folder).toMatchObject({ kind: 'there', grooves: 1 });
    expect(shelf.now().catalogue.byId.has('folder/x.mid')).toBe(true);
    const before = shelf.now();
    await jest.advanceTimersByTimeAsync(16_000);
    expect(shelf.now()).toBe(before);
    [version, grooves] = ['2', []];
    await jest.advanceTimersByTimeAsync(16_000);
    expect(shelf.now().catalogue.byId.has('folder/x.mid')).toBe(false);
  });

  test('what is found by words is found wherever it lies in the list, and follows when the list changes', async () => {
    const { shelf } = await shelved();
    const found = (words: string) => {
      const mask = shelf.found(words)!.scores;
      return shelf.now().catalogue.rows.filter((_, at) => mask[at]);
    };
    const samba = found('samba');
    expect(samba.length).toBeGreaterThan(5);
    for (const { name, style, tags, path } of samba)
      expect([name, style, ...tags, ...path].join(' ').toLowerCase()).toContain('samba');
    expect(found('lanternworks')).toEqual([]);
    shelf.add([taken('lanternworks.mid')]);
    expect(found('lanternworks').map(({ name }) => name)).toEqual(['lanternworks']);
    expect(found('samba')).toEqual(samba);
    await shelf.forget([taken('lanternworks.mid').row.id]);
    expect(found('lanternworks')).toEqual([]);
    expect(shelf.found('  ')).toBeNull();
  });

  test('choices are kept from one visit to the next', async () => {
    const { store, storage } = await shelved();
    store.dispatch(groovesChanged({ view: 'folders', path: ['Built-in', 'Samba'] }));
    await jest.advanceTimersByTimeAsync(1000);
    const next = await shelved(storage);
    expect(next.store.getState().grooves).toMatchObject({ view: 'folders', path: ['Built-in', 'Samba'] });
  });
});
