import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { writeMidi, type MidiEvent } from 'midi-file';
import { readMidi } from '../core/midi/read/readMidi';

const folder = mkdtempSync(path.join(tmpdir(), 'ruddik-map-'));
const at = (name: string) => path.join(folder, name);
const RUDDIK = path.join(__dirname, '..', 'bin', 'ruddik');

const run = (...args: string[]) =>
  promisify(execFile)(process.execPath, [RUDDIK, 'remap', ...args]).then(
    ({ stderr }) => ({ code: 0, stderr }),
    (fault: { code: number; stderr: string }) => ({ code: fault.code, stderr: fault.stderr }),
  );

const notesOf = (name: string) => {
  const opened = readMidi(new Uint8Array(readFileSync(at(name))), 'lenient');
  return opened.ok
    ? opened.value.file.notes.map(({ start, end, note, velocity }) => [start, end, note, velocity])
    : [];
};

beforeAll(() => {
  // Kick, rimshot, side stick and cowbell, one after the other, with a controller between.
  const events = [36, 40, 37, 56].flatMap((noteNumber, i): MidiEvent[] => [
    { deltaTime: i ? 100 : 0, type: 'noteOn', channel: 9, noteNumber, velocity: 90 + i },
    { deltaTime: 20, type: 'noteOff', channel: 9, noteNumber, velocity: 0 },
  ]);
  events.splice(2, 0, { deltaTime: 5, type: 'controller', channel: 9, controllerType: 7, value: 99 });
  events.push({ deltaTime: 0, meta: true, type: 'endOfTrack' });
  writeFileSync(
    at('in.mid'),
    Uint8Array.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 120 }, tracks: [events] })),
  );
  const map = (name: string, notes: object[]) =>
    writeFileSync(at(name), JSON.stringify({ kind: 'ruddik.drumMap', version: 1, name: 'Pads', notes }));
  map('pads.json', [
    { note: 60, instrument: 'kick' },
    { note: 61, instrument: 'snare' },
    { note: 56, instrument: 'ride' },
  ]);
  writeFileSync(
    at('bad.json'),
    '{"kind":"ruddik.drumMap","version":1,"name":"x","notes":[{"note":1,"instrument":"gong"}]}',
  );
});

test('numbers change, all else stays, and what has no counterpart is named', async () => {
  const { code, stderr } = await run(at('in.mid'), at('out.mid'), '--from', 'gm', '--to', at('pads.json'));
  expect(code).toBe(0);
  expect(notesOf('out.mid')).toEqual([
    [0, 20, 60, 90],
    [125, 145, 61, 91],
    [245, 265, 37, 92],
  ]);
  expect(stderr.trim().split('\n')).toEqual([
    'Note 37 (Side stick) has no counterpart in “Pads”: kept as it is.',
    'Note 40 (Second snare) becomes 61 (Snare), the nearest that “Pads” has.',
    'Note 56 (Cowbell) has no counterpart in “Pads”, where its number is Ride: left out.',
  ]);
}, 60_000);

test('what has none is dropped, or kept though another drum would sound', async () => {
  await run(at('in.mid'), at('drop.mid'), '--from', 'gm', '--to', at('pads.json'), '--drop');
  expect(notesOf('drop.mid').map(([, , note]) => note)).toEqual([60, 61]);
  await run(at('in.mid'), at('keep.mid'), '--from', 'gm', '--to', at('pads.json'), '--keep-clashes');
  expect(notesOf('keep.mid').map(([, , note]) => note)).toEqual([60, 61, 37, 56]);
  await run(at('in.mid'), at('same.mid'), '--from', 'gm', '--to', 'gm');
  expect(notesOf('same.mid')).toEqual(notesOf('in.mid'));
}, 60_000);

test('faults are one sentence: 1 for input, 2 for usage', async () => {
  const bad = await run(at('in.mid'), at('x.mid'), '--from', 'gm', '--to', at('bad.json'));
  expect([bad.code, bad.stderr.trim().split('\n').length]).toEqual([1, 1]);
  expect(bad.stderr).toContain('The instrument of note 1');
  expect((await run(at('none.mid'), at('x.mid'), '--from', 'gm', '--to', 'gm')).code).toBe(1);
  expect((await run(at('in.mid'), at('x.mid'), '--from', 'gm')).code).toBe(2);
}, 60_000);
