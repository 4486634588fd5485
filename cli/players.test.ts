import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { readMidiFile } from '../core/midi/read/readMidi';
import { secondsAt } from '../core/play/tempoMap';

const ruddik = (args: readonly string[]) => {
  const { status, stdout, stderr } = spawnSync(path.resolve(__dirname, '..', 'bin', 'ruddik'), args, {
    encoding: 'utf8',
  });
  return { code: status, out: stdout, err: stderr };
};
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'ruddik-players-'));
const at = (name: string) => path.join(folder, name);
afterAll(() => fs.rmSync(folder, { recursive: true }));

const BAND = {
  kind: 'ruddik.players',
  version: 1,
  seed: 7,
  players: [
    { name: 'Kick', notes: [36], clock: 0.8, touch: 2, click: 0 },
    { name: 'Hats', notes: ['hat.closed', 46], clock: 0.8, touch: 3, click: 0, follows: { Kick: 0.3 } },
  ],
};
const band = (name: string, change: object = {}): string => {
  fs.writeFileSync(at(name), JSON.stringify({ ...BAND, ...change }));
  return at(name);
};
const read = (file: string) => {
  const midi = readMidiFile(fs.readFileSync(file));
  if (!midi.ok) throw new Error(midi.error);
  return midi.value;
};
const timesOf = (file: string): number[] => {
  const midi = read(file);
  return midi.notes
    .map(({ start, note }) => [secondsAt(midi.tempos, (start * 960) / midi.ppq), note] as const)
    .sort(([a, x], [b, y]) => x - y || a - b)
    .map(([seconds]) => seconds);
};

test('players move a file’s notes; with a tempo map all sounds when it did, and the tempo wanders', () => {
  expect(
    ruddik(['export', 'demo/beats/lantern-walk.ruddik.json', at('in.mid'), '--passes', '8', '--straight'])
      .code,
  ).toBe(0);
  const players = band('band.json');
  expect(ruddik(['feel', at('in.mid'), at('out.mid'), '--players', players])).toMatchObject({
    code: 0,
    err: '',
  });
  expect(ruddik(['feel', at('in.mid'), at('map.mid'), '--players', players, '--tempo-map'])).toMatchObject({
    code: 0,
    err: '',
  });
  const [plain, moved, mapped] = ['in.mid', 'out.mid', 'map.mid'].map((name) => timesOf(at(name)));
  const far = moved!.map((time, i) => Math.abs(time - plain![i]!));
  expect(Math.max(...far)).toBeGreaterThan(0.003);
  // A tick of the file is 0.7 ms at its tempo.
  mapped!.forEach((time, i) => expect(Math.abs(time - moved![i]!)).toBeLessThan(0.001));
  expect(read(at('in.mid')).tempoChanges).toBe(0);
  expect(read(at('map.mid')).tempoChanges).toBeGreaterThan(30);
  // The same seed gives the same, another another.
  ruddik(['feel', at('in.mid'), at('again.mid'), '--players', players]);
  expect(fs.readFileSync(at('again.mid')).equals(fs.readFileSync(at('out.mid')))).toBe(true);
  ruddik(['feel', at('in.mid'), at('other.mid'), '--players', players, '--seed', '8']);
  expect(fs.readFileSync(at('other.mid')).equals(fs.readFileSync(at('out.mid')))).toBe(false);
}, 60_000);

test('swing, template, spread, contrast and level by note or for all', () => {
  ruddik(['export', 'demo/beats/lantern-walk.ruddik.json', at('one.mid'), '--straight']);
  const felt = (...args: string[]) => {
    expect(ruddik(['feel', at('one.mid'), at('felt.mid'), ...args])).toMatchObject({ code: 0, err: '' });
    return read(at('felt.mid')).notes;
  };
  const before = read(at('one.mid')).notes;
  const startsOf = (notes: typeof before, note: number) =>
    notes.filter((one) => one.note === note).map(({ start }) => start);
  const moved = (notes: typeof before, note: number) => {
    const there = startsOf(before, note);
    return startsOf(notes, note).filter((start, i) => start !== there[i]).length;
  };
  const swung = felt('--swing-note', 'hat.closed=66');
  expect(moved(swung, 42)).toBeGreaterThan(0);
  expect(moved(swung, 38)).toBe(0);
  const louder = felt('--level', '0.5');
  expect(louder.every(({ velocity }, i) => velocity <= before[i]!.velocity)).toBe(true);
  const flat = felt('--contrast', '0').filter(({ note }) => note === 42);
  expect(new Set(flat.map(({ velocity }) => velocity)).size).toBe(1);
  const spread = felt('--humanize-timing', '8', '--spread-note', 'kick=0', '--seed', '3');
  expect(moved(spread, 36)).toBe(0);
  expect(moved(spread, 42)).toBeGreaterThan(0);
}, 60_000);

test('who plays what is printed, and what cannot be played is counted', () => {
  ruddik(['export', 'demo/beats/lantern-walk.ruddik.json', at('hands.mid')]);
  const { code, out } = ruddik(['sticking', at('hands.mid')]);
  expect(code).toBe(0);
  expect(out).toMatch(/RF {2}Kick/);
  expect(out).toMatch(/can(not)? be played by one drummer/);
  const json = JSON.parse(ruddik(['sticking', at('hands.mid'), '--json', '--left-handed']).out) as {
    strokes: { limb: string; drum: string }[];
    unplayable: { all: number };
  };
  expect(json.strokes.find(({ drum }) => drum === 'kick')!.limb).toBe('LF');
  expect(typeof json.unplayable.all).toBe('number');
}, 60_000);

test.each([
  [['feel', 'IN', 'x.mid', '--tempo-map'], 2, /there are none/],
  [['feel', 'IN', 'x.mid', '--players', 'BAND', '--drift', '5'], 2, /not from both/],
  [['feel', 'IN', 'x.mid', '--players', 'package.json'], 1, /no players of Ruddik/],
  [['feel', 'IN', 'x.mid', '--swing-note', '58'], 2, /NOTE=NUMBER/],
  [['sticking', 'package.json'], 1, /could not be read/],
] as const)('of %j it says why not', (args, code, sentence) => {
  ruddik(['export', 'demo/beats/lantern-walk.ruddik.json', at('in2.mid')]);
  const given = args.map((one) =>
    one === 'IN' ? at('in2.mid') : one === 'BAND' ? band('b.json') : one === 'x.mid' ? at(one) : one,
  );
  const done = ruddik(given);
  expect(done.code).toBe(code);
  expect(done.err).toMatch(sentence);
  expect(done.err.trim().split('\n')).toHaveLength(1);
});

test.each([
  [{ version: 9 }, /version 9/],
  [{ players: [] }, /players/],
  [{ players: [BAND.players[0], BAND.players[0]] }, /called .?Kick/],
  [{ players: [{ ...BAND.players[0], follows: { Nobody: 0.5 } }] }, /no other player/],
  [
    {
      players: [
        { ...BAND.players[0], click: 0.8 },
        { ...BAND.players[1], click: 0.8 },
      ],
    },
    /attention/,
  ],
])('players with %j are refused with a sentence', (change, sentence) => {
  ruddik(['export', 'demo/beats/lantern-walk.ruddik.json', at('in3.mid')]);
  const { code, err } = ruddik(['feel', at('in3.mid'), at('x.mid'), '--players', band('bad.json', change)]);
  expect(code).toBe(1);
  expect(err).toMatch(sentence);
  const told = ruddik(['report', at('bad.json')]);
  expect(told.code).toBe(1);
  expect(told.err).toMatch(sentence);
});

test('a report tells what a template and a players file say, and whether one drummer can play a file', () => {
  const rudiment = at('flam.mid');
  ruddik(['make', 'rudiment', rudiment, '--name', 'flam tap', '--bars', '2']);
  expect(ruddik(['report', rudiment]).out).toContain('One drummer can play it: ');
  const template = at('late.json');
  ruddik(['template', rudiment, template]);
  expect(ruddik(['report', template]).out).toMatch(/^Template “flam”: \d+ slots of 1\/16/);
  const nothing = at('nothing.json');
  fs.writeFileSync(nothing, '{"kind":"tide"}');
  const wrong = ruddik(['report', nothing]);
  expect([wrong.code, wrong.err.split('\n').length]).toEqual([1, 2]);
  expect(wrong.err).toContain('is no MIDI file, template or players file.');
});
