/** What the runs in a browser do alike. */
import type { Page } from '@playwright/test';

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
