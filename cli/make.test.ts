import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { madeFile } from '../core/midi/write/madeFile';
import { readNotes } from '../core/midi/read/readBack.mock';

const folder = mkdtempSync(path.join(tmpdir(), 'ruddik-make-'));
const at = (name: string) => path.join(folder, name);
const RUDDIK = path.resolve(__dirname, '..', 'bin', 'ruddik');

const ruddik = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(RUDDIK, args, { encoding: 'utf8' });
  return { status, stdout, stderr };
};
const json = (...args: string[]) => {
  const { status, stdout } = ruddik(...args, '--json');
  expect(status).toBe(0);
  return JSON.parse(stdout) as {
    arrangements: number;
    which: number;
    slots: number[];
    hits: { tick: number; velocity: number; strokes: number; note: number }[];
    rest: { tick: number }[];
  };
};
const notes = (name: string) =>
  readNotes(new Uint8Array(readFileSync(at(name)))).notes.map(({ tick, note, velocity }) => [
    tick,
    note,
    velocity,
  ]);

/** A file at 120 BPM of some notes of velocity 100. */
const file = (name: string, all: [tick: number, note?: number][]) => {
  const made = all.map(([tick, note = 38]) => ({ tick, note, velocity: 100, length: 30 }));
  writeFileSync(at(name), madeFile('In', made, 3840, { beats: 4, unit: 4 }, 120));
  return at(name);
};
const hit = file('hit.mid', [[0]]);
const four = file('four.mid', [[0], [480], [960], [1440]]);
const two = file('two.mid', [[0], [1010]]);

test('a ring: its arrangements, its hits, the file that holds them', () => {
  const told = json('make', 'ring', at('ring.mid'), '--slots', '8', '--strikes', '3', '--rest', '42');
  expect(told).toMatchObject({ arrangements: 7, which: 1, slots: [0, 3, 6] });
  expect(told.hits).toEqual([0, 720, 1440].map((tick) => ({ tick, velocity: 100, strokes: 1 })));
  expect(notes('ring.mid').filter(([, note]) => note === 36)).toEqual(
    [0, 720, 1440].map((tick) => [tick, 36, 100]),
  );
  expect(notes('ring.mid').filter(([, note]) => note === 42)).toHaveLength(5);
  expect(json('make', 'ring', '--slots', '16', '--strikes', '5', '--which', '2').slots).toEqual([
    0, 4, 7, 10, 14,
  ]);
});

test('a ring that fills bars of 7/8, turned, accented and doubled', () => {
  const told = json(
    ...['make', 'ring', '--slots', '8', '--strikes', '3', '--rotate', '1', '--bars', '1', '--meter', '7/8'],
    ...['--accent', '125', '--accent-every', '3', '--accent-from', '1', '--doubling', '100', '--into', '3'],
  );
  expect(told.hits.map(({ tick, velocity, strokes }) => [tick, velocity, strokes])).toEqual([
    [240, 100, 3],
    [960, 125, 3],
    [1680, 100, 3],
    [2160, 100, 3],
    [2880, 125, 3],
  ]);
});

test('bands: so many, each within its edges, pitches of the scale; a fuller one holds a sparser one', () => {
  const of = (fullness: string) =>
    json(
      ...['make', 'bands', '--grid', '1/16', '--bars', '2', '--fullness', fullness, '--seed', '9'],
      ...['--velocity', '40-60..100-120', '--pitch', '48-72', '--scale', 'C minor'],
    ).hits;
  const full = of('75');
  expect(full).toHaveLength(24);
  for (const { tick, velocity, note } of full) {
    const share = tick / 7680;
    expect(velocity).toBeGreaterThanOrEqual(Math.floor(40 + 60 * share));
    expect(velocity).toBeLessThanOrEqual(Math.ceil(60 + 60 * share));
    expect([0, 2, 3, 5, 7, 8, 10]).toContain(note % 12);
  }
  for (const one of of('25')) expect(full).toContainEqual(one);
});

test('a beat of a style; each seed another', () => {
  const of = (seed: string) => json('make', 'beat', at('beat.mid'), '--style', 'funk', '--seed', seed).hits;
  expect(of('1')).toEqual(of('1'));
  expect(of('1')).not.toEqual(of('2'));
  expect(notes('beat.mid').length).toBe(of('2').length);
});

test.each([
  [
    ['--count', '3', '--rate', '1/8', '--slope', '80'],
    [
      [0, 38, 100],
      [480, 38, 80],
      [960, 38, 64],
      [1440, 38, 51],
    ],
  ],
  [
    ['--count', '3', '--rate', '1/8', '--slope', '80', '--without-hit'],
    [
      [480, 38, 80],
      [960, 38, 64],
      [1440, 38, 51],
    ],
  ],
  [
    ['--count', '2', '--rate', '125ms', '--interval', '7'],
    [
      [0, 38, 100],
      [240, 45, 100],
      [480, 52, 100],
    ],
  ],
])('echo %j', (options, out) => {
  expect(ruddik('echo', hit, at('out.mid'), ...options).status).toBe(0);
  expect(notes('out.mid')).toEqual(out);
});

test.each([
  ['reversed', [2450, 3360]],
  ['8,7,6,5,4,3,2,1', [2450, 3360]],
  ['odds-then-evens', [0, 530]],
  ['1,1,2,2,3,3,4,4', [0, 480, 1970, 2450]],
])('detour by %s', (route, ticks) => {
  expect(ruddik('detour', two, at('out.mid'), '--slots', '8', '--route', route).status).toBe(0);
  expect(notes('out.mid').map(([tick]) => tick)).toEqual(ticks);
});

test.each([
  [['--stagger-count', '3x100'], four, [0, 672, 1344, 1440]],
  // 518.4 and 1036.8, on the ticks of the file.
  [['--stagger-list', '0,20,40'], four, [0, 518, 1037, 1440]],
  [
    ['--stagger-count', '4x20'],
    file('chord.mid', [
      [0, 60],
      [0, 48],
      [0, 67],
      [0, 52],
    ]),
    [0, 38, 77, 115],
  ],
  [['--stagger-count', '3x100', '--stagger-note', '36'], four, [0, 480, 960, 1440]],
])('feel %j', (options, input, ticks) => {
  expect(ruddik('feel', input, at('out.mid'), ...options).status).toBe(0);
  expect(notes('out.mid').map(([tick]) => tick)).toEqual(ticks);
});

test('the lowest note of a chord comes first', () => {
  ruddik('feel', at('chord.mid'), at('out.mid'), '--stagger-count', '4x20');
  expect(notes('out.mid').map(([, note]) => note)).toEqual([48, 52, 60, 67]);
});

test.each([
  [['make', 'ring', '--slots', '8', '--strikes', '3'], 2, 'Say where to write it'],
  [['make', 'ring', at('no.mid'), '--slots', 'x', '--strikes', '3'], 2, 'number'],
  [
    [
      'make',
      'bands',
      at('no.mid'),
      '--grid',
      '1/16',
      '--bars',
      '1',
      '--fullness',
      '50',
      '--pitch',
      '40-60',
      '--scale',
      'C wet',
    ],
    1,
    'no scale “C wet”',
  ],
  [['make', 'bands', at('no.mid'), '--grid', '1/16', '--bars', '1', '--fullness', 'much'], 2, 'LO-HI'],
  [['make', 'beat', at('no.mid'), '--style', 'Polka'], 1, 'no style “Polka”'],
  [['echo', hit, at('no.mid'), '--count', '3', '--rate', 'soon'], 2, '125ms'],
  [['detour', two, at('no.mid'), '--slots', '8', '--route', '1,2,3,4,5,6,7,9'], 2, 'leads to slot 9'],
  [['detour', two, at('no.mid'), '--slots', '5', '--route', 'reversed'], 2, '4, 8, 16, 32'],
  [['feel', four, at('no.mid'), '--random-first'], 2, '--stagger-count'],
])('%j is told in a sentence, and nothing is written', (args, code, sentence) => {
  const { status, stderr } = ruddik(...args);
  expect([status, stderr.trim().split('\n').length]).toEqual([code, 1]);
  expect(stderr).toContain(sentence);
  expect(existsSync(at('no.mid'))).toBe(false);
});

test('what is out of range is held and told', () => {
  const { status, stderr, stdout } = ruddik('make', 'ring', '--slots', '99', '--strikes', '3', '--json');
  expect([status, (JSON.parse(stdout) as { arrangements: number }).arrangements]).toEqual([0, 85]);
  expect(stderr).toContain('99 became 24');
});

test('a rudiment: its hands, its file, shared out to other drums; one that is not known is named', () => {
  const told = ruddik('make', 'rudiment', at('para.mid'), '--name', 'single paradiddle', '--json');
  const made = JSON.parse(told.stdout) as { sticking: string; hits: { note: number; velocity: number }[] };
  expect(made.sticking).toBe('R L R R L R L L '.repeat(2).trim());
  expect(made.hits.map(({ velocity }) => velocity)).toEqual([0, 1, 2, 3].flatMap(() => [112, 70, 70, 70]));
  expect(notes('para.mid').map(([, note]) => note)).toEqual(Array(16).fill(38));
  ruddik(
    'make',
    'rudiment',
    at('shared.mid'),
    '--name',
    'Flam accent',
    '--accent-note',
    '45',
    '--left',
    '--bars',
    '1',
  );
  expect(new Set(notes('shared.mid').map(([, note]) => note))).toEqual(new Set([38, 45]));
  const wrong = ruddik('make', 'rudiment', at('no.mid'), '--name', 'lantern roll');
  expect(wrong.status).toBe(2);
  expect(wrong.stderr).toContain('There is no rudiment “lantern roll”.');
});
