import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

import type { Beat } from '../core/document/schema';
import { positionOf } from '../core/document/position';
import { builtInGrooves } from '../core/groove/library';
import { readNotes } from '../core/midi/read/readBack.mock';

const folder = mkdtempSync(path.join(tmpdir(), 'ruddik-library-'));
const at = (name: string) => path.join(folder, name);
const RUDDIK = path.resolve(__dirname, '..', 'bin', 'ruddik');
const ruddik = (...args: string[]) => spawnSync(RUDDIK, args, { encoding: 'utf8' });
const notes = (name: string) => readNotes(new Uint8Array(readFileSync(at(name)))).notes;

test('the library is told as JSON, and searched by words', () => {
  const all = JSON.parse(ruddik('grooves', '--json').stdout) as {
    name: string;
    style: string;
    meter: string;
    bpm: number;
  }[];
  expect(all).toHaveLength(builtInGrooves().length);
  const waltzes = JSON.parse(ruddik('grooves', 'jazz', 'waltz', '--json').stdout) as typeof all;
  expect(waltzes.length).toBeGreaterThan(0);
  expect(waltzes.length).toBeLessThan(all.length);
  expect(waltzes[0]!.meter).toBe('3/4');
});

test.each([
  ['2', 2],
  ['3/2', 1.5],
  ['0.75', 0.75],
])('a groove at speed %s has every hit at its tick divided by it', (speed, factor) => {
  const groove = builtInGrooves()[0]!;
  expect(ruddik('groove', groove.name, at('groove.mid'), '--speed', speed).status).toBe(0);
  const wanted = groove.lanes
    .flatMap(({ part }) =>
      part.hits.flatMap((hit) => ((hit.roll ?? hit.grace) ? [] : [positionOf(hit, part.grid) / factor])),
    )
    .filter((tick) => tick >= 0);
  const ticks = notes('groove.mid').map(({ tick }) => tick);
  expect(wanted.length).toBeGreaterThan(4);
  for (const tick of wanted) expect(ticks.some((one) => Math.abs(one - tick) <= 1)).toBe(true);
});

test('what there is not is one sentence, and nothing is written', () => {
  const none = ruddik('groove', 'No such groove', at('none.mid'));
  expect([none.status, none.stderr.trim().split('\n').length, existsSync(at('none.mid'))]).toEqual([
    1,
    1,
    false,
  ]);
  expect(ruddik('groove', builtInGrooves()[0]!.name, at('none.mid'), '--speed', 'fast').status).toBe(2);
});

test('a MIDI file is imported as the app takes it; edits are done one after the other, or none of them', () => {
  const groove = builtInGrooves()[0]!;
  ruddik('groove', groove.name, at('in.mid'));
  expect(ruddik('import', at('in.mid'), at('in.ruddik.json')).status).toBe(0);
  const imported = JSON.parse(readFileSync(at('in.ruddik.json'), 'utf8')) as { beat?: Beat } & Beat;
  const lanes = (imported.beat ?? imported).lanes;
  expect(lanes.length).toBe(groove.lanes.length);
  const lane = lanes[0]!.id;
  const done = ruddik(
    'edit',
    at('in.ruddik.json'),
    at('out.ruddik.json'),
    JSON.stringify({ edit: 'clearLanes', args: { laneIds: [lane] } }),
  );
  expect([done.status, done.stderr]).toEqual([0, '']);
  const edited = JSON.parse(readFileSync(at('out.ruddik.json'), 'utf8')) as { beat?: Beat } & Beat;
  expect((edited.beat ?? edited).patterns[0]!.parts[lane]?.hits ?? []).toEqual([]);
  const refused = ruddik(
    'edit',
    at('in.ruddik.json'),
    at('never.ruddik.json'),
    JSON.stringify({ edit: 'clearLanes', args: { laneIds: [lane] } }),
    JSON.stringify({ edit: 'clearLanes', args: { laneIds: ['nowhere'] } }),
  );
  expect(refused.status).toBe(1);
  expect(refused.stderr).toMatch(/2/);
  expect(refused.stderr.trim().split('\n')).toHaveLength(1);
  expect(existsSync(at('never.ruddik.json'))).toBe(false);
});

test('a rudiment’s first grace strokes stand at the end of the loop, its letters in the order of its notes', () => {
  const { stdout } = ruddik('make', 'rudiment', at('drag.mid'), '--name', 'drag', '--json');
  const { sticking, hits } = JSON.parse(stdout) as {
    sticking: string;
    hits: { tick: number; velocity: number }[];
  };
  const letters = sticking.split(' ');
  expect(letters).toHaveLength(hits.length);
  letters.forEach((letter, place) => expect(hits[place]!.velocity < 50).toBe(/[lr]/.test(letter)));
  expect(letters.slice(-2)).toEqual(['l', 'l']);
  expect(hits.filter(({ tick }) => tick < 10)).toHaveLength(1);
});
