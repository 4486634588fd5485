/** What the end-to-end tests share: the app as a person with a screen reader would name it. */
import { readFile } from 'node:fs/promises';
import { expect, type Download, type Locator, type Page } from '@playwright/test';

export const step = (page: Page, lane: string, number: number): Locator =>
  page.getByRole('checkbox', { name: `${lane}, step ${number}`, exact: true });

export const button = (page: Page, name: string): Locator => page.getByRole('button', { name, exact: true });

/** What tells which pattern is shown, and opens the list of them. */
export const patternShown = (page: Page): Locator => page.getByRole('button', { name: /, pattern shown$/ });

/** Opens the app and waits until its beat is there, to the last bar. */
export const openApp = async (page: Page): Promise<void> => {
  await page.goto('/');
  await expect(step(page, 'Kick', 1)).toBeVisible();
  await expect(step(page, 'Kick', 32)).toBeAttached();
};

/** The app is saved within a second of an edit. */
export const saved = (page: Page): Promise<void> => page.waitForTimeout(1000);

export const setField = async (page: Page, name: string, value: string): Promise<void> => {
  const field = page.getByLabel(name, { exact: true });
  await field.fill(value);
  await field.press('Enter');
};

/** A slider is set to an exact value by a double tap and typing. */
export const setSlider = async (page: Page, name: string, value: string): Promise<void> => {
  await page.getByRole('slider', { name, exact: true }).dblclick();
  const field = page.getByRole('textbox', { name, exact: true });
  await field.fill(value);
  await field.press('Enter');
};

export const downloaded = async (page: Page, begin: () => Promise<void>): Promise<Download> => {
  const [download] = await Promise.all([page.waitForEvent('download'), begin()]);
  return download;
};

export const bytesOf = async (download: Download): Promise<Uint8Array> =>
  new Uint8Array(await readFile(await download.path()));

/** Where the middle of a lane's bead on a step is painted, in points from the window's left: read off the picture. */
export const beadX = async (page: Page, lane: string, number: number): Promise<number> => {
  const place = (await step(page, lane, number).boundingBox())!;
  return page.evaluate(({ x, y, width, height }) => {
    const leaf = [...document.querySelectorAll('canvas')].find((canvas) => {
      const box = canvas.getBoundingClientRect();
      return box.left <= x + width / 2 && box.right > x + width / 2;
    })!;
    const box = leaf.getBoundingClientRect();
    const ratio = leaf.width / box.width;
    // A bead is wider than its step on a phone.
    const from = x - 10;
    const row = leaf
      .getContext('2d')!
      .getImageData(
        (from - box.left) * ratio,
        (y + height / 2 - 2 - box.top) * ratio,
        (width + 20) * ratio,
        1,
      ).data;
    // Rules and pips are opaque too, but narrower: the bead has the colour seen most.
    const places = new Map<string, number[]>();
    for (let at = 0; at < row.length; at += 4) {
      if (row[at + 3] !== 255) continue;
      const colour = row.slice(at, at + 3).join();
      places.set(colour, [...(places.get(colour) ?? []), at / 4 + 0.5]);
    }
    const bead = [...places.values()].reduce((most, one) => (one.length > most.length ? one : most), []);
    const sum = bead.reduce((all, one) => all + one, 0);
    const count = bead.length;
    if (count < 3) throw new Error('No bead is painted there.');
    return from + sum / count / ratio;
  }, place);
};
