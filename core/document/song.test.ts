import { DEMO_BEATS } from '../../demo/beats';
import { SONG } from './choices';
import { readBeat } from './file';
import type { Beat } from './schema';
import type { Section } from './songSchema';
import { writeBeat } from './text';

const LANTERN = DEMO_BEATS.find(({ song }) => song.order.length)!;
const [FIRST] = LANTERN.song.sections;

const errorOf = (song: Partial<Beat['song']>): string => {
  const read = readBeat(writeBeat({ ...LANTERN, song: { ...LANTERN.song, ...song } }));
  return read.ok ? 'no error' : read.error;
};
const withFirst = (change: Partial<Section> | Record<string, unknown>): string =>
  errorOf({ sections: [{ ...FIRST!, ...change }, ...LANTERN.song.sections.slice(1)] });

test('the song of the demo beat is sound, and stays so', () => {
  expect(errorOf({})).toBe('no error');
  expect(errorOf({ sections: [], order: [] })).toBe('no error');
});

test('a place whose section is not there is told, with where it stands', () => {
  const said = errorOf({ order: [{ id: 'o', sectionId: 'nowhere', times: 1 }] });
  expect(said).toContain('is a section that the song does not have');
  expect(said).toContain('song');
});

test('two entries of one id are told: links between places would not know which is meant', () => {
  expect(errorOf({ sections: [...LANTERN.song.sections, FIRST!] })).toContain('has two entries of one id');
  const [place] = LANTERN.song.order;
  expect(errorOf({ order: [place!, place!] })).toContain('has two entries of one id');
});

test.each([
  ['tempo', { tempo: 301 }],
  ['tempo', { tempo: 19 }],
  ['level', { level: 2.5 }],
  ['swing', { change: { swing: 80 } }],
  ['bars', { entries: [{ id: 'e', patternId: 'a', times: 1, bars: SONG.bars + 1 }] }],
  ['times', { entries: [{ id: 'e', patternId: 'a', times: 0 }] }],
  ['name', { name: '   ' }],
  ['pigment', { pigment: 'octarine' }],
  ['over', { fill: { patternId: 'a', over: 'week' } }],
] as const)('what is out of range in a section is told by its name: %s', (word, change) => {
  const said = withFirst(change);
  expect(said).not.toBe('no error');
  expect(said).toContain(word);
  expect(said).not.toMatch(/zod|undefined|\bat \w+ \(/i);
});

test.each([
  { tempo: 20, level: 0, change: { tempo: 300, level: 2, swing: 75 } },
  { entries: [{ id: 'e', patternId: 'a', times: SONG.times, bars: SONG.bars }] },
  { entries: [], silent: LANTERN.lanes.map(({ id }) => id) },
])('what lies at the edges of the ranges is taken: %j', (change) => {
  expect(withFirst(change)).toBe('no error');
});
