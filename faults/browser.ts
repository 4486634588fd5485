/** What a browser does to a page: it is closed, reloaded, killed, opened ten times, barred from its storage. */
import { execSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, type Browser, type BrowserContext, type Page } from '@playwright/test';
import { DEMO_BEATS } from '../demo/beats';
import { wavOf } from '../core/sound/wav';
import { ready } from '../scripts/wander';
import { CHROMIUM_FLAGS } from '../playwright.config';
import type { Tried } from './report';

const STEP = '[data-step]';

const opened = async (page: Page, address: string): Promise<void> => {
  await page.goto(address);
  await page.locator(STEP).first().waitFor();
  await page.locator('#step-0-15').waitFor({ state: 'attached' });
};

/** Whether the nth step of a lane is on, by what is heard of it. */
const isOn = (page: Page, lane: number, step: number): Promise<boolean> =>
  page.locator(`#step-${lane}-${step}`).evaluate((cell) => cell.getAttribute('aria-checked') === 'true');

const press = (page: Page, lane: number, step: number): Promise<void> =>
  page.locator(`#step-${lane}-${step}`).evaluate((cell: HTMLElement) => cell.click());

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

/** One thing that a person does, by its name. */
interface Done {
  what: string;
}

const tempo = (page: Page) => page.getByLabel('Tempo', { exact: true });

const swing = (page: Page) => page.getByLabel('Swing', { exact: true }).first();
const tune = (page: Page) => page.getByRole('slider', { name: 'Tune of Kick', exact: true });

/** An edit as the screens give it. */
const edited = async (page: Page, type: string, payload: object): Promise<void> => {
  await ready(page);
  await page.evaluate((action) => window.hands.dispatch(action), { type, payload });
};

interface Seen {
  patterns: { id: string; parts: Record<string, { hits: { step: number }[] }> }[];
  lanes: { id: string }[];
}

/** A document as text, whatever order its fields came in. */
const inOrder = (value: unknown): unknown => {
  if (Array.isArray(value)) return value.map(inOrder);
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));
  return Object.fromEntries(entries.map(([key, one]) => [key, inOrder(one)]));
};

const seen = async (page: Page): Promise<Seen & { text: string }> => {
  await ready(page);
  const beat = JSON.parse((await page.evaluate(() => window.hands.beat())) ?? 'null') as Seen;
  return { ...beat, text: JSON.stringify(inOrder(beat)) };
};

/** A second of a tone as a WAV file of 16 bits, another one for each number. */
const toneOf = (at: number): Buffer =>
  Buffer.from(
    wavOf([Float32Array.from({ length: 4800 }, (_, i) => 0.5 * Math.sin(i * (0.01 + at / 5000)))], 48000, 16),
  );

const KITS = ['quay', 'arches', 'attic', 'bottles'];

/** Edits of several kinds, by what a person touches or as the screens give them; `at` makes them differ from one another. */
const EDITS: ((page: Page, at: number) => Promise<Done>)[] = [
  async (page, at) => {
    await press(page, at % 3, (at * 5) % 16);
    return { what: 'a tap' };
  },
  async (page, at) => {
    await tempo(page).fill(String(70 + (at % 90)));
    await tempo(page).press('Enter');
    return { what: 'a tempo' };
  },
  async (page, at) => {
    await press(page, at % 3, (at * 7) % 16);
    await page.keyboard.press('Control+z');
    return { what: 'an undo' };
  },
  async (page, at) => {
    await swing(page).fill(String(52 + (at % 22)));
    await swing(page).press('Enter');
    return { what: 'a feel' };
  },
  async (page, at) => {
    // A drag that is still in the hand when the browser goes: as it was last seen.
    const box = (await tune(page).boundingBox())!;
    await page.mouse.move(box.x + box.width * 0.5, box.y + box.height / 2);
    await page.mouse.down();
    for (let step = 1; step <= 6; step++)
      await page.mouse.move(box.x + box.width * (0.5 + (step * ((at % 7) - 3)) / 60), box.y + box.height / 2);
    await page.waitForTimeout(60);
    return { what: 'a drag' };
  },
  async (page, at) => {
    const { patterns, lanes } = await seen(page);
    const lane = lanes.find(({ id }) => patterns[0]!.parts[id]?.hits.length)!;
    const spots = [{ laneId: lane.id, step: patterns[0]!.parts[lane.id]!.hits[0]!.step }];
    const roll = { curve: (at % 9) / 10, levels: [1, 0.7, 0.5] };
    const edit = { edit: 'setRolls', args: { spots, roll } };
    await edited(page, 'doc/patternsEdited', { patternIds: [patterns[0]!.id], edit });
    return { what: 'a roll' };
  },
  async (page, at) => {
    const { patterns } = await seen(page);
    const entries = [{ id: `e${at}`, patternId: patterns[0]!.id, times: 2 }];
    const section = { id: `s${at}`, name: `Quay ${at}`, pigment: 'weld', entries, silent: [] };
    const edit = { edit: 'addSection', args: { section, placeId: `p${at}`, at: null } };
    await edited(page, 'doc/beatEdited', { edit });
    return { what: 'a section of the song' };
  },
  async (page, at) => {
    await edited(page, 'doc/beatRenamed', { name: `Ferry ${at}` });
    return { what: 'a name' };
  },
  async (page, at) => {
    await edited(page, 'doc/kitSet', { kit: KITS[at % KITS.length] });
    return { what: 'a kit' };
  },
  async (page, at) => {
    const { patterns, lanes } = await seen(page);
    const keep = { count: false, places: false, velocities: false };
    const edit = { edit: 'randomize', args: { laneIds: [lanes[at % 3]!.id], seed: at, id: `t${at}`, keep } };
    await edited(page, 'doc/patternsEdited', { patternIds: [patterns[0]!.id], edit });
    return { what: 'a take' };
  },
  async (page, at) => {
    await page.getByRole('button', { name: 'Beats', exact: true }).click();
    const text = await seen(page);
    const { text: _, ...beat } = text;
    const file = { ...beat, id: `import-${at}`, name: `Brought ${at}` };
    await page.locator('input[aria-label="Beat file"]').setInputFiles({
      name: 'brought.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify(file)),
    });
    await page.getByText(`Brought ${at}`).first().waitFor();
    return { what: 'an import' };
  },
  async (page, at) => {
    await page.getByRole('button', { name: 'Kits and drums', exact: true }).click();
    const field = page.getByLabel('Files for the kit', { exact: true });
    await field.setInputFiles({ name: `kick ${at}.wav`, mimeType: 'audio/wav', buffer: toneOf(at) });
    await page
      .waitForFunction((name) => window.hands?.beat()?.includes(name), `kick ${at}.wav`)
      .catch(() => undefined);
    return { what: 'samples' };
  },
];

/**
 * The whole browser killed 0 to 1500 ms after an edit of any kind: the beat is as it was last seen, to the last letter; at most what
 * was done in the last 50 ms may be gone.
 */
export const killed = async (address: string, times: number, first = 0): Promise<Tried> => {
  const faults: string[] = [];
  const home = mkdtempSync(path.join(tmpdir(), 'faults-'));
  const start = () =>
    chromium.launchPersistentContext(home, {
      executablePath: '/usr/bin/chromium',
      args: CHROMIUM_FLAGS,
      viewport: { width: 1280, height: 800 },
    });
  let context = await start();
  let page = context.pages()[0] ?? (await context.newPage());
  await opened(page, address);
  let oldest = 0;
  for (let at = first; at < first + times; at++) {
    const { what } = await EDITS[at % EDITS.length]!(page, at);
    const { text: before } = await seen(page);
    const pause = (at * 131) % 1500;
    await page.waitForTimeout(pause);
    const { text: last } = await seen(page);
    try {
      execSync(`pkill -9 -f -- ${home}`);
    } catch {
      // It has ended.
    }
    await context.close().catch(() => undefined);
    context = await start();
    page = context.pages()[0] ?? (await context.newPage());
    await opened(page, address);
    const { text: after } = await seen(page);
    if (after === last || (pause <= 50 && after !== before && what !== 'a drag')) continue;
    oldest = Math.max(oldest, pause);
    if (pause > 50) faults.push(`${what} of ${pause} ms before the kill was gone`);
  }
  await context.close();
  return {
    what: `killed 0 to 1500 ms after an edit of ${EDITS.length} kinds (oldest gone: ${oldest} ms)`,
    tried: times,
    faults,
  };
};

const DEMOS = DEMO_BEATS.map(({ name }) => name);

/** First visits that are cut short at some moment, a tap among them: all demo beats are there, the tap and the open beat too. */
export const firstVisits = async (browser: Browser, address: string, times: number): Promise<Tried> => {
  const faults: string[] = [];
  for (let at = 0; at < times; at++) {
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
    await open.first().waitFor();
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

/** All steps that are there, by lane and step, and whether each is on. */
const grid = (page: Page): Promise<Record<string, boolean>> =>
  page.evaluate(() =>
    Object.fromEntries(
      [...document.querySelectorAll('[id^="step-"]')].map((cell) => [
        cell.id,
        cell.getAttribute('aria-checked') === 'true',
      ]),
    ),
  );

/** Tabs that edit one beat at once: nothing is lost, and all show the same. */
export const tabs = async (
  context: BrowserContext,
  address: string,
  count: number,
  edits: number,
): Promise<Tried> => {
  const faults: string[] = [];
  const pages: Page[] = [];
  for (let at = 0; at < count; at++) {
    const page = await context.newPage();
    await opened(page, address);
    pages.push(page);
  }
  await pages[0]!.waitForTimeout(500);
  const wanted = await grid(pages[0]!);
  const ids = Object.keys(wanted);
  // Steps beyond the first page of the strings come a moment later.
  for (const page of pages)
    await page.waitForFunction(
      (many) => document.querySelectorAll('[id^="step-"]').length >= many,
      ids.length,
    );
  const each = Math.ceil(edits / count);
  await Promise.all(
    pages.map(async (page, at) => {
      for (let n = 0; n < each; n++) {
        const id = ids[(at + n * count) % ids.length]!;
        wanted[id] = !wanted[id];
        await page.evaluate((cell) => document.getElementById(cell)!.click(), id);
        await page.waitForTimeout((at * 13) % 40);
      }
    }),
  );
  await pages[0]!.waitForTimeout(3000);
  for (const [at, page] of pages.entries()) {
    const shown = await grid(page);
    for (const id of ids) if (shown[id] !== wanted[id]) faults.push(`tab ${at}: ${id}`);
  }
  await context.close();
  return { what: `${count} tabs at once`, tried: each * count, faults };
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
