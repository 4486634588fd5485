/** What stands outside: stand-ins in other windows, with the app beside them. */
import { expect, test, type Page } from '@playwright/test';
import { button, openApp, step } from './app';

const beside = async (page: Page, path: string): Promise<Page> => {
  const other = await page.context().newPage();
  await other.goto(path);
  await expect(other.getByRole('heading', { level: 1 })).toBeVisible();
  return other;
};
const transport = (page: Page) => page.getByRole('region', { name: 'Transport' });

test('a beat is programmed on the grid, follows the host, and records what the module plays', async ({
  page,
}) => {
  test.setTimeout(120000);
  await openApp(page);
  await page.goto('/ports');
  await expect(page.getByText('No port is there yet.', { exact: false })).toBeVisible();
  const grid = await beside(page, '/stand-ins/grid');
  const host = await beside(page, '/stand-ins/host');
  const module = await beside(page, '/stand-ins/module');
  for (const name of ['Grid stand-in 8', 'Host stand-in', 'Module stand-in'])
    await expect(page.getByRole('group', { name, exact: true })).toBeVisible();

  await page.getByRole('link', { name: 'Pattern' }).click();
  // The grid: steps with their lights, mute told at a glance.
  await expect(step(page, 'Kick', 2)).not.toBeChecked();
  await grid.getByRole('button', { name: 'Pad 2 in row 1, dark' }).click();
  await expect(step(page, 'Kick', 2)).toBeChecked();
  await expect(grid.getByRole('button', { name: 'Pad 2 in row 1, hit' })).toBeVisible();
  await button(grid, 'Mute').click();
  await grid.getByRole('button', { name: 'Pad 1 in row 2, lit' }).click();
  await expect(button(page, '1 muted: clear')).toBeVisible();
  await expect(grid.getByRole('button', { name: 'Pad 1 in row 2, muted' })).toBeVisible();
  await grid.getByRole('button', { name: 'Pad 1 in row 2, muted' }).click();
  await button(grid, 'Patterns').click();
  await grid.getByRole('button', { name: 'Pad 2 in row 1, hit' }).click();
  await expect(page.getByRole('button', { name: /^B .*, pattern shown$/ })).toBeVisible();
  await grid.getByRole('button', { name: 'Pad 1 in row 1, hit' }).click();

  // The host leads: its tempo is shown and played, and a change of it.
  await button(host, 'Play').click();
  await expect(transport(page)).toContainText('by Host');
  await expect(button(page, 'Stop')).toBeVisible();
  await expect(
    page
      .getByRole('textbox', { name: 'Tempo' })
      .or(page.getByLabel('Tempo', { exact: true }))
      .first(),
  ).toHaveValue(/^11[12]/, { timeout: 10000 });
  // The module sounds and prints what the lanes play.
  await expect(module.getByRole('log')).toContainText('note 36');
  await button(host, 'Stop').click();
  await expect(button(page, 'Play')).toBeVisible();

  // What its keys play is recorded.
  await page.bringToFront();
  await page.getByRole('tab', { name: 'Pads' }).click();
  await button(page, 'Record').click();
  await button(page, 'Play').click();
  const before = await page.getByRole('checkbox', { name: /^Low tom, step/, checked: true }).count();
  await page.waitForTimeout(900);
  await module.getByRole('button', { name: 'Key Low tom' }).click();
  await expect
    .poll(() => page.getByRole('checkbox', { name: /^Low tom, step/, checked: true }).count())
    .toBe(before + 1);
  await button(page, 'Stop').click();

  // What is held rolls on the steps, as hard as it is pressed by then.
  await page.getByLabel('Repeat what is held', { exact: true }).selectOption('1/16');
  await button(page, 'Play').click();
  await page.waitForTimeout(600);
  const key = (await module.getByRole('button', { name: 'Key Low tom' }).boundingBox())!;
  await module.mouse.move(key.x + 40, key.y + key.height - 6);
  await module.mouse.down();
  await page.waitForTimeout(500);
  await module.mouse.move(key.x + 40, key.y + 4);
  await page.waitForTimeout(500);
  await module.mouse.up();
  await button(page, 'Stop').click();
  expect(await page.getByRole('checkbox', { name: /^Low tom, step/, checked: true }).count()).toBeGreaterThan(
    before + 5,
  );

  // Unplugged is told, and taken up again.
  await grid.close();
  await expect(page.getByText('Grid stand-in 8 is gone.', { exact: false })).toBeVisible();
  const again = await beside(page, '/stand-ins/grid');
  await expect(again.getByRole('button', { name: 'Pad 2 in row 1, hit' })).toBeVisible();
});
