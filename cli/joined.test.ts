import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

const JOINED = path.join(__dirname, 'joined.cjs');
let root = '';

const write = (file: string, text: string) => {
  fs.mkdirSync(path.dirname(path.join(root, file)), { recursive: true });
  fs.writeFileSync(path.join(root, file), text);
};
const run = () => {
  const begin = `require(${JSON.stringify(JOINED)})(${JSON.stringify(root)})`;
  const { stdout, stderr } = spawnSync(process.execPath, ['-e', begin], { encoding: 'utf8' });
  return stdout.trim() || stderr;
};
const kept = () => path.join(root, 'node_modules', '.cache', 'ruddik', 'ruddik.cjs');
const older = (file: string) => fs.utimesSync(path.join(root, file), new Date(0), new Date(0));

beforeEach(() => {
  root = fs.mkdtempSync(path.join(os.tmpdir(), 'ruddik-joined-'));
  write('cli/main.ts', "import { tide } from '../core/tide';\nconsole.log(tide satisfies string);");
  write('core/tide.ts', "export const tide: string = 'low';");
  write('package-lock.json', '{}');
  write('cli/joined.cjs', '');
});
afterEach(() => fs.rmSync(root, { recursive: true }));

test('it is joined once, and again when a source is newer or what is kept is damaged', () => {
  for (const file of ['cli/main.ts', 'core/tide.ts', 'package-lock.json', 'cli/joined.cjs']) older(file);
  expect(run()).toBe('low');
  const made = fs.statSync(kept()).mtimeMs;
  expect(run()).toBe('low');
  expect(fs.statSync(kept()).mtimeMs).toBe(made);
  write('core/tide.ts', "export const tide: string = 'high';");
  expect(run()).toBe('high');
  fs.writeFileSync(path.join(path.dirname(kept()), 'sources.json'), '{');
  expect(run()).toBe('high');
  fs.rmSync(kept());
  expect(run()).toBe('high');
});

test('where nothing can be kept it runs all the same', () => {
  // A file stands where the folder would be.
  write('node_modules', '');
  expect(run()).toBe('low');
  expect(fs.readFileSync(path.join(root, 'node_modules'), 'utf8')).toBe('');
});
