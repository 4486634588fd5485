/** At the latest after so many ms, where no frame comes: the page is behind another one, say. */
const LATEST_MS = 100;

/**
 * Does something once the page has painted what was asked of it so far, and has answered what was pressed.
 *
 * @param latestMs when it is done though no frame comes
 */
export const framed = (work: () => void, latestMs = LATEST_MS): void => {
  let done = false;
  const once = () => {
    if (done) return;
    done = true;
    clearTimeout(latest);
    work();
  };
  const latest = setTimeout(once, latestMs);
  requestAnimationFrame(() => {
    const painted = new MessageChannel();
    painted.port1.onmessage = once;
    painted.port2.postMessage(0);
  });
};
