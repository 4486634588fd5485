import { strToU8, zipSync } from 'fflate';
import { ARCHIVE_BOUNDS } from '../../core/groove/importing';
import { unpack } from './unzip';

const midi = strToU8('MThd and so on');

test('MIDI files come out with the archive as their folder; others, climbing paths and housekeeping stay', () => {
  const { files, left } = unpack(
    zipSync({
      'a.mid': midi,
      'Pier/b.MIDI': midi,
      'note.txt': midi,
      '../c.mid': midi,
      '__MACOSX/._a.mid': midi,
    }),
    'Wharf',
  );
  expect(files.map(({ path }) => path)).toEqual(['Wharf/a.mid', 'Wharf/Pier/b.MIDI']);
  expect([...files[0]!.bytes]).toEqual([...midi]);
  expect(left).toEqual([
    { path: 'Wharf/note.txt', why: 'It is not a MIDI file.' },
    { path: 'Wharf/../c.mid', why: 'Its path leads out of the archive.' },
  ]);
});

test('a file beyond 4 MB is left out, and an archive made to swell is stopped', () => {
  const large = new Uint8Array(4 * 1024 * 1024 + 1);
  expect(unpack(zipSync({ 'big.mid': large, 'a.mid': midi }), 'Z')).toMatchObject({
    files: [{ path: 'Z/a.mid' }],
    left: [{ path: 'Z/big.mid', why: 'It is larger than 4 MB.' }],
  });
  // A tenth of what may come out in truth: so much takes long to be made.
  expect(ARCHIVE_BOUNDS.bytes).toBe(200 * 1024 * 1024);
  const bound = jest.replaceProperty(ARCHIVE_BOUNDS, 'bytes', (20 * 1024 * 1024) as never);
  const four = new Uint8Array(4 * 1024 * 1024 - 1);
  const many = Object.fromEntries(Array.from({ length: 8 }, (_, at) => [`${at}.mid`, four]));
  const { files, left } = unpack(zipSync(many, { level: 1 }), 'Z');
  bound.restore();
  expect(files.length).toBeLessThanOrEqual(5);
  expect(left.some(({ why }) => why.startsWith('It unpacks to more than 200 MB'))).toBe(true);
});

test('what is damaged or no archive is said, and what came before the damage is kept', () => {
  expect(unpack(strToU8('hello'), 'Z').left[0]!.why).toContain('not a ZIP archive');
  const torn = new Uint8Array(400).fill(7);
  torn.set([0x50, 0x4b]);
  expect(unpack(torn, 'Z')).toEqual({
    files: [],
    left: [{ path: 'Z', why: 'Nothing was found in it: it is empty, or damaged.' }],
  });
  const whole = zipSync(
    { 'a.mid': midi, 'b.mid': new Uint8Array(5000).map((_, at) => (at * 7919) % 251) },
    { level: 0 },
  );
  const { files, left } = unpack(whole.subarray(0, 2000), 'Z');
  expect(files.map(({ path }) => path)).toEqual(['Z/a.mid']);
  expect(left).toHaveLength(1);
});
