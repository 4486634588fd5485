import fc from 'fast-check';
import { builtInGrooves } from '../../core/groove/library';
import type { GrooveRow } from '../../core/groove/groove';
import { createFinder } from './finder';
import { unhurried } from './unhurried';

const ROWS: GrooveRow[] = builtInGrooves().slice(0, 60);

const filled = (rows: readonly GrooveRow[]) => {
  const finder = createFinder();
  for (const _ of finder.steps(rows));
  return finder;
};
const names = (rows: readonly GrooveRow[], mask: Uint8Array | null) =>
  rows.flatMap(({ name }, at) => (mask?.[at] ? [name] : []));

test('every row is found by its own name, whatever the order they were taken in', () => {
  fc.assert(
    fc.property(fc.shuffledSubarray(ROWS, { minLength: 1 }), (rows) => {
      const finder = filled(rows);
      for (const { name } of rows) expect(names(rows, finder.matching(rows, name))).toContain(name);
    }),
    { numRuns: 10 },
  );
});

test('a row under a new name is found by that alone; nothing is taken in twice', () => {
  const finder = filled(ROWS);
  expect([...finder.steps(ROWS)]).toHaveLength(0);
  const renamed = ROWS.map((row, at) => (at === 3 ? { ...row, name: 'Zephyrine 4711' } : row));
  expect([...finder.steps(renamed)]).toHaveLength(1);
  expect(names(renamed, finder.matching(renamed, 'zephyrine'))).toEqual(['Zephyrine 4711']);
  expect(names(renamed, finder.matching(renamed, '4711'))).toEqual(['Zephyrine 4711']);
  expect(names(renamed, finder.matching(renamed, '471'))).toEqual([]);
  expect(finder.matching(renamed, '  ')).toBeNull();
});

test('a row that was not taken in yet matches nothing', () => {
  const finder = filled(ROWS.slice(0, 5));
  expect([...finder.matching(ROWS, ROWS[9]!.name)!].slice(5).some(Boolean)).toBe(false);
});

test('a long work pauses, and is left where it is no longer wanted', async () => {
  function* slow(steps: number): Generator<void, string, void> {
    for (let step = 0; step < steps; step++) {
      const until = performance.now() + 3;
      while (performance.now() < until);
      yield;
    }
    return 'done';
  }
  let breaths = 0;
  const timer = setInterval(() => (breaths += 1));
  expect(await unhurried(slow(20), () => false)).toBe('done');
  clearInterval(timer);
  expect(breaths).toBeGreaterThan(0);
  expect(await unhurried(slow(20), () => true)).toBeNull();
});
