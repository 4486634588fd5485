import fc from 'fast-check';
import { noteName, noteOfName } from './noteName';

test('a name gives the number that it was told for, by either count; a number is itself', () => {
  fc.assert(
    fc.property(fc.nat(127), fc.constantFrom('c3' as const, 'c4' as const), (note, names) => {
      expect(noteOfName(noteName(note, names), names)).toBe(note);
      expect(noteOfName(String(note), names)).toBe(note);
    }),
  );
});

test('flats, small letters and plain signs are read; what is no note is none', () => {
  expect(noteOfName('bb3', 'c4')).toBe(58);
  expect(noteOfName(' Db2 ', 'c3')).toBe(49);
  expect(noteOfName('B-1', 'c4')).toBe(11);
  for (const text of ['H2', 'C', '', '4C', 'C4 major']) expect(noteOfName(text, 'c4')).toBeNaN();
});
