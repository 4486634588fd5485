/** The app without its server: opened again, worked with, and gone over to a newer one. */
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { expect, test, type Browser, type Page } from '@playwright/test';
import { createApp } from '../server/app';
import { writeServiceWorker } from '../scripts/serviceWorker.mjs';
import { writeBeat } from '../core/document/text';
import { DEMO_BEATS } from '../demo/beats';
import { button, openApp, saved, step } from './app';
import { tenMinutes, theRest } from './guide';
import { thumb } from './hand';

const DIST = path.resolve(__dirname, '..', 'dist');
test.setTimeout(180000);

const serve = async (folder: string) => {
  const server = createApp(folder).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const close = async () => {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  };
  return { url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, close };
};

const context = (browser: Browser, baseURL: string) =>
  browser.newContext({
    baseURL,
    serviceWorkers: 'allow',
    acceptDownloads: true,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
  });

/** Waits until all of the app is kept. */
const kept = (page: Page) => page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));

/** A page that was open once, and whose server is gone since. */
const withoutServer = async (browser: Browser) => {
  const server = await serve(DIST);
  const own = await context(browser, server.url);
  const page = await own.newPage();
  await openApp(page);
  await kept(page);
  await server.close();
  return { page, own };
};

test.describe('once it was open', () => {
  for (const [what, walk] of Object.entries({
    'the ten minutes of the guide': tenMinutes,
    'grooves, a song and the way out': theRest,
  }))
    test(`${what}, with the server stopped`, async ({ browser }) => {
      const { page, own } = await withoutServer(browser);
      await openApp(page);
      await walk(page, await thumb(page));
      await own.close();
    });

  test('every address of the app opens with the server stopped: with a query, with a slash at its end', async ({
    browser,
  }) => {
    const { page, own } = await withoutServer(browser);
    for (const [address, title] of [
      ['/stand-ins/grid?size=16', 'Grid stand-in 16'],
      ['/beats/', 'Beats'],
      ['/feel?from=market', 'Feel'],
      ['/export/?a=1&b=2', 'Export'],
    ] as const) {
      await page.goto(address);
      await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
    }
    await page.goto('/?tide=high');
    await expect(step(page, 'Kick', 1)).toBeVisible();
    // One that leads nowhere says so, with nothing else over it, and leads back.
    await page.goto('/no-such-pier');
    await expect(page.getByRole('heading', { name: 'This page does not exist.', level: 1 })).toBeVisible();
    await expect(page.locator('.early')).toHaveCount(0);
    await expect(button(page, 'Play')).toBeEnabled();
    await page.getByRole('link', { name: 'Go to the pattern', exact: true }).click();
    await expect(step(page, 'Kick', 1)).toBeVisible();
    await own.close();
  });

  test('what is kept wrong is mended: while it is needed, and by itself at the next start', async ({
    browser,
  }) => {
    const server = await serve(DIST);
    const own = await context(browser, server.url);
    const page = await own.newPage();
    await openApp(page);
    await kept(page);
    await openApp(page);
    /** Puts a page of words in the place of what is kept of files. @returns how many there were */
    const spoil = (pattern: string): Promise<number> =>
      page.evaluate(async (like) => {
        let many = 0;
        for (const name of await caches.keys()) {
          const store = await caches.open(name);
          for (const request of await store.keys()) {
            if (!new RegExp(like).test(request.url)) continue;
            await store.put(
              request,
              new Response('<p>Sign in</p>', { headers: { 'Content-Type': 'text/html' } }),
            );
            many += 1;
          }
        }
        return many;
      }, pattern);
    const wrong = (): Promise<string[]> =>
      page.evaluate(async () => {
        const found: string[] = [];
        for (const name of await caches.keys()) {
          const store = await caches.open(name);
          for (const request of await store.keys())
            if ((await (await store.match(request))?.clone().text())?.startsWith('<p>Sign in'))
              found.push(request.url);
        }
        return found;
      });
    // All that makes sound, and the screens that come later.
    expect(await spoil('(playerWorker|mixer|later|edits)-')).toBe(4);
    await page.goto('/');
    await expect(step(page, 'Kick', 32)).toBeAttached({ timeout: 20000 });
    await page.evaluate(() => window.ruddik!.startLog());
    await button(page, 'Play').click();
    await expect
      .poll(async () => (await page.evaluate(() => window.ruddik!.readLog())).report.started.length, {
        timeout: 15000,
      })
      .toBeGreaterThan(0);
    await page.getByRole('link', { name: 'Song', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Song', level: 1 })).toBeVisible();
    await expect.poll(wrong).toEqual([]);
    // What nothing asks for now is mended by the look at the next start; then all is there without the server.
    expect(await spoil('(bounceWorker|pictureWorker|index|start)[-.]')).toBeGreaterThan(2);
    await page.goto('/');
    await expect(step(page, 'Kick', 32)).toBeAttached({ timeout: 30000 });
    await expect.poll(wrong, { timeout: 15000 }).toEqual([]);
    await server.close();
    await openApp(page);
    await own.close();
  });

  test('what a form on a foreign page sends is shown and heard first, and kept only where it is wanted', async ({
    browser,
  }) => {
    const server = await serve(DIST);
    const own = await context(browser, server.url);
    const page = await own.newPage();
    await openApp(page);
    await kept(page);
    const foreign = createServer((_, response) => {
      response.setHeader('Content-Type', 'text/html');
      response.end(`<form method="post" enctype="multipart/form-data" action="${server.url}/share">
        <input type="file" name="files" multiple></form>`);
    }).listen(0, '127.0.0.1');
    await new Promise((resolve) => foreign.once('listening', resolve));
    const elsewhere = `http://127.0.0.1:${(foreign.address() as AddressInfo).port}/`;
    const beat = { ...DEMO_BEATS[0]!, id: 'sent', name: 'From a stranger' };
    const send = async () => {
      await page.goto(elsewhere);
      await page.locator('input').setInputFiles({
        name: 'stranger.ruddik.json',
        mimeType: 'application/json',
        buffer: Buffer.from(writeBeat(beat)),
      });
      await page.locator('form').evaluate((form: HTMLFormElement) => form.submit());
      await expect(page.getByRole('dialog', { name: 'Add this file?' })).toBeVisible({ timeout: 20000 });
    };
    await send();
    await expect(button(page, 'Hear From a stranger')).toBeVisible();
    await button(page, 'Hear From a stranger').click();
    await expect(button(page, 'Stop From a stranger')).toBeVisible();
    await expect(button(page, 'Open From a stranger')).toHaveCount(0);
    // Opened again it is still asked about; refused, it is gone.
    await page.reload();
    await expect(page.getByRole('dialog', { name: 'Add this file?' })).toBeVisible({ timeout: 20000 });
    await button(page, 'Don’t add').click();
    await page.reload();
    await expect(button(page, 'New beat')).toBeVisible();
    await page.waitForTimeout(1500);
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await expect(button(page, 'Open From a stranger')).toHaveCount(0);
    await send();
    await button(page, 'Add to your beats').click();
    await expect(page.getByRole('heading', { name: 'From a stranger' })).toBeVisible();
    await own.close();
    foreign.close();
    await server.close();
  });

  test('a newer app waits until it is asked for; nothing is lost, and no page mixes the two', async ({
    browser,
  }) => {
    const rounds = Number(process.env['ROUNDS'] ?? 2);
    test.setTimeout(60000 + rounds * 20000);
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'ruddik-build-'));
    fs.cpSync(DIST, folder, { recursive: true, filter: (file) => !/\.(br|gz)$/.test(file) });
    const server = await serve(folder);
    const own = await context(browser, server.url);
    const page = await own.newPage();
    await openApp(page);
    await kept(page);
    await openApp(page);
    const faults: string[] = [];
    page.on('pageerror', (fault) => faults.push(fault.message));
    for (let round = 1; round <= rounds; round++) {
      // Another window stays with what it has.
      const other = await own.newPage();
      await openApp(other);
      await publish(folder, round);
      const at = ((round - 1) % 16) + 1;
      const [clap, tom] = [step(page, 'Clap', at), step(page, 'Low tom', at)];
      const [clapWas, tomWas] = [await clap.isChecked(), await tom.isChecked()];
      await clap.tap();
      await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())!.update());
      await expect(button(page, 'Use it now')).toBeVisible({ timeout: 30000 });
      await tom.tap();
      await button(page, 'Use it now').click();
      await page.waitForFunction((name) => document.documentElement.dataset['build'] === name, String(round));
      await expect(clap).toBeChecked({ checked: !clapWas });
      await expect(tom).toBeChecked({ checked: !tomWas });
      await expect(other.getByText(/^Another window has updated Ruddik/)).toBeVisible();
      // What it fetches only now is still of its own build, though the server no longer has it.
      await other.getByRole('link', { name: 'Export' }).click();
      await expect(other.getByRole('heading', { name: 'Export', level: 1 })).toBeVisible();
      expect(await other.evaluate(() => document.documentElement.dataset['build'] ?? '0')).toBe(
        String(round - 1),
      );
      await saved(other);
      await other.close();
    }
    expect(faults).toEqual([]);
    await own.close();
    await server.close();
    fs.rmSync(folder, { recursive: true, force: true });
  });
});

/** Publishes the app anew under other names: those of the build before are gone from the server. */
const publish = async (folder: string, round: number): Promise<void> => {
  const files = (fs.readdirSync(folder, { recursive: true }) as string[])
    .map((name) => path.join(folder, name))
    .filter((file) => fs.statSync(file).isFile());
  // A name tells what is in its file: where the text is another one, so is the name.
  const hashes = files.flatMap((file) => /-([0-9a-f]{32})\.js$/.exec(file)?.[1] ?? []);
  const next = new Map(
    hashes.map((hash) => [hash, createHash('md5').update(`${hash} ${round}`).digest('hex')] as const),
  );
  const renamed = (text: string) => text.replace(/[0-9a-f]{32}/g, (hash) => next.get(hash) ?? hash);
  for (const file of files) {
    if (!/\.(js|html)$/.test(file) || /sw(-parts|-sums)?\.js$/.test(file)) continue;
    const text = renamed(fs.readFileSync(file, 'utf8'));
    fs.rmSync(file);
    fs.writeFileSync(
      path.join(path.dirname(file), renamed(path.basename(file))),
      text.replace(/<html( data-build="\d+")?/, `<html data-build="${round}"`),
    );
  }
  fs.rmSync(path.join(folder, 'sw.js'));
  await writeServiceWorker(folder);
};
