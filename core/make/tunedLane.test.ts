import fc from 'fast-check';
import { newLane } from '../document/defaults';
import { chordOf, degreeOf, notesOfLane, noteText, pitchBy, ROOTS, spelled } from './tunedLane';
import { scaleNames } from './scales';

const tuned = (root = 'C', scale = 'minor pentatonic', low = 48, high = 72) => ({
  note: 60,
  tuning: { root, scale, low, high },
});

test('a lane of an instrument that plays pitches begins with a scale, on a channel of its own', () => {
  expect(newLane('a', 'marimba')).toMatchObject({ note: 60, channel: 1, tuning: { low: 48, high: 72 } });
  expect(newLane('a', 'kick.tuned')).toMatchObject({ note: 36, channel: 1 });
  expect(newLane('a', 'kick')).toMatchObject({ channel: 10 });
  expect(newLane('a', 'kick').tuning).toBeUndefined();
});

test('a lane plays the notes of its scale within its range, every semitone where it has none', () => {
  expect(notesOfLane(tuned())).toEqual([48, 51, 53, 55, 58, 60, 63, 65, 67, 70, 72]);
  expect(notesOfLane(tuned('C', 'no such scale', 60, 62))).toEqual([60, 61, 62]);
  expect(notesOfLane(tuned('C', 'major', 61, 61))).toEqual([61]);
  expect(notesOfLane(tuned('C', 'major', 64, 60))).toEqual([60, 62, 64]);
  expect(notesOfLane({ note: 60 })).toEqual([]);
});

test('from note to note: each is the next of the scale, and the ends are the last', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...ROOTS),
      fc.constantFrom(...scaleNames()),
      fc.integer({ min: -40, max: 40 }),
      (root, scale, pitch) => {
        const lane = tuned(root, scale);
        const notes = notesOfLane(lane);
        const up = 60 + pitchBy(lane, pitch, 1);
        const down = 60 + pitchBy(lane, pitch, -1);
        expect(notes).toContain(up);
        expect(notes).toContain(down);
        const now = 60 + pitch;
        expect(up).toBe(notes.find((note) => note > now) ?? notes.at(-1));
        expect(down).toBe(notes.findLast((note) => note < now) ?? notes[0]);
        // There and back again, within the range.
        if (notes.includes(now) && now < notes.at(-1)!) expect(pitchBy(lane, up - 60, -1)).toBe(pitch);
      },
    ),
  );
});

test('notes and chords are called by their names', () => {
  expect(degreeOf(tuned('D', 'major'), 66)).toBe('3rd of D major');
  expect(degreeOf(tuned('D', 'major'), 62)).toBe('root of D major');
  expect(degreeOf(tuned('C', 'major'), 61)).toBeNull();
  expect(degreeOf(tuned('C', 'nothing'), 60)).toBeNull();
  expect(chordOf([48, 63, 67])).toBe('Cm');
  expect(chordOf([60, 64, 67, 72])).toBe('CM');
  expect(chordOf([60, 72])).toBeNull();
  expect(noteText(tuned('C', 'minor'), 63, 'c4')).toBe('E♭4, 3rd of C minor');
});

test('a note is spelled as its scale does, and the spelling sounds as the note', () => {
  expect(spelled(tuned('D', 'major'), 66)).toEqual({ step: 'F', alter: 1, octave: 4 });
  expect(spelled(tuned('C', 'minor'), 63)).toEqual({ step: 'E', alter: -1, octave: 4 });
  const letters: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
  fc.assert(
    fc.property(
      fc.constantFrom(...ROOTS),
      fc.constantFrom(...scaleNames()),
      fc.integer({ min: 0, max: 127 }),
      (root, scale, note) => {
        const { step, alter, octave } = spelled(tuned(root, scale), note);
        expect((octave + 1) * 12 + letters[step]! + alter).toBe(note);
      },
    ),
  );
});
