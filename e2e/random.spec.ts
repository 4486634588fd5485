/** Random actions, a short part of what the bench does at length. */
import { expect, test } from '@playwright/test';
import { wander } from '../scripts/wander';
import { openApp } from './app';

test('whatever is pressed: no error, undone and redone alike, the focus never lost', async ({
  page,
  hasTouch,
}) => {
  test.setTimeout(120000);
  await openApp(page);
  const out = await wander(page, 7, 100, hasTouch ?? false);
  expect(out.faults).toEqual([]);
  expect(out).toMatchObject({ actions: 100, turned: 2 });
});
