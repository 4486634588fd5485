import { framed } from './framed';

/** At the latest after so many ms, where no frame comes. */
const LATEST_MS = 30;

/** While a page starts, frames come late; what is done in its first seconds waits for none. */
const STARTING_MS = 8000;

/** Does something once the frame is painted that shows what was just changed; what takes the page's time waits for it. */
export const afterPaint = (work: () => void): void =>
  performance.now() < STARTING_MS ? work() : framed(work, LATEST_MS);
