import type { Page } from '@playwright/test';

declare global {
  interface Window {
    marks?: number[];
  }
}

/** A frame that comes more than half a frame late. */
const LATE_MS = 25;

/**
 * The share of frames, in percent, that came late while a box is scrolled for four seconds, to and fro.
 *
 * @param by points a frame, down and to the right
 */
export const lateScrolling = async (
  page: Page,
  box: string,
  by: { x: number; y: number },
): Promise<number> => {
  await page.evaluate(
    ([selector, x, y]) => {
      const element = document.querySelector(selector)!;
      window.marks = [];
      const end = performance.now() + 4000;
      let way = 1;
      const step = (now: number) => {
        window.marks!.push(now);
        const before = element.scrollLeft + element.scrollTop;
        element.scrollBy(way * x, way * y);
        if (element.scrollLeft + element.scrollTop === before) way = -way;
        if (now < end) requestAnimationFrame(step);
      };
      requestAnimationFrame(step);
    },
    [box, by.x, by.y] as const,
  );
  await page.waitForTimeout(4500);
  const frames = await page.evaluate(() => window.marks!);
  const late = frames.slice(1).filter((time, at) => time - frames[at]! > LATE_MS).length;
  return (100 * late) / (frames.length - 1);
};

/** Until a list that was scrolled has come to rest: what it still does would be counted to what comes next. */
export const atRest = (page: Page, list: string): Promise<unknown> =>
  page.waitForFunction(async (where) => {
    const box = document.querySelector(where)!;
    const before = box.scrollTop;
    await new Promise((resolve) => setTimeout(resolve, 500));
    return box.scrollTop === before;
  }, list);
