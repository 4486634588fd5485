import fc from 'fast-check';
import { passed, type Passed } from './line';

test('a slanting line leaves every bead at the height of the finger over it, however seldom the finger is told', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 300 }), { minLength: 1, maxLength: 40 }),
      fc.double({ min: -2, max: 2, noNaN: true }),
      (stops, slope) => {
        // Beads stand every 20 points; the finger goes from the first to the right, and is told at some places only.
        const xs = [10, ...new Set([...stops.sort((a, b) => a - b).filter((x) => x > 10), 310])];
        const heights = new Map<number, number>();
        const stepOf = (x: number) => Math.floor(x / 20);
        let last: Passed | null = null;
        xs.slice(1).forEach((x, at) => {
          const from = { x: xs[at]!, y: slope * xs[at]! };
          const first = last?.step ?? stepOf(from.x);
          const steps = Array.from({ length: stepOf(x) - first + 1 }, (_, one) => ({
            step: first + one,
            x: (first + one) * 20 + 10,
          }));
          for (const one of passed(steps, from, { x, y: slope * x }, last)) {
            heights.set(one.step, one.y);
            last = one;
          }
        });
        for (let step = 0; step < 15; step++)
          expect(Math.abs(heights.get(step)! - slope * (step * 20 + 10))).toBeLessThan(
            Math.abs(slope) + 1e-6,
          );
      },
    ),
  );
});

test('a finger that goes up and down over one bead draws it', () => {
  const [first] = passed([{ step: 3, x: 70 }], { x: 74, y: 10 }, { x: 74, y: 30 }, null);
  expect(first).toEqual({ step: 3, y: 30, away: 4 });
  expect(passed([{ step: 3, x: 70 }], { x: 74, y: 30 }, { x: 74, y: 50 }, first!)[0]!.y).toBe(50);
  expect(passed([{ step: 3, x: 70 }], { x: 74, y: 50 }, { x: 79, y: 90 }, first!)[0]!.y).toBe(50);
});
