/** A kit from files, two claps stacked, a loop that is cut and goes backwards: exported, and there again after a reload. */
import { expect, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import { readNotes } from '../core/midi/read/readBack.mock';
import { wavOf } from '../core/files/wav';
import { button, bytesOf, downloaded, openApp, saved } from './app';

const wav = (name: string, seconds: number, decay: number) => ({
  name,
  mimeType: 'audio/wav',
  buffer: Buffer.from(
    wavOf(
      [
        Float32Array.from(
          { length: Math.round(seconds * 44100) },
          (_, at) => 0.6 * Math.exp(-at / decay) * Math.sin(at * at * 0.0003 + name.length + decay),
        ),
      ],
      44100,
      16,
    ),
  ),
});

test('six samples make a kit, claps are stacked, all is there after a reload and in the kit’s file', async ({
  page,
}) => {
  await openApp(page);
  await button(page, 'Kits and drums').click();
  await page
    .getByLabel('Files for the kit', { exact: true })
    .setInputFiles(
      ['kick.wav', 'snare.wav', 'hat closed.wav', 'hat open.wav', 'ride.wav', 'crash.wav'].map((name, at) =>
        wav(name, 0.4, 3000 + 100 * at),
      ),
    );
  await expect(page.getByText('6 files given to drums by their names.')).toBeVisible();
  // What each is for is listed, and changed at once.
  const ride = page.getByLabel('Drum of ride.wav', { exact: true });
  await expect(ride).toHaveValue('ride');
  await ride.selectOption('china');
  await expect(page.getByText(/plays .*china cymbal/)).toBeVisible();
  await ride.selectOption('ride');
  await button(page, 'Close').click();
  await button(page, 'Clap').click();
  await page.getByRole('tab', { name: 'Sound', exact: true }).click();
  await page
    .getByLabel('Audio files', { exact: true })
    .setInputFiles([wav('clap a.wav', 0.2, 2000), wav('clap b.wav', 0.3, 2500)]);
  await page.getByLabel('Which layer of Clap sounds', { exact: true }).selectOption('stacked');
  await saved(page);
  await page.reload();
  await button(page, 'Clap').click();
  await page.getByRole('tab', { name: 'Sound', exact: true }).click();
  await expect(page.getByText('It plays a sound of its own: 2 layers.')).toBeVisible();
  await button(page, 'Kits and drums').click();
  const kit = unzipSync(
    await bytesOf(await downloaded(page, () => button(page, 'Save it as a file').click())),
  );
  expect(Object.keys(kit).sort()).toEqual([
    'kit.json',
    ...['crash.wav', 'hat closed.wav', 'hat open.wav', 'kick.wav', 'ride.wav', 'snare.wav'].map(
      (name) => `samples/${name}`,
    ),
  ]);
});

test('a loop is cut, its timing taken, its slices played backwards by a detour, and written as notes', async ({
  page,
}) => {
  await openApp(page);
  await button(page, 'Cut a loop').click();
  await button(page, 'Under the ferry deck').click();
  await expect(page.getByRole('slider', { name: 'Slice 1', exact: true })).toBeVisible({ timeout: 30_000 });
  const slices = await page.getByRole('slider', { name: /^Slice/ }).count();
  expect(slices).toBeGreaterThan(3);
  await button(page, 'Take its timing').click();
  await button(page, 'Play it on a lane').click();
  await expect(page.getByText(/plays on a lane of its own/)).toBeVisible();
  await page.getByRole('tab', { name: 'Moves', exact: true }).click();
  await button(page, 'Reversed').click();
  await saved(page);
  await page.evaluate(() => window.ruddik!.startLog());
  await button(page, 'Play').click();
  await page.waitForTimeout(2500);
  const heard = await page.evaluate(() => window.ruddik!.readLog());
  await button(page, 'Stop').click();
  const lanes = [...new Set(heard.handed.map(({ lane }) => lane))];
  const last = Math.max(...lanes);
  const order = heard.handed.filter(({ lane }) => lane === last).map(({ note }) => note);
  expect(order[0]).toBeGreaterThan(36);
  await page.getByRole('link', { name: 'Export' }).click();
  const file = await bytesOf(await downloaded(page, () => button(page, 'Export MIDI').click()));
  const written = readNotes(file).notes.filter(({ note }) => note === order[0]);
  expect(written.length).toBeGreaterThan(0);
});
