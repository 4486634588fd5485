import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readNotes } from '../core/midi/readBack';

const ROOT = path.resolve(__dirname, '..');
const folder = mkdtempSync(path.join(tmpdir(), 'ruddik-'));
const beat = path.join(ROOT, 'demo', 'beats', 'lantern-walk.ruddik.json');
const out = path.join(folder, 'out.mid');

const ruddik = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(path.join(ROOT, 'bin', 'ruddik'), args, { encoding: 'utf8' });
  return { status, stdout, stderr };
};

test('exports a pattern as asked for', () => {
  const done = ruddik(
    'export',
    beat,
    out,
    '--pattern',
    'B · lights out',
    '--passes',
    '3',
    '--ppq',
    '480',
    '--format',
    '0',
    '--channel',
    '2',
  );
  expect(done).toMatchObject({ status: 0, stderr: '' });
  const midi = readNotes(new Uint8Array(readFileSync(out)));
  expect([midi.ppq, midi.end]).toEqual([480, 3 * 1920]);
  expect(new Set(midi.notes.map(({ channel }) => channel))).toEqual(new Set([2]));
  expect(done.stdout).toBe(`out.mid: ${midi.notes.length} notes in 3 bars.\n`);
});

test.each([
  [1, ['export', 'nowhere.json', out], 'there is no such file'],
  [1, ['export', beat, out, '--pattern', 'Z'], 'has no pattern “Z”; it has “A · the stalls”'],
  [1, ['export', beat, path.join(folder, 'no', 'x.mid')], 'there is no such folder'],
  [2, ['export', beat], "missing required argument 'out'"],
  [2, ['export', beat, out, '--ppq', '7'], 'a whole number from 96 to 1920'],
  [2, ['knit'], "unknown command 'knit'"],
] as const)('exit code %i and one sentence for %j', (code, args, sentence) => {
  const { status, stderr } = ruddik(...args);
  expect(status).toBe(code);
  expect(stderr).toContain(sentence);
  expect(stderr.trim().split('\n')).toHaveLength(1);
});

test('a damaged beat is named with what is wrong and where', () => {
  const bad = path.join(folder, 'bad.ruddik.json');
  writeFileSync(bad, readFileSync(beat, 'utf8').replace(/"velocity": \d\d+/, '"velocity": 300'));
  const { status, stderr } = ruddik('export', bad, out);
  expect(status).toBe(1);
  expect(stderr).toMatch(
    /Its patterns\[1\]\.parts\.kick\.hits\[1\]\.velocity is 300, above the most there may be, 127\./,
  );
});

test('says its version, and helps', () => {
  expect(ruddik('--version')).toMatchObject({ status: 0, stdout: '0.1.0\n' });
  expect(ruddik('export', '--help').stdout).toContain('--passes <n>');
});

describe('inspect', () => {
  const junk = path.join(folder, 'junk.mid');
  beforeAll(() => {
    ruddik('export', beat, path.join(folder, 'one.mid'), '--ppq', '96');
    writeFileSync(junk, 'no music at all');
  });

  test('says what files hold, as JSON; faulty ones do not stop a folder', () => {
    const done = ruddik('inspect', folder, '--json');
    expect(done).toMatchObject({ status: 0, stderr: '' });
    const found = JSON.parse(done.stdout) as { file: string; ok: boolean; error?: string }[];
    const named = new Map(found.map((one) => [path.basename(one.file), one]));
    expect(named.get('junk.mid')).toMatchObject({ ok: false, error: 'It is not a MIDI file.' });
    expect(named.get('one.mid')).toMatchObject({
      ok: true,
      ppq: 96,
      bpm: 92,
      tempoChanges: 0,
      timeSignature: '4/4',
      bars: 2,
      warnings: [],
      swing: { grid: '1/16' },
    });
  });

  test('a single faulty file is exit 1 with one sentence', () => {
    const done = ruddik('inspect', junk);
    expect(done.status).toBe(1);
    expect(done.stderr).toBe(`“${junk}” could not be read. It is not a MIDI file.\n`);
  });

  test('a folder without MIDI files, and nothing at all, are said', () => {
    const empty = mkdtempSync(path.join(tmpdir(), 'ruddik-empty-'));
    expect(ruddik('inspect', empty)).toMatchObject({
      status: 1,
      stderr: `There is no MIDI file in “${empty}”.\n`,
    });
    expect(ruddik('inspect')).toMatchObject({ status: 2, stderr: "missing required argument 'places'\n" });
  });
});
