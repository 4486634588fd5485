import { allNotes } from '../../core/play/driver';
import { planPasses } from '../../core/play/timelinePlan';
import { newFeel } from '../../core/document/feelDefaults';
import fc from 'fast-check';
import { beats, feels } from '../../core/arbitraries';
import { newBeat, newHit, patternTicks } from '../../core/document/defaults';
import type { Beat, LanePattern } from '../../core/document/schema';
import { setStep } from '../../core/edit/hits';
import { countBar } from './count';
import { createDrawings, drawLane } from './drawing';

const withKick = (part: Partial<LanePattern>, percent = 50): Beat => {
  const beat = newBeat('b', 'B', 1);
  const kick: LanePattern = { grid: '1/16', steps: null, rate: '1', direction: 'forward', hits: [], ...part };
  return {
    ...beat,
    feel: newFeel({ percent, grid: '1/16' }),
    patterns: [{ ...beat.patterns[0]!, parts: { kick } }],
  };
};
const draw = (beat: Beat, glass = 1) => drawLane(beat, beat.patterns[0]!, beat.lanes[0]!, glass);

test('without the glass, every bead stands at the tick that is exported', () => {
  fc.assert(
    fc.property(beats, (beat) => {
      const pattern = beat.patterns[0]!;
      const { cells, repeats } = draw(beat);
      const drawn = [...cells.flatMap((cell) => cell.beads), ...repeats].map((bead) => bead.x);
      // Added up in another order, a figure may differ in its last digits.
      const isDrawn = (tick: number) => drawn.some((x) => Math.abs(x - tick) < 1e-6);
      const heard = allNotes(planPasses(beat, pattern, 1), 'wrap').filter(
        (note) => note.lane === 0 && !note.moved,
      );
      expect(heard.filter((note) => !isDrawn(note.tick))).toEqual([]);
    }),
  );
});

test('cells bend with the swing and leave no gap', () => {
  const { cells } = draw(withKick({ hits: [newHit(1)] }, 60));
  expect(cells).toHaveLength(16);
  expect(cells[1]!.pip).toBeCloseTo(288);
  expect(cells[1]!.beads[0]).toMatchObject({ rule: 240, velocity: 96 });
  expect(cells[1]!.beads[0]!.x).toBeCloseTo(288);
  for (let at = 1; at < 16; at++) expect(cells[at]!.left).toBeCloseTo(cells[at - 1]!.right);
});

test('the glass widens what is left after the swing, to at most 0.45 of a step', () => {
  const at = (nudge: number, glass: number) =>
    draw(withKick({ hits: [{ ...newHit(4), nudge }] }), glass).cells[4]!.beads[0]!.x - 960;
  expect(at(0.1, 1)).toBeCloseTo(24);
  expect(at(0.1, 2)).toBeCloseTo(48);
  expect(at(0.2, 4)).toBeCloseTo(108);
  expect(at(0.5, 1)).toBeCloseTo(120);
});

test('a short loop ends in a knot, and its repeats are drawn apart', () => {
  const { cells, repeats, knot } = draw(withKick({ steps: 12, hits: [newHit(0)] }));
  expect([cells.length, knot, repeats.map((bead) => bead.x)]).toEqual([12, 2880, [2880]]);
});

test('an edit keeps the objects of all that did not change', () => {
  const drawings = createDrawings();
  const before = withKick({ hits: [newHit(0), newHit(4)] });
  const after = { ...before, patterns: [setStep(before.patterns[0]!, 'kick', 8, true)] };
  const of = (beat: Beat, lane: number) => drawings(beat, beat.patterns[0]!, beat.lanes[lane]!, 2);
  const [kick, snare] = [of(before, 0), of(before, 1)];
  expect(of(before, 0)).toBe(kick);
  const changed = of(after, 0);
  expect(changed.cells.filter((cell, at) => cell !== kick.cells[at]).map(({ step }) => step)).toEqual([8]);
  expect(of(after, 1)).toBe(snare);
});

/** Figures that were added up in another order may differ in their last digits. */
const told = (drawn: unknown): unknown =>
  JSON.parse(
    JSON.stringify(drawn, (_, value: unknown) =>
      typeof value === 'number' ? Math.round(value * 1e6) / 1e6 + 0 : value,
    ),
  );

test('while a feel is turned what is in sight is as it is now, and all of it once that rests', () => {
  let [partly, turned] = [0, 0];
  fc.assert(
    fc.property(
      beats,
      fc.array(feels, { minLength: 1, maxLength: 4 }),
      fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true })),
      (beat, turns, [a, b]) => {
        const drawings = createDrawings();
        const length = patternTicks(beat.patterns[0]!);
        const sight = { from: Math.min(a, b) * length, to: Math.max(a, b) * length };
        const of = (one: Beat, part: typeof sight | null) =>
          drawings(one, one.patterns[0]!, one.lanes[0]!, 1, false, part);
        of(beat, null);
        let last = beat;
        for (const feel of turns) {
          last = { ...last, feel };
          const now = of(last, sight);
          const whole = draw(last);
          turned += 1;
          if (now.partly) partly += 1;
          whole.cells.forEach((cell, at) => {
            if (cell.right > sight.from && cell.left < sight.to)
              expect(told(now.cells[at])).toEqual(told(cell));
          });
        }
        const { cells, repeats, knot, partly: not } = of(last, null);
        const whole = draw(last);
        expect(told({ cells, repeats, knot, not })).toEqual(
          told({ cells: whole.cells, repeats: whole.repeats, knot: whole.knot }),
        );
        expect(of(last, sight)).toBe(of(last, null));
      },
    ),
    { numRuns: 60 },
  );
  // It has to have been tried.
  expect(partly).toBeGreaterThan(turned / 10);
});

test.each([
  [{ beats: 4, unit: 4 as const }, '1 e & a 2 e & a 3 e & a 4 e & a'],
  [{ beats: 7, unit: 8 as const }, '1 & 2 & 3 & 4 & 5 & 6 & 7 &'],
  [{ beats: 3, unit: 16 as const }, '1 2 3'],
  [{ beats: 12, unit: 8 as const }, '1  &  a  2  &  a  3  &  a  4  &  a '],
  [{ beats: 3, unit: 2 as const }, '1  e  &  a  2  e  &  a  3  e  &  a '],
])('a bar of %j is counted %s', (meter, words) => {
  expect(
    countBar(meter)
      .map(({ text }) => text)
      .join(' '),
  ).toBe(words);
});

test('in 6/8 the dotted quarters are the beats', () => {
  const strong = countBar({ beats: 6, unit: 8 }).filter((one) => one.strong);
  expect(strong.map(({ at }) => at)).toEqual([0, 1440]);
});
