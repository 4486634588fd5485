import fc from 'fast-check';
import { beats } from '../arbitraries';
import { beatSchema } from '../document/schema';
import { allNotes } from '../play/driver';
import { planPasses } from '../play/timelinePlan';
import { laneAlone } from './laneAlone';

test('a lane alone is a whole beat, and plays what it played, but for what other lanes set off', () => {
  fc.assert(
    fc.property(beats, fc.nat(), (beat, which) => {
      const lane = beat.lanes[which % beat.lanes.length]!;
      const alone = laneAlone(beat, lane.id, 'alone');
      expect(beatSchema.safeParse(alone).error).toBeUndefined();
      const heard = { ...beat, lanes: beat.lanes.map((one) => ({ ...one, mute: false, solo: false })) };
      const notes = (from: typeof beat, at: number) =>
        allNotes(planPasses(from, from.patterns[0]!, 1), 'wrap')
          .filter((note) => note.lane === at)
          .map(({ tick, velocity, note }) => [tick, velocity, note]);
      expect(notes(alone, 0)).toEqual(notes(heard, beat.lanes.indexOf(lane)));
    }),
    { numRuns: 60 },
  );
});
