import { notesIn } from '../play/driver';
import { planLive } from '../play/timelinePlan';
import { withLanePattern } from '../document/defaults';
import fc from 'fast-check';
import { newBeat, lanePatternOf } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import { editPatterns, type PatternEdit } from './edits';
import { presetPart } from './presets';

const beat = newBeat('b', 'B', 3);
const empty = beat.patterns[0]!;

describe('playing in', () => {
  test('what is played keeps its exact time, whatever the swing', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 3690, noNaN: true }),
        fc.double({ min: 40, max: 75, noNaN: true }),
        (tick, percent) => {
          const swung = { ...beat, feel: newFeel({ percent, grid: '1/16' }) };
          const edit: PatternEdit = {
            edit: 'recordHit',
            args: { laneId: 'kick', tick, velocity: 90, quantize: 0 },
          };
          const out = editPatterns(swung, ['a'], edit);
          const [note] = notesIn(planLive(out, out.patterns[0]!), 0, 3840);
          expect(note!.tick).toBeCloseTo(tick, 3);
        },
      ),
    );
  });

  test.each(['backward', 'thereAndBack', 'random', 'walk'] as const)(
    'a lane that is read %s takes it where it sounds, in later rounds too',
    (direction) => {
      const change = { direction, steps: 7 };
      const read = editPatterns(beat, ['a'], { edit: 'setPart', args: { laneIds: ['kick'], change } });
      fc.assert(
        fc.property(fc.double({ min: 0, max: 9000, noNaN: true }), (tick) => {
          const args = { laneId: 'kick', tick, velocity: 90, quantize: 0 };
          const out = editPatterns(read, ['a'], { edit: 'recordHit', args });
          const heard = notesIn(planLive(out, out.patterns[0]!), 0, 9600);
          expect(Math.min(...heard.map((note) => Math.abs(note.tick - tick)))).toBeLessThan(0.001);
        }),
      );
    },
  );

  test('and comes nearer to the grid by the strength asked for', () => {
    const at = (quantize: number) => {
      const args = { laneId: 'kick', tick: 300, velocity: 90, quantize };
      return lanePatternOf(editPatterns(beat, ['a'], { edit: 'recordHit', args }).patterns[0]!, 'kick')
        .hits[0];
    };
    expect(at(0)).toMatchObject({ step: 1, nudge: expect.closeTo(0.25) });
    expect(at(0.5)).toMatchObject({ step: 1, nudge: expect.closeTo(0.125) });
    expect(at(1)).toMatchObject({ step: 1, nudge: 0 });
  });

  test('what repeats on the grid stands on its steps, and the feel moves it as it moves all else', () => {
    const swung = { ...beat, feel: newFeel({ percent: 66, grid: '1/16' }) };
    const args = { laneId: 'kick', tick: 240, velocity: 90, quantize: 0, straight: true };
    const out = editPatterns(swung, ['a'], { edit: 'recordHit', args });
    expect(lanePatternOf(out.patterns[0]!, 'kick').hits).toMatchObject([{ step: 1, nudge: 0 }]);
    expect(notesIn(planLive(out, out.patterns[0]!), 0, 3840)[0]!.tick).toBeCloseTo(240 * 1.32, 3);
  });

  test('a held key erases only what passes by', () => {
    const rows = {
      ...beat,
      patterns: [withLanePattern(empty, 'kick', presetPart({ line: 'xxxxxxxxxxxxxxxx' }))],
    };
    const out = editPatterns(rows, ['a'], {
      edit: 'eraseBetween',
      args: { laneId: 'kick', from: 480, to: 960 },
    });
    expect(lanePatternOf(out.patterns[0]!, 'kick').hits.map(({ step }) => step)).toEqual([
      0, 1, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15,
    ]);
  });
});
