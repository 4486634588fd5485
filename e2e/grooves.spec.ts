import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { zipSync } from 'fflate';
import { readMidi } from '../core/midi/read/readMidi';
import { button, bytesOf, downloaded } from './app';

const DEMO = path.join(__dirname, '..', 'demo', 'grooves');

const demoFiles = () =>
  readdirSync(DEMO, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.mid'))
    .sort();

const asFile = (name: string, buffer: Buffer) => ({ name, mimeType: 'audio/midi', buffer });

const toGrooves = async (page: Page) => {
  await page.goto('/grooves');
  await expect(page.getByRole('list', { name: 'Grooves' })).toBeVisible();
};

const search = (page: Page, words: string) =>
  page.getByRole('searchbox', { name: 'Search grooves' }).fill(words);
const groove = (page: Page, name: string) =>
  page.getByRole('list', { name: 'Grooves' }).getByRole('button', { name, exact: true });
const openPage = async (page: Page) => {
  await expect(button(page, 'Stop the groove').or(button(page, 'Hear the groove'))).toBeVisible();
  if (page.viewportSize()!.width < 1024) await button(page, 'Open').click();
};
const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const notice = (page: Page, text: RegExp) =>
  expect(page.getByRole('status').filter({ hasText: text }).first()).toBeVisible();

test('grooves are searched, narrowed with counts, sorted, and the last place is remembered', async ({
  page,
}) => {
  await toGrooves(page);
  await search(page, 'ghost samba');
  await expect(groove(page, 'Full nets, ghost notes')).toBeVisible();
  await expect(page.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: 'Show all' }).click();
  await button(page, 'Filters').click();
  await page.getByLabel('Time signature', { exact: true }).selectOption('7/8');
  await expect(page.getByLabel('Style', { exact: true })).toContainText('Seven-eight (13)');
  await tab(page, 'Folders');
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByRole('button', { name: 'Folder Built-in' }).click();
  await page.getByRole('button', { name: 'Folder Boom-bap' }).click();
  await expect(groove(page, 'Noodle queue')).toBeVisible();
  await page.waitForTimeout(600);
  await page.reload();
  await expect(groove(page, 'Noodle queue')).toBeVisible();
  await button(page, 'Up').click();
  await expect(page.getByRole('button', { name: 'Folder Agogo' })).toBeVisible();
});

test('a groove is heard at once, beside the running beat too, and laid over it', async ({ page }) => {
  await toGrooves(page);
  await search(page, 'tumbao');
  await groove(page, 'Congas, tumbao').click();
  await expect(button(page, 'Stop the groove')).toBeVisible();
  await page.evaluate(() => window.ruddik!.startLog());
  const handed = () =>
    page.evaluate(async () =>
      [...new Set((await window.ruddik!.readLog()).handed.map(({ note }) => note))].sort(),
    );
  await expect.poll(handed).toEqual([62, 63]);
  await button(page, 'Stop the groove').click();

  await button(page, 'Hearing: how grooves are heard').click();
  await button(page, 'In time with the beat').click();
  await button(page, 'Silence Kick').click();
  await button(page, 'Play').click();
  await button(page, 'Hear the groove').click();
  await page.waitForTimeout(600);
  await page.evaluate(() => window.ruddik!.startLog());
  await expect.poll(handed).toEqual(expect.arrayContaining([38, 42, 62, 63]));
  expect(await handed()).not.toContain(36);
  await button(page, 'Stop the groove').click();
  await expect(button(page, 'Stop')).toBeVisible();
  await button(page, 'Stop').click();
  await button(page, 'Hearing: how grooves are heard').click();

  await openPage(page);
  await tab(page, 'Bring in');
  await button(page, 'Lay over').click();
  await notice(page, /were added to pattern/);
  await page.getByRole('link', { name: 'Pattern' }).click();
  await expect(page.getByRole('checkbox', { name: 'Muted conga, step 1', exact: true })).toBeChecked();
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('checkbox', { name: 'Muted conga, step 1', exact: true })).toHaveCount(0);
});

test('foreign files are taken in, kept, re-voiced, their feel taken, and written for a sampler with its own map', async ({
  page,
}) => {
  await toGrooves(page);
  const files = demoFiles().map((name) => asFile(path.basename(name), readFileSync(path.join(DEMO, name))));
  const zip = zipSync({
    'Wharf/late.mid': new Uint8Array(files[0]!.buffer),
    '../climbs.mid': new Uint8Array(files[1]!.buffer),
    'Wharf/readme.txt': new TextEncoder().encode('hello'),
  });
  await page
    .getByLabel('MIDI files', { exact: true })
    .setInputFiles([
      ...files,
      asFile('broken.mid', Buffer.from('no music here')),
      { name: 'Wharf.zip', mimeType: 'application/zip', buffer: Buffer.from(zip) },
    ]);
  const summary = page.getByRole('region', { name: 'Import' });
  await expect(summary).toContainText(`${files.length + 1} grooves imported`);
  await expect(summary).toContainText('broken.mid It is not a MIDI file.');
  await expect(summary).toContainText('Its path leads out of the archive.');
  await expect(summary).toContainText('readme.txt It is not a MIDI file.');
  await button(page, 'Close the summary').click();

  // The same file once more is kept once, and taking this import off leaves it where it was.
  await page.getByLabel('MIDI files', { exact: true }).setInputFiles([files[0]!]);
  await expect(summary).toContainText('Nothing was imported. 1 file was here before, byte for byte.');
  await expect(summary.getByRole('button', { name: /^Take .* off again$/ })).toHaveCount(0);
  await button(page, 'Close the summary').click();

  await button(page, 'Filters').click();
  await page.getByLabel('Source', { exact: true }).selectOption('imported');
  await button(page, 'Filters').click();
  for (const name of ['Moth dance 108', 'Scales 7-8', 'Oil smoke 70'])
    await button(page, `Keep ${name}`).click();
  await tab(page, 'Keepers');
  await expect(page.getByRole('listitem')).toHaveCount(3);
  await page
    .getByRole('list', { name: 'Grooves' })
    .getByRole('button', { name: 'Moth dance 108', exact: true })
    .click();
  await openPage(page);
  await tab(page, 'Re-voice');
  await page.getByLabel('Time is kept on').selectOption('Ride');
  await tab(page, 'Bring in');
  await button(page, 'Its feel as a template').click();
  await notice(page, /template of your beat/);
  await button(page, 'As a new pattern').click();
  await notice(page, /new pattern of your beat/);

  if (await button(page, 'Back to the grooves').isVisible())
    await button(page, 'Back to the grooves').click();
  await button(page, 'Maps').click();
  const map = {
    kind: 'ruddik.drumMap',
    version: 1,
    name: 'Pads on sixty',
    notes: [
      { note: 60, instrument: 'kick' },
      { note: 62, instrument: 'snare' },
      { note: 64, instrument: 'hat.closed' },
      { note: 65, instrument: 'ride' },
      { note: 67, instrument: 'tom.floor' },
    ],
  };
  await page.getByLabel('Drum map file', { exact: true }).setInputFiles({
    name: 'pads.map.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(map)),
  });
  await expect(page.getByRole('list', { name: 'Notes of Pads on sixty' })).toBeVisible();
  await tab(page, 'Write the beat');
  await expect(page.getByLabel('Kick is written as')).toHaveValue('kick');
  await button(page, 'Write the beat with this map').click();
  await notice(page, /is written with “Pads on sixty”/);

  await page.getByRole('link', { name: 'Export' }).click();
  const file = await downloaded(page, () => button(page, 'Export MIDI').click());
  const opened = readMidi(await bytesOf(file), 'lenient');
  expect(opened.ok).toBe(true);
  const notes = new Set(opened.ok ? opened.value.file.notes.map(({ note }) => note) : []);
  expect([...notes].sort()).toEqual([60, 62, 65, 67]);

  await page.reload();
  await page.goto('/grooves');
  await tab(page, 'Keepers');
  await expect(page.getByRole('listitem')).toHaveCount(3);
});

test('the server’s folder is listed; when it is away the rest works and says so', async ({ page }) => {
  await toGrooves(page);
  await search(page, 'gutting');
  await groove(page, 'Gutting bench 126').click();
  await expect(button(page, 'Stop the groove')).toBeVisible();
  await page.route('**/api/grooves**', (route) => route.abort());
  await page.reload();
  await expect(page.getByText('out of reach')).toBeVisible();
  await search(page, 'noodle');
  await groove(page, 'Noodle queue').click();
  await expect(button(page, 'Stop the groove')).toBeVisible();
});
