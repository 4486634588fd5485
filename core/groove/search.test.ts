import fc from 'fast-check';
import { builtInGrooves } from './library';
import { findable, isMadeFor, readQuery } from './search';

const rows = builtInGrooves();

/** A plain search: every word begins a word, every number is one. */
const found = (query: string) => {
  const { words, numbers, tempos } = readQuery(query);
  return rows.filter((row) => {
    const own = findable(row);
    const text = own.words.split(/[^\p{L}\d&]+/u);
    return (
      words.split(' ').every((word) => text.some((one) => one.startsWith(word))) &&
      numbers.every((number) => own.numbers.includes(number)) &&
      tempos.every((tempo) => isMadeFor(row, tempo))
    );
  });
};

test.each([
  ['hihat', (row: (typeof rows)[number]) => row.lanes.some(({ instrument }) => instrument.startsWith('hat'))],
  ['side stick', (row) => row.lanes.some(({ instrument }) => instrument === 'snare.sideStick')],
  ['7/8', (row) => row.meter.beats === 7 && row.meter.unit === 8],
  ['120 bpm', (row) => row.tempos[0] <= 120 && row.tempos[1] >= 120],
  ['124', (row) => row.bpm === 124],
  ['hip hop', (row) => ['Boom-bap', 'Slow jam', 'Trap', 'Drill'].includes(row.style)],
  ['house', (row) => ['Four-on-the-floor', 'House'].includes(row.style)],
  ['reggae', (row) => ['One drop', 'Dembow'].includes(row.style)],
] as [string, (row: (typeof rows)[number]) => unknown][])(
  '%s finds what is meant, and nothing else',
  (query, meant) => {
    expect(found(query).map(({ id }) => id)).toEqual(rows.filter(meant).map(({ id }) => id));
    expect(found(query).length).toBeGreaterThan(0);
  },
);

test('numbers are found as wholes', () => {
  const row = { ...rows[0]!, name: 'Moth dance 108', bpm: 1100 };
  const { numbers } = findable(row);
  expect(numbers).toEqual(expect.arrayContaining(['108', '1100', '4/4']));
  for (const part of ['10', '100', '110', '08']) expect(numbers).not.toContain(part);
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9999 }), fc.integer({ min: 1, max: 9999 }), (own, other) => {
      const has = findable({ ...row, name: `Moth dance ${own}`, bpm: 3 }).numbers;
      expect(has.includes(String(other))).toBe(own === other || other === 3);
    }),
  );
});

test.each([
  ['Side Stick 120 BPM', { words: 'side stick', numbers: [], tempos: [120] }],
  ['hi-hat 7/8', { words: 'hi hat', numbers: ['7/8'], tempos: [] }],
  ['house 127.5bpm 3', { words: 'house', numbers: ['3'], tempos: [127.5] }],
  ['mp3 808s 92.5', { words: 'mp3 808s', numbers: ['92.5'], tempos: [] }],
  ['  ', { words: '', numbers: [], tempos: [] }],
])('%j is read as %j', (text, query) => expect(readQuery(text)).toEqual(query));

test('what is made for a tempo is found by it, its own tempo too', () => {
  fc.assert(
    fc.property(fc.integer({ min: 20, max: 300 }), fc.constantFrom(...rows), (tempo, row) => {
      expect(isMadeFor(row, tempo)).toBe(tempo >= row.tempos[0] && tempo <= row.tempos[1]);
      expect(isMadeFor(row, row.bpm)).toBe(true);
    }),
  );
});
