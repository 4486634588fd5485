import { execFileSync } from 'node:child_process';
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  renameSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { FolderPage } from '../core/groove/folderPage';
import { createApp } from './app';
import { wantedOf, watchFolder, type GrooveFolder } from './grooveFolder';
import { readPlain } from './plainFile';

const DEMO = path.join(__dirname, '..', 'demo', 'grooves');
const root = mkdtempSync(path.join(tmpdir(), 'ruddik-grooves-'));
const folder = path.join(root, 'grooves');
let grooves: GrooveFolder;
let server: Server;

beforeAll(async () => {
  mkdirSync(path.join(folder, 'Pier'), { recursive: true });
  mkdirSync(path.join(root, 'elsewhere'));
  const one = path.join(DEMO, 'Fish hall', 'Scales 7-8.mid');
  copyFileSync(one, path.join(folder, 'Pier', 'seven.mid'));
  copyFileSync(path.join(DEMO, 'Fish hall', 'Ice crates 94.mid'), path.join(folder, 'four.mid'));
  copyFileSync(one, path.join(root, 'secret.mid'));
  copyFileSync(one, path.join(root, 'elsewhere', 'far.mid'));
  symlinkSync(path.join(root, 'secret.mid'), path.join(folder, 'link.mid'));
  symlinkSync(path.join(root, 'elsewhere'), path.join(folder, 'Linked'));
  writeFileSync(path.join(folder, 'broken.mid'), 'no music');
  writeFileSync(path.join(folder, 'note.txt'), 'hello');
  grooves = watchFolder(folder, null, 50);
  await grooves.ready;
  server = createApp(path.join(root, 'dist'), grooves).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
}, 60_000);

afterAll(async () => {
  server.close();
  await grooves.close();
});

const get = (at: string) =>
  fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/api/grooves${at}`);
const page = async (query = ''): Promise<FolderPage> => (await (await get(`/${query}`)).json()) as FolderPage;
const names = ({ grooves: list }: FolderPage) => list.map(({ row }) => row.name);
const file = (id: string) => get(`/file?id=${encodeURIComponent(id)}`);

test('lists what it can read, and names what it cannot; links are not followed', async () => {
  const all = await page();
  expect(names(all)).toEqual(['four', 'seven']);
  expect(all.left).toEqual([{ path: 'broken.mid', why: 'It is not a MIDI file.' }]);
  expect(all.grooves[1]!.row).toMatchObject({
    path: ['Groove folder', 'Pier'],
    meter: { beats: 7, unit: 8 },
  });
});

test('pages, sorts, filters and searches', async () => {
  const second = await page('?per=1&page=2');
  expect([names(second), second.total, second.pages]).toEqual([['seven'], 2, 2]);
  expect(names(await page('?sort=bpm&down=1'))).toEqual(['seven', 'four']);
  expect(names(await page('?meter=7/8'))).toEqual(['seven']);
  expect(names(await page('?q=pier'))).toEqual(['seven']);
  expect(wantedOf({ query: { page: '-1', per: '100000', sort: 'x', down: 'yes' } } as never)).toEqual({
    page: 1,
    per: 500,
    sort: 'name',
    down: false,
    query: '',
    filters: {},
  });
});

test('gives the bytes of what is listed, and of nothing else', async () => {
  const response = await file('folder/Pier/seven.mid');
  expect([response.status, response.headers.get('content-type')]).toEqual([200, 'audio/midi']);
  expect(
    Buffer.from(await response.arrayBuffer())
      .subarray(0, 4)
      .toString(),
  ).toBe('MThd');
  for (const id of [
    'folder/../secret.mid',
    'folder/link.mid',
    'folder/Linked/far.mid',
    'folder/note.txt',
    '/etc/passwd',
    '',
  ])
    expect((await file(id)).status).toBe(404);
});

test('comes to know what is new and what is gone; a file that became a link is not given', async () => {
  const seen = async (wanted: string[]) => {
    for (let tries = 0; tries < 200; tries++) {
      if (JSON.stringify(names(await page())) === JSON.stringify(wanted)) return true;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    return false;
  };
  const { version } = await page();
  copyFileSync(path.join(folder, 'four.mid'), path.join(folder, 'another.mid'));
  expect(await seen(['another', 'four', 'seven'])).toBe(true);
  expect((await page()).version).not.toBe(version);
  expect((await page()).version).toBe((await page('?q=pier')).version);
  rmSync(path.join(folder, 'another.mid'));
  expect(await seen(['four', 'seven'])).toBe(true);
  rmSync(path.join(folder, 'four.mid'));
  symlinkSync(path.join(root, 'secret.mid'), path.join(folder, 'four.mid'));
  expect((await file('folder/four.mid')).status).toBe(404);
}, 60_000);

test('a listed file that becomes a pipe, or a link, is not waited for and not followed', async () => {
  const at = path.join(folder, 'turns.mid');
  copyFileSync(path.join(DEMO, 'Fish hall', 'Scales 7-8.mid'), at);
  for (let tries = 0; tries < 100 && !names(await page()).includes('turns'); tries++)
    await new Promise((resolve) => setTimeout(resolve, 50));
  expect((await file('folder/turns.mid')).status).toBe(200);
  rmSync(at);
  execFileSync('mkfifo', [at]);
  expect(await readPlain(folder, 'turns.mid', 1000)).toBeNull();
  const asked = await Promise.all(Array.from({ length: 8 }, () => file('folder/turns.mid')));
  expect(new Set(asked.map(({ status }) => status))).toEqual(new Set([404]));
  expect(names(await page())).toContain('seven');
  rmSync(at);
});

test('a folder that is swapped for a link while it is read gives nothing from outside', async () => {
  const [inside, outside] = [path.join(root, 'swap', 'in'), path.join(root, 'outside')];
  mkdirSync(path.join(inside, 'a'), { recursive: true });
  mkdirSync(outside);
  writeFileSync(path.join(inside, 'a', 'x.mid'), 'inside');
  writeFileSync(path.join(outside, 'x.mid'), 'secret');
  const [way, aside] = [path.join(inside, 'a'), path.join(root, 'swap', 'aside')];
  let swapping = true;
  const swap = (async () => {
    while (swapping) {
      renameSync(way, aside);
      symlinkSync(outside, way);
      await new Promise((resolve) => setImmediate(resolve));
      rmSync(way);
      renameSync(aside, way);
      await new Promise((resolve) => setImmediate(resolve));
    }
  })();
  const got = new Set<string>();
  for (let tries = 0; tries < 2000; tries++)
    got.add((await readPlain(inside, 'a/x.mid', 1000))?.toString() ?? 'nothing');
  swapping = false;
  await swap;
  expect(got.has('secret')).toBe(false);
  expect(got.has('inside')).toBe(true);
}, 60_000);
