import type { Browser, BrowserContext, Page } from '@playwright/test';

/** A page of the built app on a phone's screen, with the processor slowed four times. */

export const PORT = 4791;
export const ADDRESS = `http://127.0.0.1:${PORT}`;
const SLOWED = 4;
const SCREEN = { width: 390, height: 844 };

export const slowed = async (context: BrowserContext, page: Page, rate = SLOWED): Promise<void> => {
  const session = await context.newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate });
};

export const opened = async (browser: Browser): Promise<{ context: BrowserContext; page: Page }> => {
  const context = await browser.newContext({ viewport: SCREEN });
  // The compiler of these scripts names functions by a helper that the page does not have.
  await context.addInitScript('globalThis.__name = (named) => named');
  const page = await context.newPage();
  return { context, page };
};

const SCREENS = 5;

/**
 * Until the page has nothing more to do by itself: the app is kept in the browser for when there is no network, and the screens
 * are made ready that were not opened yet. It is so from some seconds after a first visit on, for as long as one works.
 */
export const settled = async (page: Page): Promise<void> => {
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.waitForFunction((count) => document.querySelectorAll('[data-screen]').length >= count, SCREENS);
  await page.waitForTimeout(1000);
};
