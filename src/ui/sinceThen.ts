type Subscribe = (told: () => void) => () => void;

/**
 * A subscription that asks once more when it begins. A screen that is put away hears nothing; React takes its subscriptions
 * up again when it is shown, but does not look whether something changed meanwhile.
 *
 * @param before done each time, before it is asked
 * @example useSyncExternalStore(sinceThen(shelf.listen), shelf.now) // the function is made once, outside of the part
 */
export const sinceThen =
  (subscribe: Subscribe, before?: () => void): Subscribe =>
  (told) => {
    const stop = subscribe(told);
    before?.();
    told();
    return stop;
  };
