/** What a browser does to a page: it is closed, reloaded, opened ten times, barred from its storage. */
import type { Browser, BrowserContext, Page } from '@playwright/test';
import { DEMO_BEATS } from '../demo/beats';
import type { Tried } from './report';
import { isOn, opened, press, STEP } from './steps';

/** Closed, reloaded or left within 250 ms of an edit: the edit is there afterwards. */
export const leaving = async (context: BrowserContext, address: string, times: number): Promise<Tried> => {
  const faults: string[] = [];
  let page = await context.newPage();
  await opened(page, address);
  for (let at = 0; at < times; at++) {
    const [lane, step] = [at % 3, (at * 5) % 16];
    const before = await isOn(page, lane, step);
    await press(page, lane, step);
    await page.waitForTimeout((at * 37) % 250);
    const way = (['close', 'reload', 'leave'] as const)[at % 3]!;
    if (way === 'close') {
      await page.close();
      page = await context.newPage();
      await opened(page, address);
    } else if (way === 'reload') {
      await page.reload();
      await page.locator(STEP).first().waitFor();
    } else {
      await page.goto('about:blank');
      await opened(page, address);
    }
    await page.locator('#step-0-15').waitFor({ state: 'attached' });
    if ((await isOn(page, lane, step)) === before) faults.push(`edit ${at} was gone after: ${way}`);
  }
  await page.close();
  return { what: 'closed, reloaded or left within 250 ms of an edit', tried: times, faults };
};

const DEMOS = DEMO_BEATS.map(({ name }) => name);

/** First visits that are cut short at some moment, a tap among them: all demo beats are there, the tap and the open beat too. */
export const firstVisits = async (
  browser: Browser,
  address: string,
  times: number,
  first = 0,
): Promise<Tried> => {
  const faults: string[] = [];
  for (let at = first; at < first + times; at++) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await page.goto(address);
    // Before the app stands, while it writes the demo beats, or after.
    const wait = (at * 97) % 2400;
    await page.waitForTimeout(wait / 2);
    const early = page.locator('.early [role=checkbox], [id^="step-0-"]').nth(3);
    const tapped = await early.click({ timeout: 3000, force: true }).then(
      () => true,
      () => false,
    );
    await page.waitForTimeout(wait / 2);
    await (at % 2 ? page.reload() : page.goto('about:blank'));
    const next = at % 2 ? page : await context.newPage();
    if (!(at % 2)) await page.close();
    await opened(next, address);
    await next.waitForTimeout(1500);
    const title = await next.getByRole('heading', { level: 1 }).first().textContent();
    if (!title?.includes(DEMOS[0]!)) faults.push(`visit ${at}, cut after ${wait} ms: “${title}” is open`);
    if (tapped && (await isOn(next, 0, 3)) === firstKickOn(3))
      faults.push(`visit ${at}, cut after ${wait} ms: the tap is gone`);
    await next.getByRole('button', { name: 'Beats', exact: true }).click();
    const open = next.getByRole('button', { name: /^Open (?!a file|what)/ });
    // The visit that was cut short is finished while one looks: on a busy machine it takes its time.
    await open
      .nth(DEMOS.length - 1)
      .waitFor({ timeout: 10_000 })
      .catch(() => undefined);
    const many = await open.count();
    if (many !== DEMOS.length) faults.push(`visit ${at}, cut after ${wait} ms: ${many} beats`);
    await context.close();
  }
  return { what: 'first visits cut short within 2.4 s, with a tap', tried: times, faults };
};

/** Whether the first demo beat's first lane has a hit on a step. */
const firstKickOn = (step: number): boolean => {
  const [beat] = DEMO_BEATS;
  return beat!.patterns[0]!.parts[beat!.lanes[0]!.id]?.hits.some((hit) => hit.step === step) ?? false;
};

/** As a browser does whose user bars all site data. In words: the compiler's helpers are not there in the page. */
const BARRED = `for (const name of ['localStorage', 'sessionStorage', 'indexedDB'])
  Object.defineProperty(window, name, {
    get() { throw new DOMException('The operation is insecure.', 'SecurityError'); },
  });`;

/** A storage that fails in the midst of it: the app goes on, says so, and keeps all once it can. */
export const failing = async (context: BrowserContext, address: string): Promise<Tried> => {
  const faults: string[] = [];
  const expect = async (what: string, work: () => Promise<boolean>) => {
    if (!(await work().catch(() => false))) faults.push(what);
  };
  const page = await context.newPage();
  await opened(page, address);
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const real = IDBDatabase.prototype.transaction;
        IDBDatabase.prototype.transaction = function (...all) {
          IDBDatabase.prototype.transaction = real;
          this.close();
          resolve();
          return real.apply(this, all);
        };
        document.querySelector<HTMLElement>('#step-1-2')!.click();
      }),
  );
  const on = await isOn(page, 1, 2);
  await page.waitForTimeout(600);
  await page.reload();
  await page.locator('#step-0-15').waitFor({ state: 'attached' });
  await expect('the database closed underneath', async () => (await isOn(page, 1, 2)) === on);
  await page.close();
  const barred = await context.newPage();
  await barred.addInitScript(BARRED);
  const errors: string[] = [];
  barred.on('pageerror', (error) => errors.push(error.message));
  await expect('site data barred: the app does not start', async () => {
    await opened(barred, address);
    await press(barred, 0, 1);
    return true;
  });
  await expect('site data barred: it is not said', async () => {
    await barred.getByText('The browser’s storage').first().waitFor({ timeout: 5000 });
    return true;
  });
  faults.push(...errors.map((error) => `site data barred: ${error}`));
  await barred.close();
  return { what: 'a storage that is closed underneath, or barred', tried: 3, faults };
};

const JUNK = ['', 'null', '{}', '[]', '7', '"x"', '{"metronome":null}', '{"kind":"ruddik.beat","version":1,'];

/** All entries of the app's store; or they are put in the place of those that are there. */
const entries = (page: Page, put?: Record<string, string>): Promise<Record<string, string>> =>
  page.evaluate(
    (given) =>
      new Promise<Record<string, string>>((resolve, reject) => {
        const asked = indexedDB.open('ruddik');
        asked.onerror = () => reject(asked.error!);
        asked.onsuccess = () => {
          const change = asked.result.transaction('entries', 'readwrite');
          const table = change.objectStore('entries');
          if (given) {
            table.clear();
            for (const [key, value] of Object.entries(given)) table.put(value, key);
          }
          const [keys, values] = [table.getAllKeys(), table.getAll()];
          change.oncomplete = () => {
            asked.result.close();
            const all = keys.result.map((key, at) => [key as string, String(values.result[at])]);
            resolve(Object.fromEntries(all) as Record<string, string>);
          };
          change.onerror = () => reject(change.error!);
        };
      }),
    put,
  );

/** Junk in each entry, of each kind, and in all at once: the app starts, plays what is whole, and what was junk lies aside. */
export const junk = async (context: BrowserContext, address: string, share: number): Promise<Tried> => {
  const faults: string[] = [];
  const page = await context.newPage();
  await opened(page, address);
  await press(page, 0, 3);
  await page.getByRole('button', { name: 'Metronome' }).click();
  for (const name of ['Grooves', 'Song', 'Export', 'Pattern'])
    await page.getByRole('link', { name, exact: true }).click();
  await page.waitForTimeout(1500);
  // The store is worked from a page that does not work it itself.
  await page.goto(`${address}favicon.ico`);
  const whole = await entries(page);
  const keys = Object.keys(whole);
  const cases = [
    ...keys.flatMap((key) =>
      JUNK.map((text) => ({ name: `${key}: ${text}`, put: { ...whole, [key]: text }, key, text })),
    ),
    ...JUNK.map((text) => ({
      name: `all: ${text}`,
      put: Object.fromEntries(keys.map((key) => [key, text])),
      key: 'beat/',
      text,
    })),
  ];
  const some = cases.filter((_, at) => Math.floor(at * share) !== Math.floor((at - 1) * share));
  for (const { name, put, key, text } of some) {
    await entries(page, put);
    const errors: string[] = [];
    const hear = (error: Error) => errors.push(error.message);
    page.on('pageerror', hear);
    try {
      await page.goto(address);
      await page.locator('#step-0-15').waitFor({ state: 'attached', timeout: 8000 });
      await press(page, 0, 4);
      await page.waitForTimeout(400);
    } catch {
      faults.push(`${name}: the app does not start`);
    }
    page.off('pageerror', hear);
    faults.push(...errors.map((error) => `${name}: ${error}`));
    await page.goto(`${address}favicon.ico`);
    const now = await entries(page);
    // What lay in a beat's place is still somewhere, under its own name or aside.
    if (
      /^beat\//.test(key) &&
      text &&
      !Object.values(now).some(
        (value) => value.includes(JSON.stringify(text).slice(1, -1)) || value.includes(text),
      )
    )
      faults.push(`${name}: what lay there is gone`);
  }
  await page.close();
  return { what: `junk in one entry of ${keys.length}, and in all`, tried: some.length, faults };
};
