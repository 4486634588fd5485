import fc from 'fast-check';
import { fileName } from './text';

test('any names at all become a file’s name that every system takes', () => {
  fc.assert(
    fc.property(fc.array(fc.string({ unit: 'binary', maxLength: 400 }), { maxLength: 3 }), (names) => {
      const name = fileName(...names);
      expect(name).toMatch(/^[\p{L}\p{M}\p{N}_][\p{L}\p{M}\p{N}_.-]*$/u);
      expect(name).not.toMatch(/[-.]$/);
      expect(new TextEncoder().encode(name).length).toBeLessThanOrEqual(205);
    }),
  );
});

test.each([
  ['CON', 'beat-CON'],
  ['nul.mid', 'beat-nul.mid'],
  ['com1', 'beat-com1'],
  ['.hidden', 'hidden'],
  ['..', 'beat'],
  ['a\u202Egnp.exe', 'a-gnp.exe'],
  ['Rain / tarps', 'Rain-tarps'],
  ['console', 'console'],
])('%s becomes %s', (name, wanted) => expect(fileName(name)).toBe(wanted));
