import fc from 'fast-check';
import { builtInGrooves } from './library';
import { findable, isMadeFor, readQuery } from './search';

const rows = builtInGrooves();

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
  ['Side Stick 120 BPM', { words: 'side stick', numbers: [], ranges: [{ from: 120, to: 120 }] }],
  ['hi-hat 7/8', { words: 'hi hat', numbers: ['7/8'], ranges: [] }],
  ['house 127.5bpm 3', { words: 'house', numbers: ['3'], ranges: [{ from: 127.5, to: 127.5 }] }],
  ['mp3 808s 92.5', { words: 'mp3 808s', numbers: ['92.5'], ranges: [] }],
  ['  ', { words: '', numbers: [], ranges: [] }],
])('%j is read as %j', (text, query) =>
  expect(readQuery(text)).toEqual({ feel: null, kind: null, ...query }),
);

test('what is made for a tempo is found by it, its own tempo too', () => {
  fc.assert(
    fc.property(fc.integer({ min: 20, max: 300 }), fc.constantFrom(...rows), (tempo, row) => {
      expect(isMadeFor(row, tempo)).toBe(tempo >= row.tempos[0] && tempo <= row.tempos[1]);
      expect(isMadeFor(row, row.bpm)).toBe(true);
    }),
  );
});
