/** What a person waits for who opens the app: for the first time, and again. */
import type { Browser, Page } from '@playwright/test';
import { median, report } from './report';
import { ADDRESS, opened, slowed } from './slowed';

declare global {
  interface Window {
    seen: (x: number, y: number) => void;
    firstStep?: number;
    answered?: number;
  }
}

/** Brotli bytes of the JavaScript that a first visit asks for, workers included. */
export const bundle = async (browser: Browser): Promise<void> => {
  const { context, page } = await opened(browser);
  const asked: { pathname: string; size: number; at: number }[] = [];
  page.on('response', (response) => {
    const { pathname } = new URL(response.url());
    const size = Number(response.headers()['content-length'] ?? 0);
    if (pathname.endsWith('.js')) asked.push({ pathname, size, at: response.request().timing().startTime });
  });
  await page.addInitScript(() =>
    new MutationObserver((_, observer) => {
      if (!document.querySelector('[data-step]')) return;
      observer.disconnect();
      window.firstStep = performance.timeOrigin + performance.now();
    }).observe(document, { childList: true, subtree: true }),
  );
  await page.goto(ADDRESS);
  await page.locator('[data-step]').first().waitFor();
  await page.waitForTimeout(1000);
  // What is made ready while nobody does anything is no part of the first screen, however late this is looked at.
  const until = (await page.evaluate(() => window.firstStep!)) + 1000;
  await context.close();
  const bytes = new Map(asked.filter(({ at }) => at < until).map(({ pathname, size }) => [pathname, size]));
  const total = [...bytes.values()].reduce((sum, size) => sum + size, 0) / 1024;
  report(
    `JavaScript of the first screen (${bytes.size} files, Brotli)`,
    `${total.toFixed(0)} KiB`,
    'under 350 KiB',
    total > 0 && total < 350,
  );
};

/**
 * A first visit: what is painted when, and when a tap is answered that is made as soon as a step is seen. The step tapped
 * has to be there in the app afterwards.
 */
const coldOnce = async (browser: Browser): Promise<Visit> => {
  const { context, page } = await opened(browser);
  await slowed(context, page);
  const times = await visited(page);
  await context.close();
  return times;
};

interface Visit {
  paint: number;
  answered: number;
  whole: number;
}

/**
 * What a page does that is opened now: a step is tapped as soon as it is painted, by a touch from outside the page, and has to
 * be there in the app afterwards.
 *
 * @param lit whether it is a hit by then: a step that is tapped at the next visit is none any more
 */
const visited = async (page: Page, lit = true): Promise<Visit> => {
  const session = await page.context().newCDPSession(page);
  await page.exposeBinding('seen', async (_, x: number, y: number) => {
    // As a finger does: it does not wait for the page between its going down and up.
    await Promise.all(
      (['mousePressed', 'mouseReleased'] as const).map((type) =>
        session.send('Input.dispatchMouseEvent', { type, x, y, button: 'left', clickCount: 1 }),
      ),
    );
  });
  await page.addInitScript(() => {
    const painted = (done: () => void) => requestAnimationFrame(() => setTimeout(done));
    let isSeen = false;
    new MutationObserver((_, observer) => {
      const early = document.querySelector('[data-early="kick"][data-at="1"]');
      if (early && !isSeen) {
        isSeen = true;
        painted(() => {
          const { x, y, width, height } = early.getBoundingClientRect();
          window.seen(x + width / 2, y + height / 2);
        });
      }
      if (!document.querySelector('[data-step]')) return;
      observer.disconnect();
      painted(() => (window.firstStep = performance.now()));
    }).observe(document, { childList: true, subtree: true });
    addEventListener('click', () => painted(() => (window.answered ??= performance.now())));
  });
  await page.goto(ADDRESS, { waitUntil: 'commit' });
  await page.waitForFunction(() => window.firstStep !== undefined && window.answered !== undefined);
  await page.locator(`#step-0-1[aria-checked=${lit}]`).waitFor({ state: 'attached' });
  return page.evaluate(() => ({
    paint: performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN,
    answered: window.answered!,
    whole: window.firstStep!,
  }));
};

/** Who comes back: all is kept in the browser, and nothing is asked of the server. */
export const second = async (browser: Browser): Promise<void> => {
  const { context, page } = await opened(browser);
  await page.goto(ADDRESS);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.waitForTimeout(1500);
  await page.close();
  await context.setOffline(true);
  const times: Visit[] = [];
  for (let round = 0; round < 7; round++) {
    const next = await context.newPage();
    await slowed(context, next);
    times.push(await visited(next, round % 2 === 0));
    await next.close();
  }
  await context.close();
  const paint = median(times.map((one) => one.paint)) / 1000;
  const answered = median(times.map((one) => one.answered)) / 1000;
  const whole = median(times.map((one) => one.whole)) / 1000;
  report(
    'second visit without a server, a tap on the grid is answered',
    `${answered.toFixed(2)} s (painted after ${paint.toFixed(2)} s, all of the app stands after ${whole.toFixed(2)} s)`,
    'under 1.0 s',
    answered < 1,
  );
};

export const cold = async (browser: Browser): Promise<void> => {
  const times = [];
  for (let round = 0; round < 7; round++) times.push(await coldOnce(browser));
  const paint = median(times.map((one) => one.paint)) / 1000;
  const answered = median(times.map((one) => one.answered)) / 1000;
  const whole = median(times.map((one) => one.whole)) / 1000;
  report('cold start, first paint', `${paint.toFixed(2)} s`, 'under 0.7 s', paint < 0.7);
  report(
    'cold start, a tap on the grid is answered, and kept',
    `${answered.toFixed(2)} s (all of the app stands after ${whole.toFixed(2)} s)`,
    'under 1.6 s',
    answered < 1.6,
  );
};
