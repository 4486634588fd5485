/** Many tabs on one beat, one of them of an older build, samples cleared in the midst of it. */
import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import path from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { ready } from '../scripts/wander';
import type { Tried } from './report';
import { edited, opened, toneOf } from './steps';

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

/** The page gets an older build's files, wherever this one has them too. */
const withBuild = async (page: Page, folder: string): Promise<void> => {
  await page.route('**/*', (route) => {
    const { pathname } = new URL(route.request().url());
    const name = pathname === '/' ? 'index.html' : pathname;
    const file = [name, `${name}.html`].map((one) => path.join(folder, one)).find((one) => existsSync(one));
    return file ? route.fulfill({ path: file }) : route.fulfill({ status: 404, body: '' });
  });
};

const named = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).first();

/** Which samples the browser keeps; or others are put beside them. */
const samplesKept = (page: Page, put?: { name: string; bytes: number[] }): Promise<string[]> =>
  page.evaluate(
    (given) =>
      new Promise<string[]>((resolve, reject) => {
        const asked = indexedDB.open('ruddik.samples');
        asked.onerror = () => reject(asked.error!);
        asked.onsuccess = () => {
          const change = asked.result.transaction('bytes', 'readwrite');
          const table = change.objectStore('bytes');
          if (given) table.put(Uint8Array.from(given.bytes), given.name);
          const keys = table.getAllKeys();
          change.oncomplete = () => {
            asked.result.close();
            resolve(keys.result as string[]);
          };
          change.onerror = () => reject(change.error!);
        };
      }),
    put,
  );

/** A sample that only the undo of one tab can bring back, and one that nothing needs. @returns the names of both */
const withSamples = async (page: Page): Promise<{ needed: string[]; stray: string }> => {
  await named(page, 'Kits and drums').click();
  const field = page.getByLabel('Files for the kit', { exact: true });
  await field.setInputFiles({ name: 'kick.wav', mimeType: 'audio/wav', buffer: toneOf(1) });
  await page.waitForFunction(() => window.hands?.beat()?.includes('kick.wav'));
  await page.keyboard.press('Escape');
  const needed = await samplesKept(page);
  await edited(page, 'doc/beatEdited', { edit: { edit: 'setKit', args: { kit: 'quay', own: null } } });
  await page.waitForFunction(() => !window.hands?.beat()?.includes('kick.wav'));
  const bytes = [7, 7, 7];
  const stray = createHash('sha256').update(Uint8Array.from(bytes)).digest('hex');
  await samplesKept(page, { name: stray, bytes });
  return { needed, stray };
};

/** What nothing needs is cleared in a window of its own. */
const clearUnused = async (page: Page, address: string): Promise<void> => {
  await opened(page, address);
  await named(page, 'Beats').click();
  await named(page, 'What takes room').click();
  await page.getByRole('button', { name: /^Clear 1 unused sample/ }).click();
  await page.getByText(/^1 sample that nothing plays cleared/).waitFor();
};

/**
 * Tabs that edit one beat at once, while one more clears what nothing needs of the samples: nothing is lost, and all show the same.
 *
 * @param older the files of an older build: the last tab has them
 */
export const tabs = async (
  browser: Browser,
  address: string,
  count: number,
  edits: number,
  older?: string,
): Promise<Tried> => {
  const faults: string[] = [];
  // What a service worker keeps would be this build for all of them.
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  });
  const pages: Page[] = [];
  for (let at = 0; at < count; at++) {
    const page = await context.newPage();
    if (older && at === count - 1) await withBuild(page, older);
    await opened(page, address);
    pages.push(page);
  }
  const [first] = pages;
  await ready(first!);
  const { needed, stray } = await withSamples(first!);
  await first!.waitForTimeout(500);
  const wanted = await grid(first!);
  const ids = Object.keys(wanted);
  // Steps beyond the first page of the strings come a moment later.
  for (const page of pages)
    await page.waitForFunction(
      (many) => document.querySelectorAll('[id^="step-"]').length >= many,
      ids.length,
    );
  const each = Math.ceil(edits / count);
  const cleared = clearUnused(await context.newPage(), address).catch((fault: unknown) =>
    faults.push(`cleared: ${String(fault).split('\n')[0]}`),
  );
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
  await cleared;
  await first!.waitForTimeout(3000);
  for (const [at, page] of pages.entries()) {
    const shown = await grid(page);
    for (const id of ids) if (shown[id] !== wanted[id]) faults.push(`tab ${at}: ${id}`);
  }
  const kept = await samplesKept(first!);
  if (!needed.length || needed.some((name) => !kept.includes(name)))
    faults.push('a sample that an undo needs was cleared');
  if (kept.includes(stray)) faults.push('what nothing needs was not cleared');
  await context.close();
  const what = `${count} tabs at once${older ? ', one of an older build' : ''}, samples cleared`;
  return { what, tried: each * count, faults };
};
