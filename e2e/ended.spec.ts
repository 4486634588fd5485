/**
 * Workers that end, pieces of code that do not come or come as something else, an audio clock that closes: work and sound go on
 * within a second, and nothing is lost.
 */
import { readdirSync } from 'node:fs';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { button, openApp, step } from './app';

const CODE = path.join(__dirname, '..', 'dist', '_expo', 'static', 'js', 'web');
const PIECES = readdirSync(CODE).filter((name) => name.endsWith('.js'));

declare global {
  interface Window {
    /** Ends the youngest worker whose address says this. @returns whether there was one */
    endWorker: (name: string) => boolean;
    /** The audio clocks that the page has made. */
    clocks: AudioContext[];
  }
}

/** The page's workers and audio clocks can be ended from outside. */
const withEnds = (page: Page): Promise<unknown> =>
  page.addInitScript(() => {
    const made: { name: string; worker: Worker }[] = [];
    // Some are begun by a text that only imports the worker's own file.
    const texts = new Map<string, string>();
    const textOf = new WeakMap<Blob, string>();
    const RealBlob = window.Blob;
    window.Blob = class extends RealBlob {
      constructor(parts: BlobPart[] = [], options?: BlobPropertyBag) {
        super(parts, options);
        if (typeof parts[0] === 'string') textOf.set(this, parts[0]);
      }
    };
    const create = URL.createObjectURL.bind(URL);
    URL.createObjectURL = (of) => {
      const address = create(of);
      if (of instanceof RealBlob) texts.set(address, textOf.get(of) ?? '');
      return address;
    };
    const Real = window.Worker;
    window.Worker = class extends Real {
      constructor(address: string | URL, options?: WorkerOptions) {
        super(address, options);
        made.push({ name: texts.get(String(address)) ?? String(address), worker: this });
      }
    };
    const Clock = window.AudioContext;
    window.clocks = [];
    window.AudioContext = class extends Clock {
      constructor(options?: AudioContextOptions) {
        super(options);
        window.clocks.push(this);
      }
    };
    window.endWorker = (name) => {
      const at = made.findLastIndex((one) => one.name.includes(name));
      if (at < 0) return false;
      made[at]!.worker.terminate();
      made.splice(at, 1);
      return true;
    };
  });

/** The first answer for each piece of code is another one; `more` counts those beyond the first. */
const spoilt = async (
  page: Page,
  how: 'refused' | 'no code',
  pieces = PIECES,
): Promise<Map<string, number>> => {
  const asked = new Map<string, number>();
  await page.route(/\/_expo\/static\/js\/web\//, async (route) => {
    const name = path.basename(new URL(route.request().url()).pathname);
    const times = (asked.get(name) ?? 0) + 1;
    asked.set(name, times);
    if (times > 1 || !pieces.includes(name)) return route.continue();
    if (how === 'refused') return route.abort();
    return route.fulfill({
      contentType: 'text/javascript',
      body: '<!doctype html><p>Sign in to the harbour.',
    });
  });
  return asked;
};

const log = (page: Page) => page.evaluate(() => window.ruddik!.readLog());
const startLog = (page: Page) => page.evaluate(() => window.ruddik!.startLog());
const play = (page: Page) => page.getByRole('button', { name: /^(Play|Stop)$/ }).click();

/** Notes begin, so many ms from now on at the latest. */
const sounds = async (page: Page, withinMs: number): Promise<void> => {
  const before = (await log(page)).report.started.length;
  await expect
    .poll(async () => (await log(page)).report.started.length, { timeout: withinMs, intervals: [50] })
    .toBeGreaterThan(before);
};

test('the player ends while it plays: every note still begins, each on its frame', async ({ page }) => {
  await withEnds(page);
  await openApp(page);
  await startLog(page);
  await play(page);
  await page.waitForTimeout(1500);
  for (let times = 0; times < 3; times++) {
    expect(await page.evaluate(() => window.endWorker('playerWorker'))).toBe(true);
    await page.waitForTimeout(700);
    // The one in its place answers.
    await log(page);
  }
  await page.waitForTimeout(1500);
  const { handed, report } = await log(page);
  const until = report.started.at(-1)!;
  const begun = new Set(report.started);
  const due = handed.filter(({ frame }) => frame >= report.started[0]! && frame < until - 4800);
  expect(due.length).toBeGreaterThan(20);
  // On a machine that does much besides one may come late by a breath; none is lost.
  const isHeard = (frame: number) => [...begun].some((at) => at >= frame && at < frame + 4800);
  expect(due.filter(({ frame }) => !isHeard(frame)).map(({ frame }) => frame)).toEqual([]);
  expect(report.worst).toBeLessThan(4800);
  // No hole either: what is heard is what the beat has, four to the quarter and more.
  const frames = [...new Set(report.started)].sort((a, b) => a - b);
  const gaps = frames.slice(1).map((frame, at) => frame - frames[at]!);
  expect(Math.max(...gaps)).toBeLessThan(48_000 * 0.75);
  await expect(button(page, 'Stop')).toBeVisible();
});

test('the audio clock closes while it plays: another one goes on within a second', async ({ page }) => {
  await withEnds(page);
  await openApp(page);
  await startLog(page);
  await play(page);
  await page.waitForTimeout(1200);
  await page.evaluate(() => void window.clocks.at(-1)!.close());
  await page.waitForTimeout(900);
  expect(await page.evaluate(() => window.clocks.length)).toBe(2);
  await sounds(page, 1000);
  await expect(button(page, 'Stop')).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('the mixer is refused once: the press of play that wanted it plays', async ({ page }) => {
  await page.addInitScript(() => {
    const add = AudioWorklet.prototype.addModule;
    let times = 0;
    AudioWorklet.prototype.addModule = function (...given) {
      times += 1;
      return times === 1 ? Promise.reject(new DOMException('refused', 'AbortError')) : add.apply(this, given);
    };
  });
  await openApp(page);
  await startLog(page);
  await play(page);
  await sounds(page, 2000);
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('a sound that cannot be had at all is told with a way on, and one press of it plays once it can', async ({
  page,
}) => {
  let barred = true;
  await page.route(/playerWorker/, (route) => (barred ? route.abort() : route.continue()));
  await openApp(page);
  await play(page);
  await expect(
    page.getByText('The part of Ruddik that plays could not be fetched', { exact: false }),
  ).toBeVisible();
  await expect(button(page, 'Play')).toBeVisible();
  barred = false;
  await button(page, 'Play again').click();
  await startLog(page);
  await sounds(page, 2000);
});

for (const how of ['refused', 'no code'] as const)
  test(`every piece of code, ${how} once: the app begins, plays, and each screen comes by itself`, async ({
    page,
  }) => {
    test.setTimeout(120_000);
    await withEnds(page);
    const asked = await spoilt(page, how);
    await page.goto('/');
    await expect(step(page, 'Kick', 32)).toBeAttached({ timeout: 20_000 });
    await step(page, 'Kick', 2).click();
    const on = await step(page, 'Kick', 2).getAttribute('aria-checked');
    await startLog(page);
    await play(page);
    await sounds(page, 3000);
    await play(page);
    for (const [link, seen] of [
      ['Feel', 'Feel'],
      ['Song', 'Song'],
      ['Grooves', 'Grooves'],
      ['Export', 'Export'],
    ] as const) {
      await page.getByRole('link', { name: link, exact: true }).click();
      await expect(page.getByRole('heading', { name: seen }).first()).toBeVisible();
    }
    await page.getByRole('link', { name: 'Pattern', exact: true }).click();
    await expect(step(page, 'Kick', 2)).toHaveAttribute('aria-checked', on!);
    await page.reload();
    await expect(step(page, 'Kick', 2)).toHaveAttribute('aria-checked', on!);
    // Each of them was wanted, and was asked for once more.
    await expect.poll(() => [...asked].filter(([, times]) => times < 2)).toEqual([]);
    for (const piece of ['start-', '__common-', 'later-', 'edits-', 'playerWorker-', 'pictureWorker-'])
      expect([piece, [...asked.keys()].some((name) => name.startsWith(piece))]).toEqual([piece, true]);
  });

test('an import whose worker ends in the midst of it reads every file', async ({ page }) => {
  await withEnds(page);
  await openApp(page);
  await page.getByRole('link', { name: 'Grooves', exact: true }).click();
  const files = path.join(__dirname, '..', 'demo', 'grooves');
  const names = readdirSync(files, { recursive: true })
    .map(String)
    .filter((name) => name.endsWith('.mid'));
  const all = names.map((name) => path.join(files, name));
  expect(all.length).toBeGreaterThan(4);
  const field = page.getByLabel('MIDI files', { exact: true });
  const ended = page.evaluate(
    () =>
      new Promise<boolean>((resolve) => {
        const look = () => (window.endWorker('importWorker') ? resolve(true) : void setTimeout(look, 1));
        look();
      }),
  );
  await field.setInputFiles(all);
  expect(await ended).toBe(true);
  await expect(page.getByText(new RegExp(`${all.length} (files|grooves)`)).first()).toBeVisible({
    timeout: 15_000,
  });
});
