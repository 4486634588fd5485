import { expect, test, type Page } from '@playwright/test';
import { button, saved, step } from './app';

/** The code of the app waits until it is let go; what is in the page itself does not. */
const held = async (page: Page) => {
  let go: () => void = () => undefined;
  const gone = new Promise<void>((resolve) => (go = resolve));
  await page.route('**/start-*.js', async (route) => {
    await gone;
    await route.continue().catch(() => undefined);
  });
  return go;
};

const early = (page: Page, lane: string, at: number) =>
  page.locator(`[data-early="${lane}"][data-at="${at - 1}"]`);

test('the strings are seen and tapped before the app is there, and nothing tapped is lost', async ({
  page,
}) => {
  const go = await held(page);
  await page.goto('/', { waitUntil: 'commit' });
  await expect(early(page, 'kick', 1)).toBeChecked();
  await expect(early(page, 'kick', 2)).not.toBeChecked();
  await early(page, 'kick', 2).click();
  await expect(early(page, 'kick', 2)).toBeChecked();
  await early(page, 'kick', 1).click();
  await expect(early(page, 'kick', 1)).not.toBeChecked();
  const stood = (await early(page, 'snare', 5).boundingBox())!;
  go();
  await expect(step(page, 'Kick', 2)).toBeChecked();
  await expect(step(page, 'Kick', 1)).not.toBeChecked();
  await expect(page.locator('.early')).toHaveCount(0);
  // Nothing has moved under the thumb.
  const stands = (await page.locator('#step-1-4').boundingBox())!;
  expect(Math.abs(stands.x - stood.x)).toBeLessThan(1);
  expect(Math.abs(stands.y - stood.y)).toBeLessThan(1);
  await button(page, 'Undo').click();
  await expect(step(page, 'Kick', 1)).toBeChecked();
  await button(page, 'Undo').click();
  await expect(step(page, 'Kick', 2)).not.toBeChecked();
});

test('a page that is left before the app is there leaves its taps to the next one; the own beat is shown then', async ({
  page,
  context,
}) => {
  await page.goto('/');
  await step(page, 'Snare', 2).click();
  await expect(step(page, 'Snare', 2)).toBeChecked();
  await saved(page);
  // The copy is made when nothing has changed for a moment.
  await expect
    .poll(() =>
      page.evaluate(() => {
        const copy = JSON.parse(localStorage.getItem('ruddik/early') ?? '{"lanes":[]}') as {
          lanes: { id: string; steps: number[][] }[];
        };
        return copy.lanes.find(({ id }) => id === 'snare')?.steps[1]?.[3] ?? 0;
      }),
    )
    .toBeGreaterThan(0);
  await page.close();

  const second = await context.newPage();
  await held(second);
  await second.goto('/', { waitUntil: 'commit' });
  await expect(early(second, 'snare', 2)).toBeChecked();
  await early(second, 'crash', 4).click();
  await expect(early(second, 'crash', 4)).toBeChecked();
  await second.close();

  const third = await context.newPage();
  await third.goto('/');
  await expect(step(third, 'Crash', 4)).toBeChecked();
  await expect(step(third, 'Snare', 2)).toBeChecked();
});

test('a copy that is junk is left alone', async ({ page }) => {
  for (const junk of ['{', 'null', '{"form":1}', '{"form":1,"lanes":[null]}', '{"form":2,"lanes":[]}']) {
    await page.addInitScript((text) => localStorage.setItem('ruddik/early', text), junk);
    await page.goto('/');
    await expect(step(page, 'Kick', 1)).toBeChecked();
    await expect(page.locator('.early')).toHaveCount(0);
  }
});
