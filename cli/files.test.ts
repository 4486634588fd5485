/** @jest-environment node */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { InputFault } from './fault';
import { midiBytesOf, midiFilesIn, writeOut } from './files';
import { FILE_BOUNDS } from '../core/midi/read/limits';

let folder: string;
beforeEach(() => (folder = fs.mkdtempSync(path.join(os.tmpdir(), 'ruddik-files-'))));
afterEach(() => {
  jest.restoreAllMocks();
  fs.rmSync(folder, { recursive: true, force: true });
});
const at = (...names: string[]) => path.join(folder, ...names);

test('a file is written whole or not at all: a disk that fills leaves what was there, and nothing beside it', async () => {
  fs.writeFileSync(at('b.mid'), 'as it was');
  const write = fs.promises.writeFile;
  jest.spyOn(fs.promises, 'writeFile').mockImplementation(async (file, data, options) => {
    await write(file, (data as string).slice(0, 3), options);
    throw Object.assign(new Error('full'), { code: 'ENOSPC' });
  });
  const out = writeOut(at('b.mid'), 'as it will be');
  await expect(out).rejects.toThrow(InputFault);
  await expect(out).rejects.toThrow(`“${at('b.mid')}” could not be written: the disk is full.`);
  jest.restoreAllMocks();
  expect(fs.readdirSync(folder)).toEqual(['b.mid']);
  expect(fs.readFileSync(at('b.mid'), 'utf8')).toBe('as it was');
  await writeOut(at('b.mid'), 'as it will be');
  expect(fs.readFileSync(at('b.mid'), 'utf8')).toBe('as it will be');
  expect(fs.readdirSync(folder)).toEqual(['b.mid']);
});

test('a link stays a link, rights stay, and what is no file is written to as it is', async () => {
  fs.writeFileSync(at('real.mid'), 'old', { mode: 0o640 });
  fs.symlinkSync(at('real.mid'), at('link.mid'));
  await writeOut(at('link.mid'), 'new');
  expect(fs.lstatSync(at('link.mid')).isSymbolicLink()).toBe(true);
  expect(fs.readFileSync(at('real.mid'), 'utf8')).toBe('new');
  expect(fs.statSync(at('real.mid')).mode & 0o777).toBe(0o640);
  await writeOut('/dev/null', 'anything');
  await expect(writeOut(at('none', 'b.mid'), 'x')).rejects.toThrow('there is no such folder');
});

test('folders that lead to themselves end, each file told once; however deep it lies', async () => {
  const deep = Array.from({ length: 24 }, (_, level) => `d${level}`);
  fs.mkdirSync(at(...deep), { recursive: true });
  fs.writeFileSync(at(...deep, 'low.mid'), '');
  fs.writeFileSync(at('a.mid'), '');
  fs.writeFileSync(at('notes.txt'), '');
  fs.symlinkSync(folder, at('again'));
  fs.symlinkSync('..', at('d0', 'up'));
  fs.symlinkSync(at('nowhere'), at('broken.mid'));
  expect(await midiFilesIn(folder)).toEqual(['a.mid', 'broken.mid', path.join(...deep, 'low.mid')]);
});

test('of a file that is far too large no more is read than tells it', async () => {
  fs.writeFileSync(at('huge.mid'), '');
  // A hole: it takes no room.
  fs.truncateSync(at('huge.mid'), 2_000_000_000);
  expect(await midiBytesOf(at('huge.mid'))).toHaveLength(FILE_BOUNDS.bytes + 1);
  fs.writeFileSync(at('small.mid'), 'MThd');
  expect(await midiBytesOf(at('small.mid'))).toHaveLength(4);
  await expect(midiBytesOf(at('gone.mid'))).rejects.toThrow('there is no such file');
});
