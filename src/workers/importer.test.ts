import { zipSync } from 'fflate';
import { writeMidi } from 'midi-file';
import { GENERAL_MIDI } from '../../core/midi/drumMap/drumMap';
import { memory } from '../keeping/storage.mock';
import type { KeyValue } from '../keeping/storage';
import { createImporter, type FromImport, type GivenFile } from './importer';

/** A file of one hit, by its note. */
const midi = (note: number): Uint8Array =>
  Uint8Array.from(
    writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: 480 },
      tracks: [
        [
          { deltaTime: 0, type: 'noteOn', channel: 9, noteNumber: note, velocity: 90 },
          { deltaTime: 120, type: 'noteOff', channel: 9, noteNumber: note, velocity: 0 },
          { deltaTime: 0, type: 'endOfTrack', meta: true },
        ],
      ],
    }),
  );

/** As much of a file as is asked of it. */
const file = (path: string, bytes: Uint8Array | null): GivenFile => ({
  path,
  file: {
    slice: (from: number, to: number) => ({
      arrayBuffer: () =>
        bytes ? Promise.resolve(bytes.slice(from, to).buffer) : Promise.reject(new Error('gone')),
    }),
  } as unknown as File,
});

const room = (storage: KeyValue = memory()) => {
  const told: FromImport[] = [];
  const importer = createImporter(storage);
  const begin = (total: number) => importer.begin(total, GENERAL_MIDI, (message) => told.push(message));
  const done = async () => {
    for (let turn = 0; turn < 500 && told.at(-1)?.type !== 'done'; turn++)
      await new Promise((resolve) => setTimeout(resolve, 1));
    return told.at(-1);
  };
  const all = () => {
    const parts = told.flatMap((message) => (message.type === 'progress' ? [message] : []));
    return {
      taken: parts.flatMap(({ taken }) => taken.map(({ indexed }) => indexed.row.name)),
      left: parts.flatMap(({ left }) => left),
      last: parts.at(-1),
    };
  };
  return { told, ...importer, begin, done, all, storage };
};

test('files and what archives hold are kept, each with its word; what is no MIDI file is named', async () => {
  const one = room();
  const archive = zipSync({ 'deep/rain.mid': midi(38), 'notes.txt': new Uint8Array([1]) });
  one.begin(5);
  expect(one.told).toEqual([{ type: 'more' }]);
  one.files([file('tarp.mid', midi(36)), file('set.zip', archive), file('.DS_Store', midi(36))], false);
  one.files([file('odd.wav', midi(36)), file('noise.mid', new Uint8Array(40))], true);
  expect(await one.done()).toEqual({ type: 'done', cancelled: false, full: false });
  const { taken, left, last } = one.all();
  expect(taken).toEqual(['tarp', 'rain']);
  expect(left.map(({ path }) => path)).toEqual(['set/notes.txt', 'odd.wav', 'noise.mid']);
  expect(left.map(({ why }) => why)).toEqual([
    'It is not a MIDI file.',
    'It is not a MIDI file.',
    'It is not a MIDI file.',
  ]);
  expect([last!.done, last!.total]).toEqual([5, 5]);
  const kept = [...(one.storage as ReturnType<typeof memory>).data.keys()];
  expect(kept.filter((key) => /rain|tarp/.test(key)).length).toBeGreaterThanOrEqual(2);
});

test('a file that the browser cannot read, and one that is too large, keep no other out', async () => {
  const one = room();
  one.begin(3);
  const huge = new Uint8Array(4 * 1024 * 1024 + 2);
  one.files([file('gone.mid', null), file('huge.mid', huge), file('tarp.mid', midi(36))], true);
  await one.done();
  expect(one.all().taken).toEqual(['tarp']);
  expect(one.all().left).toEqual([
    { path: 'gone.mid', why: 'The browser could not read it.' },
    { path: 'huge.mid', why: 'It is larger than 4 MB.' },
  ]);
});

test('a storage that is full is told, nothing is said to be kept, and the rest is left', async () => {
  const storage = memory();
  const full = () => Promise.reject(new Error('QuotaExceededError'));
  const one = room({ ...storage, setMany: full, change: full });
  one.begin(1);
  one.files([file('tarp.mid', midi(36))], true);
  expect(await one.done()).toEqual({ type: 'done', cancelled: false, full: true });
  expect(one.all().taken).toEqual([]);
  expect(one.all().left[0]!.why).toBe('The browser’s storage is full.');
});

test('cancelled, it keeps what was read by then and says so', async () => {
  const one = room();
  one.cancel();
  expect(one.told).toEqual([]);
  one.begin(300);
  one.files([file('tarp.mid', midi(36))], false);
  await new Promise((resolve) => setTimeout(resolve, 20));
  one.cancel();
  expect(await one.done()).toEqual({ type: 'done', cancelled: true, full: false });
  expect(one.all().taken).toEqual(['tarp']);
});

test('hundreds of files are told of a hundred at a time', async () => {
  const one = room();
  const many = Array.from({ length: 250 }, (_, at) => file(`a${at}.mid`, midi(35 + (at % 40))));
  one.begin(many.length);
  one.files(many, true);
  await one.done();
  const sizes = one.told.flatMap((message) =>
    message.type === 'progress' ? [message.taken.length + message.left.length] : [],
  );
  expect(sizes.slice(0, 2)).toEqual([100, 100]);
  expect(sizes.reduce((sum, n) => sum + n, 0)).toBe(250);
});
