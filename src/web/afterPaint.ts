/** At the latest after so many ms, where no frame comes: the page is behind another one, say. */
const LATEST_MS = 30;

/** While a page starts, frames come late; what is done in its first seconds waits for none. */
const STARTING_MS = 8000;

/** Does something once the frame is painted that shows what was just changed; what takes the page's time waits for it. */
export const afterPaint = (work: () => void): void => {
  if (performance.now() < STARTING_MS) return work();
  let done = false;
  const once = () => {
    if (done) return;
    done = true;
    clearTimeout(latest);
    work();
  };
  const latest = setTimeout(once, LATEST_MS);
  requestAnimationFrame(() => {
    const painted = new MessageChannel();
    painted.port1.onmessage = once;
    painted.port2.postMessage(0);
  });
};
