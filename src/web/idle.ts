/**
 * Does something when the page has nothing else to do, not before some time has passed.
 *
 * @param pause ms
 * @returns leaves it undone
 * @example useEffect(() => whenIdle(() => void fetchMore(), 1000), [])
 */
export const whenIdle = (work: () => void, pause: number): (() => void) => {
  let asked = 0;
  const timer = setTimeout(() => {
    // Not every browser tells when it is idle.
    if (typeof requestIdleCallback === 'function') asked = requestIdleCallback(work);
    else work();
  }, pause);
  return () => {
    clearTimeout(timer);
    if (asked) cancelIdleCallback(asked);
  };
};
