/**
 * Does a work of many steps in one go.
 *
 * @example atOnce((function* () { yield; return 3; })()) // 3
 */
export const atOnce = <T>(work: Generator<void, T, void>): T => {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
};
