/** Sliders under a finger: a tap, two taps, a drag, a page that scrolls. */
import { expect, test, type Page } from '@playwright/test';
import { button, openApp } from './app';

const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true });

test('two taps of a finger open a slider for typing and change nothing; one tap, and a drag, set it', async ({
  page,
}) => {
  await openApp(page);
  await button(page, 'Kick').click();
  await tab(page, 'Sound').click();
  const slider = page.getByRole('slider', { name: 'Level of Kick', exact: true });
  await slider.scrollIntoViewIfNeeded();
  const said = () => slider.getAttribute('aria-valuetext');
  expect(await said()).toBe('100 %');
  const box = (await slider.boundingBox())!;
  const glass = await page.context().newCDPSession(page);
  const y = box.y + box.height / 2;
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x?: number) =>
    glass.send('Input.dispatchTouchEvent', { type, touchPoints: x === undefined ? [] : [{ x, y }] });
  const tap = async (x: number) => {
    await touch('touchStart', x);
    await touch('touchEnd');
  };
  const at = (share: number) => box.x + box.width * share;
  await tap(at(0.25));
  await tap(at(0.25));
  const field = page.getByRole('textbox', { name: 'Level of Kick', exact: true });
  await expect(field).toHaveValue('100');
  await field.fill('40');
  await field.press('Escape');
  await expect.poll(said).toBe('100 %');
  await page.waitForTimeout(800);
  await tap(at(0.25));
  await expect.poll(said).toMatch(/^(4[4-9]|5[0-6]) %$/);
  await touch('touchStart', at(0.25));
  for (let share = 0.3; share <= 0.75; share += 0.05) await touch('touchMove', at(share));
  await touch('touchEnd');
  await expect.poll(said).toMatch(/^1[3-6]\d %$/);
});
