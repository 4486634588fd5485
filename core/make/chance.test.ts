import fc from 'fast-check';
import { beats } from '../arbitraries';
import { readBeat } from '../document/file';
import { writeBeat } from '../document/text';
import { editPatterns } from '../edit/edits';

const seeds = fc.integer({ min: 0, max: 0xffffffff });
const keeps = fc.record({ count: fc.boolean(), places: fc.boolean(), velocities: fc.boolean() });

test('a take says what made it, and is made again by that and its seed', () => {
  fc.assert(
    fc.property(
      beats,
      seeds,
      keeps,
      fc.double({ min: 0, max: 1, noNaN: true }),
      (beat, seed, keep, share) => {
        const laneIds = ['kick', 'snare'];
        for (const edit of [
          { edit: 'randomize', args: { laneIds, seed, id: 't', keep } } as const,
          { edit: 'vary', args: { laneIds, seed, id: 't', share } } as const,
        ]) {
          const out = editPatterns(beat, ['a'], edit);
          const take = out.patterns[0]!.takes!.find(({ id }) => id === 't')!;
          expect(take.made!.maker).toBe(edit.edit);
          const { settings } = take.made!;
          const again = editPatterns(
            beat,
            ['a'],
            take.made!.maker === 'vary'
              ? {
                  edit: 'vary',
                  args: {
                    laneIds: take.lanes!,
                    seed: take.seed,
                    id: 'u',
                    share: settings['share'] as number,
                  },
                }
              : {
                  edit: 'randomize',
                  args: { laneIds: take.lanes!, seed: take.seed, id: 'u', keep: settings as typeof keep },
                },
          );
          expect(again.patterns[0]!.takes!.find(({ id }) => id === 'u')!.parts).toEqual(take.parts);
          // What was there before is a take too, and nobody made it.
          expect(out.patterns[0]!.takes![0]!.made).toBeUndefined();
          const read = readBeat(writeBeat(out));
          expect(read.ok && read.value.patterns[0]!.takes).toEqual(out.patterns[0]!.takes);
        }
      },
    ),
  );
});
