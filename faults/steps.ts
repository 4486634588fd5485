/** What the runs in a browser do alike. */
import type { Page } from '@playwright/test';
import { wavOf } from '../core/files/wav';
import { ready } from '../scripts/wander';

export const STEP = '[data-step]';

export const opened = async (page: Page, address: string): Promise<void> => {
  await page.goto(address);
  await page.locator(STEP).first().waitFor();
  await page.locator('#step-0-15').waitFor({ state: 'attached' });
};

/** Whether the nth step of a lane is on, by what is heard of it. */
export const isOn = (page: Page, lane: number, step: number): Promise<boolean> =>
  page.locator(`#step-${lane}-${step}`).evaluate((cell) => cell.getAttribute('aria-checked') === 'true');

export const press = (page: Page, lane: number, step: number): Promise<void> =>
  page.locator(`#step-${lane}-${step}`).evaluate((cell: HTMLElement) => cell.click());

/** A second of a tone as a WAV file of 16 bits, another one for each number. */
export const toneOf = (at: number): Buffer =>
  Buffer.from(
    wavOf([Float32Array.from({ length: 4800 }, (_, i) => 0.5 * Math.sin(i * (0.01 + at / 5000)))], 48000, 16),
  );

/** An edit as the screens give it. */
export const edited = async (page: Page, type: string, payload: object): Promise<void> => {
  await ready(page);
  await page.evaluate((action) => window.hands.dispatch(action), { type, payload });
};
