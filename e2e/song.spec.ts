import { unzipSync } from 'fflate';
import { expect, test, type Page } from '@playwright/test';
import { readNotes } from '../core/midi/read/readBack.mock';
import { bytesOf, button, downloaded, openApp, saved } from './app';

const toSong = async (page: Page) => {
  await page.getByRole('link', { name: 'Song' }).click();
  await expect(page.getByRole('heading', { name: 'Song', exact: true })).toBeVisible();
};
const toExport = async (page: Page) => {
  await page.getByRole('link', { name: 'Export' }).click();
  await expect(page.getByLabel('What', { exact: true })).toBeVisible();
};
const choose = (page: Page, label: string, value: string) =>
  page.getByLabel(label, { exact: true }).selectOption(value);
const closeSheet = async (page: Page) => {
  const close = button(page, 'Close');
  if (await close.count()) await close.first().click();
};

test('from grooves to an arrangement with fills, a file for each drum and section, and all of it there again', async ({
  page,
}) => {
  await openApp(page);
  await page.getByRole('link', { name: 'Grooves' }).click();
  for (const [word, name] of [
    ['tin stage', /^Tin stage/],
    ['noodle', /^Noodle/],
  ] as const) {
    await page.getByRole('searchbox').fill(word);
    await page.getByRole('listitem').getByRole('button', { name }).first().click();
    await button(page, 'Set the groove aside in the tray').click();
    await expect(page.getByText(/is in the tray, on the Song screen/).first()).toBeVisible();
  }
  await toSong(page);
  await page.getByRole('tab', { name: 'Tray' }).click();
  await expect(page.getByRole('list', { name: 'Tray in its order' }).getByRole('listitem')).toHaveCount(7);

  await page.getByRole('tab', { name: 'Sections' }).click();
  await button(page, 'Forms').click();
  await page.getByRole('button', { name: /^Verse and chorus/ }).click();
  await expect(
    page
      .getByRole('main')
      .getByText('Lantern Walk · 76 bars', { exact: false })
      .locator('visible=true')
      .first(),
  ).toBeVisible();

  await button(page, 'Edit Bridge').click();
  await button(page, 'Offer fills').click();
  await button(page, 'Hear Snare run in place').click();
  await expect(button(page, 'Stop Snare run')).toBeVisible();
  await button(page, 'Take Snare run').click();
  await expect(page.getByLabel('Fill of Bridge', { exact: true })).toHaveValue(/.+/);
  await closeSheet(page);

  await toExport(page);
  await choose(page, 'What', 'sections');
  await choose(page, 'Drums', 'lanes');
  await choose(page, 'Each becomes', 'files');
  const download = await downloaded(page, () => button(page, 'Export MIDI').click());
  expect(download.suggestedFilename()).toBe('Lantern-Walk-sections-midi.zip');
  const entries = unzipSync(await bytesOf(download));
  const files = Object.keys(entries).filter((name) => name.endsWith('.mid'));
  expect(files.length).toBeGreaterThan(30);
  const bars = { Intro: 4, Verse: 16, Chorus: 8, Bridge: 8, Outro: 8 };
  for (const file of files) {
    const [, section] = /^\d+-(\w+)\//.exec(file)!;
    expect(readNotes(entries[file]!).end).toBe(bars[section as keyof typeof bars] * 4 * 960);
  }
  expect(new TextDecoder().decode(entries['list.txt'])).toContain('The song');

  // What is dragged out carries its type, its name and where it is to be had; a finger does not drag out of a page.
  const handle = page.getByText('Drag the ZIP out');
  if (page.viewportSize()!.width >= 1024) {
    const carried = await page.evaluateHandle(() => new DataTransfer());
    await handle.dispatchEvent('dragstart', { dataTransfer: carried });
    expect(await carried.evaluate((data) => data.getData('DownloadURL'))).toMatch(
      /^application\/zip:Lantern-Walk-sections-midi\.zip:blob:/,
    );
  } else await expect(handle).toHaveCount(0);

  await saved(page);
  await page.reload();
  await toSong(page);
  await expect(button(page, 'Edit Bridge')).toBeVisible();
  await expect(page.getByText('76 bars', { exact: false }).locator('visible=true').first()).toBeVisible();
});

test('the song plays from any bar, a section is repeated, and it stops where it ends', async ({ page }) => {
  await openApp(page);
  await toSong(page);
  const place = page.getByRole('slider', { name: 'Place in the song' });
  await place.focus();
  await page.keyboard.press('PageDown');
  await expect(place).toHaveAttribute('aria-valuetext', 'bar 7, Verse, 0:15');
  await button(page, 'Repeat section Verse').click();
  await page.evaluate(() => window.ruddik!.startLog());
  await place.press('Enter');
  await expect(button(page, 'Stop')).toBeVisible();
  await page.waitForTimeout(1500);
  const { handed } = await page.evaluate(() => window.ruddik!.readLog());
  expect(handed.filter(({ note }) => note === 36).length).toBeGreaterThan(2);
  await button(page, 'Repeat section Verse').click();
  await place.focus();
  await page.keyboard.press('End');
  await expect(button(page, 'Play')).toBeVisible({ timeout: 15000 });
});

test('patterns switched live are written into the song', async ({ page }) => {
  await openApp(page);
  await toSong(page);
  await page.getByRole('tab', { name: 'Play live' }).click();
  await choose(page, 'While playing, another pattern begins', 'beat');
  await button(page, 'Record the switches').click();
  await page.waitForTimeout(3000);
  await button(page, 'Switch to C · all lamps lit').click();
  await page.waitForTimeout(3500);
  await button(page, 'Stop and keep it').click();
  await expect(page.getByText(/^2 sections were added to the song/)).toBeVisible();
  await page.getByRole('tab', { name: 'Sections' }).click();
  await expect(button(page, 'Edit C · all lamps lit')).toBeVisible();
  await button(page, 'Undo').click();
  await expect(button(page, 'Edit C · all lamps lit')).toHaveCount(0);
});

test('a song that was exported opens again with its sections', async ({ page }) => {
  await openApp(page);
  await toExport(page);
  await choose(page, 'What', 'song');
  await choose(page, 'Drums', 'lanes');
  const file = await downloaded(page, () => button(page, 'Export MIDI').click());
  await page.getByRole('link', { name: 'Pattern' }).click();
  await button(page, 'Beats').click();
  await page.getByLabel('Beat file', { exact: true }).setInputFiles({
    name: 'walk.mid',
    mimeType: 'audio/midi',
    buffer: Buffer.from(await bytesOf(file)),
  });
  await expect(page.getByText(/was opened from “walk.mid”/)).toBeVisible();
  await toSong(page);
  await expect(page.getByText('76 bars', { exact: false }).locator('visible=true').first()).toBeVisible();
  await expect(button(page, 'Edit Break')).toBeVisible();
});

test('a section is bounced to WAV, stopped and begun anew; a choice is kept by name', async ({ page }) => {
  await openApp(page);
  await toExport(page);
  await choose(page, 'What', 'section');
  await choose(page, 'As', 'audio');
  await choose(page, 'Depth', '16');
  await page.getByText(/^Kept choices/).click();
  await page.getByLabel('Name of this choice', { exact: true }).fill('Sixteen bits');
  await button(page, 'Keep it').click();
  await button(page, 'Bounce to WAV').click();
  await expect(page.getByText(/^Rendered in/)).toBeVisible({ timeout: 30000 });
  const wav = await bytesOf(await downloaded(page, () => button(page, 'Download WAV').click()));
  expect(new TextDecoder().decode(wav.slice(0, 4))).toBe('RIFF');
  // Six bars at 92 BPM and four seconds in which it rings out.
  expect(wav.length).toBeCloseTo(44 + ((6 * 4 * 60) / 92 + 4) * 48000 * 4, -3);
  await page.reload();
  await toExport(page);
  await page.getByText(/^Kept choices: 1/).click();
  await choose(page, 'Use a kept choice', 'Sixteen bits');
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('16');
});
