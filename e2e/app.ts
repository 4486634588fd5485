/** What the end-to-end tests share: the app as a person with a screen reader would name it. */
import { readFile } from 'node:fs/promises';
import { expect, type Download, type Locator, type Page } from '@playwright/test';

export const step = (page: Page, lane: string, number: number): Locator =>
  page.getByRole('checkbox', { name: `${lane}, step ${number}`, exact: true });

export const button = (page: Page, name: string): Locator => page.getByRole('button', { name, exact: true });

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

export const downloaded = async (page: Page, begin: () => Promise<void>): Promise<Download> => {
  const [download] = await Promise.all([page.waitForEvent('download'), begin()]);
  return download;
};

export const bytesOf = async (download: Download): Promise<Uint8Array> =>
  new Uint8Array(await readFile(await download.path()));

/** How far right of its step's left edge a lane's first bead on it stands, in points. */
export const beadX = async (page: Page, lane: string, number: number): Promise<number> => {
  const box = await step(page, lane, number).locator('.bead b').first().boundingBox();
  return box!.x + box!.width / 2;
};
