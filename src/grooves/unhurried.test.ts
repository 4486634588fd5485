import { unhurried } from './unhurried';

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
