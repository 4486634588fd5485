/** A long time of random actions on a phone while it plays: nothing late, and nothing that piles up. */
import type { Browser, CDPSession, Page } from '@playwright/test';
import { browse } from '../scripts/browse';
import { wander } from '../scripts/wander';
import { report } from './report';

const PORT = 4796;
const MINUTES = Number(process.env['MINUTES'] ?? 6);
/** Actions between two looks, and the rest after each: about as fast as a hurried hand. */
const ACTIONS = 20;
/** What is made on the way up (code, screens, the history of edits) is there by then. */
const LEVEL_FROM = 5;
const TOURS = Number(process.env['TOURS'] ?? 60);

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

const opened = async (browser: Browser): Promise<{ page: Page; session: CDPSession }> => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  await page.addInitScript(COUNT_CONTEXTS);
  await page.goto(`http://127.0.0.1:${PORT}`);
  await page.locator('[data-step]').first().waitFor();
  const session = await context.newCDPSession(page);
  await session.send('Performance.enable');
  await plays(page);
  return { page, session };
};

/** Level: the least of the later half against that of the earlier one. */
const level = (what: string, looks: Look[]): void => {
  const half = Math.floor(looks.length / 2);
  for (const of of ['nodes', 'listeners', 'heap', 'workers', 'contexts'] as const) {
    const [before, after] = [least(looks.slice(0, half), of), least(looks.slice(half), of)];
    report(
      `${what}: ${of}, least in the first and the second half`,
      `${before.toFixed(1)}, ${after.toFixed(1)}`,
      'level (5 % more at most)',
      looks.length >= 4 && after <= before * 1.05,
    );
  }
};

/** The same round through all screens again and again, each edit undone: what grows then is held by nobody. */
const tour = async (browser: Browser): Promise<void> => {
  const { page, session } = await opened(browser);
  const link = (name: string) =>
    page.getByRole('link', { name, exact: true }).filter({ visible: true }).first().click();
  const looks: Look[] = [];
  for (let round = 0; round < TOURS; round++) {
    for (const name of ['Grooves', 'Feel', 'Song', 'Export']) {
      await link(name);
      await page.waitForTimeout(250);
      if (name === 'Feel') {
        await page.getByLabel('Swing', { exact: true }).filter({ visible: true }).first().fill('61');
        await page.keyboard.press('Enter');
        await page.keyboard.press('Tab');
        await page.keyboard.press('Control+z');
      }
    }
    await link('Pattern');
    for (let step = 0; step < 6; step++)
      await page.locator(`#step-${step % 3}-${step * 2}`).evaluate((cell: HTMLElement) => cell.click());
    for (let step = 0; step < 6; step++) await page.keyboard.press('Control+z');
    await page.getByRole('button', { name: 'Beats', exact: true }).filter({ visible: true }).first().click();
    await page.waitForTimeout(250);
    await page.keyboard.press('Escape');
    await link('Pattern');
    // Stopped and begun again.
    await page.keyboard.press('Space');
    await page.waitForTimeout(200);
    await page.keyboard.press('Space');
    await page.waitForTimeout(400);
    if (round >= TOURS / 3) looks.push(await look(page, session, round));
  }
  const { late } = await lateOf(page);
  level(`${TOURS} rounds through all screens while it plays`, looks);
  report('the same: late', String(late), '0', late === 0);
  await page.context().close();
};

const main = () =>
  browse(PORT, async (browser) => {
    await tour(browser);
    const { page, session } = await opened(browser);
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
    // It makes beats, lanes, hits and a history as a person would, and those are kept: told, and no measure of what is lost.
    if (!looks.length) return;
    const [first, last] = [looks.find(({ minute }) => minute >= LEVEL_FROM) ?? looks[0]!, looks.at(-1)!];
    const grew = (of: keyof Look) => `${of} ${first[of].toFixed(0)} to ${last[of].toFixed(0)}`;
    report(
      `the same: from minute ${first.minute} to ${last.minute}, with all that was made meanwhile`,
      (['nodes', 'listeners', 'heap', 'workers'] as const).map(grew).join(', '),
      'one audio context',
      last.contexts === 1,
    );
  });

void main();
