/** A long time of random actions on a phone while it plays: nothing late, and nothing that piles up. */
import type { CDPSession, Page } from '@playwright/test';
import { browse } from '../scripts/browse';
import { wander } from '../scripts/wander';
import { report } from './report';

const PORT = 4796;
const MINUTES = Number(process.env['MINUTES'] ?? 6);
/** Actions between two looks, and the rest after each: about as fast as a hurried hand. */
const ACTIONS = 20;
/** What is made on the way up (code, screens, the history of edits) is there by then. */
const LEVEL_FROM = 5;

/** In words: the compiler's helpers are not there in the page. */
const COUNT_CONTEXTS = `window.contexts = 0;
window.AudioContext = class extends window.AudioContext {
  constructor(...all) { super(...all); window.contexts += 1; }
  close() { window.contexts -= 1; return super.close(); }
};`;

interface Look {
  minute: number;
  nodes: number;
  listeners: number;
  heap: number;
  workers: number;
  contexts: number;
}

const look = async (page: Page, session: CDPSession, minute: number): Promise<Look> => {
  // Twice: what the first round frees may hold on to more.
  await session.send('HeapProfiler.collectGarbage');
  await page.waitForTimeout(300);
  await session.send('HeapProfiler.collectGarbage');
  const { metrics } = await session.send('Performance.getMetrics');
  const of = (name: string): number => metrics.find((one) => one.name === name)?.value ?? NaN;
  return {
    minute,
    nodes: of('Nodes'),
    listeners: of('JSEventListeners'),
    heap: of('JSHeapUsedSize') / 1e6,
    workers: page.workers().length,
    contexts: await page.evaluate(() => (window as unknown as { contexts: number }).contexts),
  };
};

const plays = async (page: Page): Promise<void> => {
  await page.keyboard.press('Escape');
  const play = page.getByRole('button', { name: 'Play', exact: true }).filter({ visible: true });
  if (await play.count())
    await play
      .first()
      .click({ timeout: 2000 })
      .catch(() => undefined);
};

const lateOf = (page: Page): Promise<{ late: number; worst: number; began: number }> =>
  page.evaluate(async () => {
    const { report: said } = await window.ruddik!.readLog();
    return { late: said.late, worst: said.worst, began: said.started.length };
  });

/** The least of a figure in a part of the time: what is open at the moment does not count. */
const least = (looks: Look[], of: keyof Look): number => Math.min(...looks.map((one) => one[of]));

const main = () =>
  browse(PORT, async (browser) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
    const page = await context.newPage();
    await page.addInitScript(COUNT_CONTEXTS);
    await page.goto(`http://127.0.0.1:${PORT}`);
    await page.locator('[data-step]').first().waitFor();
    const session = await context.newCDPSession(page);
    await session.send('Performance.enable');
    await plays(page);
    await page.evaluate(() => window.ruddik!.startLog());
    const looks: Look[] = [];
    const faults: string[] = [];
    const start = Date.now();
    const passed = () => (Date.now() - start) / 60_000;
    let [actions, began, late, seed] = [0, 0, 0, 1];
    while (passed() < MINUTES) {
      const out = await wander(page, seed++, ACTIONS, true);
      actions += out.actions;
      faults.push(...out.faults);
      await plays(page);
      await page.waitForTimeout(1000);
      if (passed() > looks.length + 1) {
        const now = await lateOf(page);
        began = now.began;
        if (now.late > late)
          console.log(`${now.late - late} late by up to ${now.worst} frames, minute ${looks.length + 1}`);
        late = now.late;
        const one = await look(page, session, looks.length + 1);
        looks.push(one);
        console.log(JSON.stringify({ ...one, began }));
      }
    }
    for (const one of faults) console.log(one);
    report(
      `${MINUTES} minutes of random play on a phone, ${actions} actions, ${began} notes: late`,
      String(late),
      '0',
      late === 0 && began > 0,
    );
    report('the same: what went wrong', String(faults.length), 'none', faults.length === 0);
    const level = looks.filter(({ minute }) => minute >= LEVEL_FROM);
    const half = Math.floor(level.length / 2);
    for (const of of ['nodes', 'listeners', 'heap', 'workers', 'contexts'] as const) {
      const [before, after] = [least(level.slice(0, half), of), least(level.slice(half), of)];
      report(
        `the same: ${of}, least in the first and second half from minute ${LEVEL_FROM} on`,
        `${before.toFixed(1)}, ${after.toFixed(1)}`,
        'level (10 % more at most)',
        after <= before * 1.1,
      );
    }
  });

void main();
