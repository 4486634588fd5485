/** How long screens take to come, and whether they leave anything behind. */
import type { Browser, Page } from '@playwright/test';
import { browse } from '../scripts/browse';
import { median, report } from './report';

const PORT = 4796;
const ADDRESS = `http://127.0.0.1:${PORT}`;
const SLOWED = 4;
/** Seconds after a start: before other screens are made ready, and when they are. */
const [SOON, LATER] = [2.5, 10];
const SCREENS = ['Grooves', 'Feel', 'Song', 'Export', 'Pattern'] as const;
const HEADS: Record<string, string> = { Pattern: 'Lantern Walk' };

const opened = async (browser: Browser, seconds = SOON) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  // The compiler of these scripts names functions by a helper that the page does not have.
  await context.addInitScript('globalThis.__name = (named) => named');
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await page.goto(ADDRESS);
  await page.locator('#step-0-15').waitFor({ state: 'attached' });
  await page.waitForTimeout(seconds * 1000);
  return { context, page, session };
};

/** From the press on a tab to the frame in which its screen stands, in ms. */
const show = (page: Page, screen: string): Promise<number> =>
  page.getByRole('link', { name: screen, exact: true }).evaluate(
    (link: HTMLElement, head) =>
      new Promise<number>((resolve, reject) => {
        const from = performance.now();
        const look = () => {
          const heads = [...document.querySelectorAll('h1')].filter((one) => one.getClientRects().length);
          if (performance.now() - from > 20000) return reject(new Error(`“${head}” does not come`));
          if (heads[0]?.textContent !== head) return void requestAnimationFrame(look);
          requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - from)));
        };
        link.click();
        look();
      }),
    HEADS[screen] ?? screen,
  );

const coming = async (browser: Browser, seconds: number): Promise<void> => {
  const { context, page, session } = await opened(browser, seconds);
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });
  const first: number[] = [];
  const again: number[] = [];
  const by: Record<string, number[]> = {};
  for (let round = 0; round < 4; round++)
    for (const screen of SCREENS) {
      const took = await show(page, screen);
      (round ? again : first).push(took);
      if (round) (by[screen] ??= []).push(took);
      await page.waitForTimeout(400);
    }
  await context.close();
  const [slowest, usual] = [Math.max(...first), median(again)];
  report(
    `opening a screen the first time, ${seconds} s after the start, the slowest of five`,
    `${slowest.toFixed(0)} ms (${SCREENS.map((screen, at) => `${screen} ${first[at]!.toFixed(0)}`).join(', ')})`,
    'under 400 ms',
    slowest < 400,
  );
  report(
    'opening a screen again',
    `median ${usual.toFixed(0)} ms, slowest ${Math.max(...again).toFixed(0)} ms (${SCREENS.map((screen) => `${screen} ${median(by[screen]!).toFixed(0)}`).join(', ')})`,
    'under 150 ms',
    usual < 150,
  );
};

const TIMES = 300;
/** After so many nothing more is made for the first time. */
const WARM = 50;

const leaving = async (browser: Browser): Promise<void> => {
  const { context, page, session } = await opened(browser);
  await session.send('Performance.enable');
  const count = async () => {
    await session.send('HeapProfiler.collectGarbage');
    const { metrics } = await session.send('Performance.getMetrics');
    const of = (name: string) => metrics.find((one) => one.name === name)?.value ?? 0;
    const canvases = await page.evaluate(() => document.querySelectorAll('canvas').length);
    return {
      nodes: of('Nodes'),
      listeners: of('JSEventListeners'),
      canvases,
      heap: of('JSHeapUsedSize') / 2 ** 20,
    };
  };
  let before = await count();
  for (let at = 0; at < TIMES; at++) {
    if (at === WARM) before = await count();
    await show(page, SCREENS[at % SCREENS.length]!);
  }
  const after = await count();
  await context.close();
  const grown = after.nodes - before.nodes;
  report(
    `screens opened and closed ${TIMES} times: nodes, listeners, canvases`,
    `nodes ${before.nodes} to ${after.nodes}, listeners ${before.listeners} to ${after.listeners}, canvases ${before.canvases} to ${after.canvases}, heap ${before.heap.toFixed(1)} to ${after.heap.toFixed(1)} MiB`,
    'no growth after the first fifty',
    grown < before.nodes * 0.02 &&
      after.listeners <= before.listeners * 1.02 &&
      after.canvases <= before.canvases,
  );
};

void browse(PORT, async (browser) => {
  for (const seconds of [SOON, LATER]) await coming(browser, seconds);
  await leaving(browser);
});
