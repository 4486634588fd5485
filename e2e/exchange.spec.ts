/** What Ruddik is made with: its licences, and decoders that lie in files of their own, so that they can be exchanged. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { button, openApp } from './app';

const DIST = path.join(__dirname, '..', 'dist');
const FIXTURES = path.join(__dirname, '..', 'core', 'samples', 'fixtures');

test('the licences are told, with their texts, from Beats', async ({ page }) => {
  await openApp(page);
  await button(page, 'Beats').click();
  const [licences] = await Promise.all([page.waitForEvent('popup'), button(page, 'Licences').click()]);
  await expect(licences.getByRole('heading', { name: 'Licences', level: 1 })).toBeVisible();
  const text = (await licences.locator('main').textContent())!;
  for (const told of [
    'SIL OPEN FONT LICENSE',
    'libmpg123',
    'GNU LESSER GENERAL PUBLIC LICENSE',
    'zod',
    'react-native-web',
  ])
    expect(text).toContain(told);
  await licences.getByText('Ruddik itself: MIT').click();
  await expect(licences.getByText('The Ruddik authors', { exact: false })).toBeVisible();
  await licences.getByRole('link', { name: 'Back to Beats' }).click();
  await expect(licences.getByRole('heading', { name: 'Beats', level: 1 })).toBeVisible();
});

test('no code of the app holds what has to be exchangeable', () => {
  const code = path.join(DIST, '_expo', 'static', 'js', 'web');
  const files = readdirSync(code).filter((name) => name.endsWith('.js'));
  const holding = files.filter((name) =>
    /mpg123|MPEGDecoder|CodecParser/.test(readFileSync(path.join(code, name), 'utf8')),
  );
  expect(holding).toEqual([]);
  for (const name of ['mp3', 'flac', 'vorbis'])
    expect(readFileSync(path.join(DIST, 'decoders', `${name}.js`), 'utf8')).toContain('see /licences');
});

test('an MP3 is decoded by the file that lies there, and by another one in its place', async ({ page }) => {
  const mp3 = path.join(FIXTURES, 'click-told.mp3');
  const asked: string[] = [];
  page.on('request', (request) => asked.push(new URL(request.url()).pathname));
  await openApp(page);
  await button(page, 'Kits and drums').click();
  await page.getByLabel('Files for the kit', { exact: true }).setInputFiles(mp3);
  await expect(page.getByText('No drum is named in “click-told.mp3”', { exact: false })).toBeVisible({
    timeout: 20_000,
  });
  expect(asked).toContain('/decoders/mp3.js');

  // One's own decoder, which takes every file for a second of silence.
  await page.route('**/decoders/mp3.js', (route) =>
    route.fulfill({
      contentType: 'text/javascript',
      headers: { 'Cross-Origin-Resource-Policy': 'same-origin' },
      body: `var ruddikDecoder_mp3 = { decode: async () => ({ channelData: [new Float32Array(48000)], sampleRate: 48000 }) };`,
    }),
  );
  await page.reload();
  // The sheet stands in the address: it is open again.
  await page.getByLabel('Files for the kit', { exact: true }).setInputFiles(mp3);
  await expect(page.getByText('is silent: there is nothing in it to hear.', { exact: false })).toBeVisible({
    timeout: 20_000,
  });
});
