import { test } from '@playwright/test';
import { openApp } from './app';
import { tenMinutes, theRest } from './guide';
import { thumb } from './hand';

test.setTimeout(120000);

for (const [what, walk] of Object.entries({
  'the ten minutes of the guide': tenMinutes,
  'grooves, a song and the way out': theRest,
}))
  test(`${what} by thumb alone`, async ({ page }) => {
    await openApp(page);
    await walk(page, await thumb(page));
  });
