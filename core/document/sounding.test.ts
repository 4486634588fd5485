import fc from 'fast-check';
import { beats } from '../arbitraries';
import { DEMO_BEATS } from '../../demo/beats';
import { allNotes, notesIn } from '../play/driver';
import { planLive, planSong } from '../play/timelinePlan';
import type { Beat } from './schema';
import { soundingPattern, soundingSong } from './sounding';

const withTakes = (beat: Beat, many: number): Beat => ({
  ...beat,
  patterns: beat.patterns.map((pattern) => ({
    ...pattern,
    takes: Array.from({ length: many }, (_, at) => ({
      id: `t${at}`,
      name: `Take ${at}`,
      how: 'rolled',
      seed: at,
      kept: false,
      parts: pattern.parts,
    })),
  })),
});

test('what is handed to the player sounds as the whole beat does, pattern and song', () => {
  fc.assert(
    fc.property(beats, (beat) => {
      const part = soundingPattern(beat, beat.patterns[0]!);
      expect(notesIn(planLive(part, part.patterns[0]!), 0, 8000)).toEqual(
        notesIn(planLive(beat, beat.patterns[0]!), 0, 8000),
      );
    }),
  );
  for (const beat of DEMO_BEATS)
    expect(allNotes(planSong(soundingSong(beat, beat.patterns[0]!)), 'hold')).toEqual(
      allNotes(planSong(beat), 'hold'),
    );
});

test('it is as large in a beat with 200 takes as in one without', () => {
  const [beat] = DEMO_BEATS;
  const size = (of: Beat) => JSON.stringify(soundingPattern(of, of.patterns[0]!)).length;
  expect(size(withTakes(beat!, 200))).toBe(size({ ...beat!, patterns: withTakes(beat!, 0).patterns }));
  const song = (of: Beat) => JSON.stringify(soundingSong(of, of.patterns[0]!)).length;
  expect(song(withTakes(beat!, 200))).toBe(song(withTakes(beat!, 0)));
});
