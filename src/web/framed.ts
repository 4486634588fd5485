/** At the latest after so many ms, where no frame comes: the page is behind another one, say. */
const LATEST_MS = 100;

/** Does something once the page has painted what was asked of it so far, and has answered what was pressed. */
export const framed = (work: () => void): void => {
  let done = false;
  const once = () => {
    if (done) return;
    done = true;
    clearTimeout(latest);
    work();
  };
  const latest = setTimeout(once, LATEST_MS);
  requestAnimationFrame(() => setTimeout(once));
};
