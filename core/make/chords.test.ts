import fc from 'fast-check';
import { chordNotes, chordRow, PLAIN_CHORD, scaleChord } from './chords';

test('a chord by its name, from a note upwards, turned, spread and doubled', () => {
  expect(chordNotes('Cm7', 60)).toEqual({ ok: true, value: [60, 63, 67, 70], beyond: 0 });
  expect(chordNotes('Cm7', 61)).toEqual({ ok: true, value: [72, 75, 79, 82], beyond: 0 });
  expect(chordNotes('F', 60, { ...PLAIN_CHORD, inversion: 1 })).toEqual({
    ok: true,
    value: [69, 72, 77],
    beyond: 0,
  });
  expect(chordNotes('C', 60, { ...PLAIN_CHORD, spread: 1 })).toEqual({
    ok: true,
    value: [60, 67, 76],
    beyond: 0,
  });
  expect(chordNotes('C', 60, { ...PLAIN_CHORD, doubled: true })).toEqual({
    ok: true,
    value: [48, 60, 64, 67],
    beyond: 0,
  });
});

test('by steps of a scale: on each step what the scale has', () => {
  const major = [0, 2, 4, 5, 7, 9, 11];
  expect(scaleChord(major, 0, [1, 3, 5], 60)).toEqual([60, 64, 67]);
  expect(scaleChord(major, 0, [2, 4, 6], 60)).toEqual([62, 65, 69]);
  expect(scaleChord(major, 0, [6, 8, 10], 60)).toEqual([69, 72, 76]);
  expect(
    scaleChord(
      [0, 2, 3, 5, 7, 8, 10].map((n) => (n + 9) % 12).sort((a, b) => a - b),
      9,
      [1, 3, 5],
      57,
    ),
  ).toEqual([57, 60, 64]);
});

test('what is no chord is told, a row keeps the one before where it is dashed', () => {
  expect(chordNotes('Hm', 60)).toMatchObject({ ok: false, error: expect.stringContaining('no chord “Hm”') });
  expect(chordRow('Cm7 - | F wet', 60).map(({ name, notes }) => [name, notes.ok])).toEqual([
    ['Cm7', true],
    ['Cm7', true],
    ['F', true],
    ['wet', false],
  ]);
});

test('notes are in order, none twice, all of MIDI', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('C', 'Dm', 'E7', 'Fmaj9', 'Gsus4', 'Adim', 'Bb13'),
      fc.integer({ min: 0, max: 127 }),
      fc.integer({ min: 0, max: 6 }),
      fc.integer({ min: 0, max: 2 }),
      fc.boolean(),
      (name, low, inversion, spread, doubled) => {
        const notes = chordNotes(name, low, { inversion, spread, doubled });
        if (!notes.ok) throw new Error(notes.error);
        expect([...new Set(notes.value)].sort((a, b) => a - b)).toEqual(notes.value);
        expect(notes.value.every((note) => note >= 0 && note <= 127)).toBe(true);
      },
    ),
  );
});
