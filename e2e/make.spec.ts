/** A hat line, a tuned figure and a detour: made, tried, kept, opened again, and the file holds what was heard. */
import { expect, test, type Page } from '@playwright/test';
import { readNotes } from '../core/midi/read/readBack.mock';
import { button, bytesOf, downloaded, openApp, saved, setField } from './app';

const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true });
const hits = (page: Page, lane: string) =>
  page.getByRole('checkbox', { name: new RegExp(`^${lane}, step`), checked: true });
const takes = (page: Page) => page.getByRole('listbox', { name: 'Takes' }).getByRole('option');
const start = (page: Page, name: string) =>
  page.getByLabel('Starting point', { exact: true }).selectOption({ label: name });

test('a hat line is made, the second of five takes kept, opened again and thinned', async ({ page }) => {
  await openApp(page);
  await button(page, 'Closed hat').click();
  await tab(page, 'Make').click();
  await start(page, 'Sixteenths with a hole');
  await expect(hits(page, 'Closed hat')).toHaveCount(30);
  for (const slot of [2, 4, 6, 8])
    await page.getByRole('checkbox', { name: `Slot ${slot}`, exact: true }).click();
  await expect(hits(page, 'Closed hat')).toHaveCount(22);
  // What was there before is a take too.
  await expect(takes(page)).toHaveCount(6);
  await takes(page).nth(2).click();
  await button(page, 'Use it').click();
  await expect(hits(page, 'Closed hat')).toHaveCount(28);
  await button(page, 'Keep').click();
  await saved(page);
  await page.reload();
  await button(page, 'Closed hat').click();
  await tab(page, 'Make').click();
  await expect(takes(page).filter({ hasText: 'Take 3' })).toBeVisible();
  await expect(page.getByText('14 of 16')).toBeVisible();
  await page.getByRole('checkbox', { name: 'Slot 15', exact: true }).click();
  await expect(hits(page, 'Closed hat')).toHaveCount(26);
  await button(page, 'Undo').click();
  await expect(page.getByText('14 of 16')).toBeVisible();
  await expect(hits(page, 'Closed hat')).toHaveCount(28);
});

test('what is only tried changes nothing until it is used', async ({ page }) => {
  await openApp(page);
  await button(page, 'Kick').click();
  const before = await hits(page, 'Kick').count();
  await tab(page, 'Make').click();
  await button(page, 'Try first').click();
  const strikes = page.getByRole('slider', { name: 'Strikes of the ring', exact: true });
  await strikes.press('ArrowLeft');
  await strikes.press('ArrowLeft');
  await expect(page.getByText(/nothing is changed yet/)).toBeVisible();
  await expect(hits(page, 'Kick')).toHaveCount(6);
  await button(page, 'Discard').click();
  await expect(hits(page, 'Kick')).toHaveCount(before);
});

test('a tuned figure, echoes and a detour: what is heard is what is written', async ({ page }) => {
  await openApp(page);
  await setField(page, 'Tempo', '200');
  await button(page, 'Open conga').click();
  await tab(page, 'Make').click();
  await start(page, 'Log drum figure');
  await button(page, 'Snare').click();
  await tab(page, 'Moves').click();
  await button(page, 'Ping into triplets').click();
  await button(page, 'Halves swapped').click();
  await page.getByRole('link', { name: 'Export' }).click();
  const written = readNotes(
    await bytesOf(await downloaded(page, () => button(page, 'Export MIDI').click())),
  ).notes;
  expect(new Set(written.map(({ note }) => note)).size).toBeGreaterThan(8);
  await page.getByRole('link', { name: 'Pattern' }).click();
  await page.evaluate(() => window.ruddik!.startLog());
  await button(page, 'Play').click();
  await expect
    .poll(async () => (await page.evaluate(() => window.ruddik!.readLog())).report.started.length, {
      timeout: 20000,
    })
    .toBeGreaterThan(130);
  const { handed } = await page.evaluate(() => window.ruddik!.readLog());
  await button(page, 'Stop').click();
  const perTick = (48000 * 60) / (200 * 960);
  // Where the file's start lies on the clock: where most of the notes agree that it does.
  const votes = new Map<number, number>();
  for (const note of written)
    for (const one of handed)
      if (one.note === note.note && one.velocity === note.velocity) {
        const at = Math.round((one.frame - note.tick * perTick) / 240);
        votes.set(at, (votes.get(at) ?? 0) + 1);
      }
  const first = [...votes].sort((a, b) => b[1] - a[1])[0]![0] * 240;
  const middle = written.filter(({ tick }) => tick > 300 && tick < 3500);
  expect(middle.length).toBeGreaterThan(15);
  for (const note of middle) {
    const near = handed.filter((one) => one.note === note.note && one.velocity === note.velocity);
    // What the file carries round its end is heard from the second pass on.
    const apart = near.map(({ frame }) => {
      const at = (frame - first - note.tick * perTick) % (7680 * perTick);
      return Math.min(Math.abs(at), 7680 * perTick - Math.abs(at));
    });
    expect(Math.min(...apart)).toBeLessThan(48 * 12);
  }
});

test('a lane that plays pitches: tapped and dragged by height, by keys, named, heard and written', async ({
  page,
}) => {
  await openApp(page);
  await button(page, 'Add a lane').click();
  await page.getByLabel('Drum of the new lane', { exact: true }).selectOption({ label: 'Log drum' });
  await expect(page.getByLabel('Scale of Log drum', { exact: true })).toHaveValue('minor pentatonic');
  await page.getByLabel('Root of Log drum', { exact: true }).selectOption('A');
  await expect(page.getByText(/^Its notes: .*A1 C2 D2 E2 G2 A2/)).toBeVisible();
  await tab(page, 'Hits').click();
  const place = async (number: number, share: number) => {
    const step = page.getByRole('checkbox', { name: `Log drum, step ${number}`, exact: true });
    await step.scrollIntoViewIfNeeded();
    const box = (await step.boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + 14 + share * 109 };
  };
  // The lowest note, 36, stands at the foot and the highest, 60, at the top.
  for (const [number, share] of [
    [1, 1],
    [5, 0],
    [9, 0.5],
  ] as const) {
    const { x, y } = await place(number, share);
    await page.mouse.click(x, y);
    // Two taps on one another's heels take a hit off.
    await page.waitForTimeout(450);
  }
  await expect(hits(page, 'Log drum')).toHaveCount(3);
  await expect(page.getByLabel('Note of the hits', { exact: true })).toHaveValue('48');
  await page.getByRole('checkbox', { name: 'Log drum, step 9', exact: true }).focus();
  await page.keyboard.press('PageUp');
  await expect(page.getByLabel('Note of the hits', { exact: true })).toHaveValue('50');
  await button(page, 'A note higher').click();
  await expect(page.getByLabel('Note of the hits', { exact: true })).toHaveValue('52');
  const from = await place(5, 0);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  const to = await place(5, 0.25);
  await page.mouse.move(from.x, to.y, { steps: 6 });
  await page.mouse.up();
  await page.getByRole('link', { name: 'Export' }).click();
  const { notes } = readNotes(
    await bytesOf(await downloaded(page, () => button(page, 'Export MIDI').click())),
  );
  expect(notes.filter(({ channel }) => channel === 1).map(({ note }) => note)).toEqual([36, 55, 52]);
});

test('a figure is typed on a slider that is only tried: nothing moves under the second tap', async ({
  page,
}) => {
  await openApp(page);
  await button(page, 'Kick').click();
  await tab(page, 'Make').click();
  await button(page, 'Try first').click();
  const strikes = page.getByRole('slider', { name: 'Strikes of the ring', exact: true });
  await strikes.scrollIntoViewIfNeeded();
  await strikes.dblclick();
  const field = page.getByRole('textbox', { name: 'Strikes of the ring', exact: true });
  await field.fill('99');
  await field.press('Enter');
  await expect(page.getByText('Strikes of the ring runs from 0 to 16: 99 became 16.')).toBeVisible();
  await expect(page.getByText('16 of 16')).toBeVisible();
});

test('a band lies over the string that it is drawn for, as wide as that is', async ({ page }) => {
  await openApp(page);
  await button(page, 'Kick').click();
  await tab(page, 'Make').click();
  await button(page, 'Bands').click();
  const lane = page.locator('[data-lane="kick"]').filter({ visible: true });
  const over = (await lane.locator('.band-over').boundingBox())!;
  const string = (await lane.locator('.string').boundingBox())!;
  expect(Math.abs(over.x - string.x)).toBeLessThan(1);
  expect(Math.abs(over.width - string.width)).toBeLessThan(1);
});
