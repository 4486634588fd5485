import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { watchFolder, wantedOf, type GrooveFolder } from './grooveFolder';
import { indexFile, keepIndex, readIndex, UNREADABLE, type GrooveIndex } from './grooveIndex';

const DEMO = path.join(__dirname, '..', 'demo', 'grooves', 'Fish hall');
const root = mkdtempSync(path.join(tmpdir(), 'ruddik-index-'));
const folder = path.join(root, 'grooves');
const keptIn = path.join(root, 'kept', 'here');
const file = indexFile(keptIn, folder);
let watched: GrooveFolder | null = null;

const begin = async (): Promise<string[]> => {
  watched = watchFolder(folder, keptIn, 50);
  await watched.ready;
  return names();
};
const names = (): string[] =>
  watched!.page(wantedOf({ query: {} } as never)).grooves.map(({ row }) => row.name);
const end = async () => {
  await watched?.close();
  watched = null;
};
/** Until the index says so, or for ten seconds. */
const kept = async (wanted: (paths: string[]) => boolean): Promise<boolean> => {
  for (let tries = 0; tries < 200; tries++) {
    if (wanted([...(await readIndex(file, folder)).keys()])) return true;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  return false;
};

beforeAll(() => {
  mkdirSync(folder);
  copyFileSync(path.join(DEMO, 'Scales 7-8.mid'), path.join(folder, 'seven.mid'));
  copyFileSync(path.join(DEMO, 'Ice crates 94.mid'), path.join(folder, 'four.mid'));
  writeFileSync(path.join(folder, 'broken.mid'), 'no music');
});
afterEach(end);

test('what was found is kept, and at the next start is there without being read again', async () => {
  expect(await begin()).toEqual(['four', 'seven']);
  expect(await kept((paths) => paths.length === 3)).toBe(true);
  await end();
  // What the index says of a file that has not changed is believed.
  const index = JSON.parse(readFileSync(file, 'utf8')) as {
    files: [string, { entry?: { row: { name: string } } }][];
  };
  for (const [at, { entry }] of index.files) if (at === 'four.mid') entry!.row.name = 'from the index';
  writeFileSync(file, JSON.stringify(index));
  expect(await begin()).toEqual(['from the index', 'seven']);
  expect(watched!.page(wantedOf({ query: {} } as never)).left).toEqual([
    { path: 'broken.mid', why: 'It is not a MIDI file.' },
  ]);
}, 60_000);

test('a file that could not be read is not kept so: it is tried again at the next start', async () => {
  const aside = path.join(root, 'aside.json');
  const index: GrooveIndex = new Map([
    ['shut.mid', { changed: 1, size: 2, why: UNREADABLE }],
    ['broken.mid', { changed: 1, size: 2, why: 'It is not a MIDI file.' }],
  ]);
  await keepIndex(aside, folder, index);
  expect([...(await readIndex(aside, folder)).keys()]).toEqual(['broken.mid']);
  expect(await readIndex(aside, 'another folder')).toEqual(new Map());
});

test('a file that changed, came or went meanwhile is seen as it is', async () => {
  copyFileSync(path.join(DEMO, 'Ice crates 94.mid'), path.join(folder, 'new.mid'));
  copyFileSync(path.join(DEMO, 'Scales 7-8.mid'), path.join(folder, 'broken.mid'));
  rmSync(path.join(folder, 'seven.mid'));
  const now = await begin();
  expect(now).toHaveLength(3);
  expect(now).toEqual(expect.arrayContaining(['broken', 'new']));
  expect(await kept((paths) => paths.includes('new.mid') && !paths.includes('seven.mid'))).toBe(true);
  expect(readdirSync(keptIn)).toEqual([path.basename(file)]);
}, 60_000);

test.each([
  ['cut short', '{"version":1,"files":[["four'],
  ['of another version', '{"version":0,"folder":"x","files":[]}'],
  ['of something else', '[1,2,3]'],
])(
  'an index that is %s is passed over, and the folder is read',
  async (_, text) => {
    writeFileSync(file, text);
    const now = await begin();
    expect(now).toEqual(['broken', 'four', 'new']);
  },
  60_000,
);
