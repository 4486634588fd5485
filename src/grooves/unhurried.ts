/** A long work lets the page do its own after so many milliseconds. */
const SLICE_MS = 8;

/** Lets the page do what waits. */
export const breath = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

/**
 * Does a long work step by step, and lets the page do its own in between.
 *
 * @param isStale whether it is no longer wanted, asked after each pause
 * @returns what came of it; null where it was no longer wanted
 */
export const unhurried = async <T>(
  work: Generator<void, T, void>,
  isStale: () => boolean,
): Promise<T | null> => {
  let until = performance.now() + SLICE_MS;
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
    if (performance.now() < until) continue;
    await breath();
    if (isStale()) return null;
    until = performance.now() + SLICE_MS;
  }
};
