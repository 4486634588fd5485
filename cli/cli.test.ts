import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { unzipSync } from 'fflate';
import { readNotes } from '../core/midi/read/readBack.mock';

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

test('bars that the song does not have are not written, which is said', () => {
  const done = ruddik('export', beat, out, '--bars', '70-90');
  expect(done).toMatchObject({ status: 0, stdout: expect.stringContaining('in 7 bars.') as string });
  expect(done.stderr).toBe('The song has 76 bars, so 70 to 90 became 70 to 76.\n');
});

test.each([
  [1, ['export', 'nowhere.json', out], 'there is no such file'],
  [1, ['export', beat, out, '--pattern', 'Z'], 'has no pattern “Z”; it has “A · the stalls”'],
  [1, ['export', beat, path.join(folder, 'no', 'x.mid')], 'there is no such folder'],
  [2, ['export', beat], "missing required argument 'out'"],
  [2, ['export', beat, out, '--ppq', '7'], 'a whole number from 96 to 1920'],
  [1, ['export', beat, out, '--section', 'Coda'], 'has no section “Coda”; it has “Intro”'],
  [
    1,
    ['export', beat, out, '--song', '--split', 'lanes', '--files'],
    'This writes 10 files: name a .zip or a folder',
  ],
  [1, ['export', beat, out, '--map', 'nowhere.json'], 'there is no such file'],
  [2, ['export', beat, out, '--song', '--tray'], 'Only one of what is to be written can be named, not 2'],
  [2, ['export', beat, out, '--bars', '9-3'], 'such as 9-16'],
  [2, ['export', beat, out, '--rate', '96000'], '44100 or 48000'],
  [2, ['export', beat, path.join(folder, 'x.ogg')], '“x.ogg” is to end in .mid, .wav'],
  [2, ['export', beat, out, '--files'], 'name --split lanes or --split groups too'],
  [2, ['export', beat, path.join(folder, 'x.csv'), '--split', 'lanes'], '--split is for MIDI and audio'],
  [2, ['export', beat, out, '--stems'], '--stems is for audio'],
  [1, ['export', beat, path.join(folder, 'x.wav'), '--split', 'lanes'], 'This writes'],
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
  expect(stderr).toContain(
    'The velocity of hit 1 of kick of pattern 1 is 300, above the most there may be, 127.',
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

test('a song by section and drum goes into a ZIP with a list, a part of it into any other file', () => {
  const zip = path.join(folder, 'song.zip');
  const done = ruddik('export', beat, zip, '--sections', '--split', 'lanes', '--files', '--count-in');
  expect(done).toMatchObject({ status: 0, stderr: '' });
  const entries = unzipSync(new Uint8Array(readFileSync(zip)));
  const files = Object.keys(entries).filter((name) => name.endsWith('.mid'));
  expect(done.stdout).toBe(`song.zip: ${files.length} files, 2512 notes.\n`);
  expect(readNotes(entries['02-Verse/Lantern-Walk-Verse-Kick.mid']!).end).toBe(13 * 3840);
  expect(new TextDecoder().decode(entries['list.txt'])).toContain('Bar 19, 0:46: Chorus, 4/4');
  const text = (name: string, ...more: string[]) => {
    const file = path.join(folder, name);
    expect(ruddik('export', beat, file, ...more)).toMatchObject({ status: 0, stderr: '' });
    return readFileSync(file, 'utf8');
  };
  expect(text('part.musicxml', '--section', 'Chorus')).toContain('<score-partwise version="4.0">');
  expect(text('tab.txt', '--bars', '7-8')).toContain('Lantern Walk: bars-7-8');
  expect(text('hits.csv', '--pattern', 'D · shutters down').split('\n')).toHaveLength(21);
});

test('a bounce begins its notes where play lists them', () => {
  const wav = path.join(folder, 'd.wav');
  const pattern = ['--pattern', 'D · shutters down'];
  expect(ruddik('export', beat, wav, ...pattern, '--depth', '32f', '--no-tail').status).toBe(0);
  const bytes = readFileSync(wav);
  expect(bytes.toString('latin1', 0, 4)).toBe('RIFF');
  expect(bytes.length).toBe(44 + Math.round((4 * Math.round(60e6 / 92) * 48000) / 1e6) * 8);
  const listed = JSON.parse(ruddik('play', beat, ...pattern, '--json').stdout) as {
    ms: number;
    lane: string;
  }[];
  expect(listed[0]).toMatchObject({ ms: 0 });
  expect(new Set(listed.map(({ lane }) => lane)).size).toBe(6);
  expect(ruddik('play', beat, ...pattern).stdout).toContain('bar 1, beat 1\t0 ms\tKick\t112');
});
