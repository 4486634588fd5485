/** What is open stands in the address: it can be shared and reloaded. */
import { expect, test } from '@playwright/test';
import { button, step } from './app';

test('pages, tabs of the drawer and sheets have addresses', async ({ page }) => {
  await page.goto('/?drawer=pads');
  await expect(page.getByRole('tab', { name: 'Pads', selected: true })).toBeVisible();
  await page.goto('/?drawer=cellar');
  await expect(step(page, 'Kick', 1)).toBeVisible();
  await expect(page.getByRole('tab', { name: 'Pads', selected: true })).toBeHidden();

  await page.goto('/feel?page=charts');
  await expect(page.getByRole('tab', { name: 'Charts', selected: true })).toBeVisible();
  await page.getByRole('tab', { name: 'Templates' }).click();
  await expect(page).toHaveURL(/\/feel\?page=templates$/);
  await page.reload();
  await expect(page.getByRole('tab', { name: 'Templates', selected: true })).toBeVisible();

  await page.getByRole('link', { name: 'Pattern', exact: true }).click();
  await button(page, 'Kits and drums').click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await expect(page).toHaveURL(/\/\?sheet=kits$/);
  await page.reload();
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page).toHaveURL(/\/$/);
  // A page that was left is there again, and in the address.
  await page.goBack();
  await expect(page).toHaveURL(/\/feel\?page=templates$/);
});
