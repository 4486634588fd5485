import fc from 'fast-check';
import { patternTicks } from '../../document/defaults';
import { beatSchema } from '../../document/schema';
import { allNotes, notesIn } from '../driver';
import type { Note } from '../notes';
import { planLive, planPasses } from '../timelinePlan';
import { movedBeats } from './movedBeats.mock';

const told = (notes: Note[]) =>
  notes
    .map(
      ({ tick, note, velocity, lane, kind, stroke, length }) =>
        `${tick.toFixed(6)} ${lane} ${note} ${velocity} ${kind} ${stroke} ${length.toFixed(5)}`,
    )
    .sort();

test('any window agrees with the same part of the whole, with every move on', () => {
  fc.assert(
    fc.property(
      movedBeats,
      fc.double({ min: 0, max: 12000, noNaN: true }),
      fc.double({ min: 1, max: 3000, noNaN: true }),
      (beat, from, length) => {
        expect(beatSchema.safeParse(beat).success).toBe(true);
        const [pattern] = beat.patterns;
        const whole = notesIn(planLive(beat, pattern!), 0, 20000);
        const inside = whole.filter(({ tick }) => tick >= from && tick < from + length);
        expect(told(notesIn(planLive(beat, pattern!), from, from + length))).toEqual(told(inside));
      },
    ),
    { numRuns: Number(process.env['EXPLORE'] ?? 120) },
  );
});

test('a long window, which is played in pieces, is its short ones one after the other', () => {
  fc.assert(
    fc.property(movedBeats, fc.double({ min: 0, max: 2000, noNaN: true }), (beat, from) => {
      const plan = planLive(beat, beat.patterns[0]!);
      const bar = 3840;
      const long = notesIn(plan, from, from + 20 * bar);
      const short = [0, 10].flatMap((at) => notesIn(plan, from + at * bar, from + (at + 10) * bar));
      expect(told(long)).toEqual(told(short));
    }),
    { numRuns: 10 },
  );
});

test('a second pass of a file is what the second pass of the live pattern is', () => {
  fc.assert(
    fc.property(movedBeats, (beat) => {
      const [pattern] = beat.patterns;
      const length = patternTicks(pattern!);
      const starts = (notes: Note[]) =>
        notes
          .filter(({ tick }) => tick >= length && tick < 2 * length)
          .map(({ tick, note, velocity }) => `${tick.toFixed(4)} ${note} ${velocity}`)
          .sort();
      const file = allNotes(planPasses(beat, pattern!, 3), 'wrap').filter(({ moved }) => !moved);
      expect(starts(file)).toEqual(starts(notesIn(planLive(beat, pattern!), 0, 3 * length)));
    }),
    { numRuns: 60 },
  );
});
