/** Remakes the pictures of docs/screenshots from the demo beats. */
import type { Browser, Page } from '@playwright/test';
import { browse } from './browse';

const PORT = 4792;
const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

interface Shot {
  name: string;
  size: typeof PHONE;
  theme: 'dark' | 'light';
  act: (page: Page) => Promise<void>;
}

const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
const toExport = (page: Page) => page.getByRole('link', { name: 'Export' }).click();
const toGrooves = async (page: Page) => {
  await page.getByRole('link', { name: 'Grooves' }).click();
  await page.getByRole('list', { name: 'Grooves' }).waitFor();
  await page.waitForTimeout(800);
};
const toSong = async (page: Page) => {
  await page.getByRole('link', { name: 'Song' }).click();
  await page.getByRole('slider', { name: 'Place in the song' }).waitFor();
};
const toFeel = (page: Page) => page.getByRole('link', { name: 'Feel' }).click();
const stage = (page: Page, name: string) =>
  page
    .getByRole('region', { name, exact: true })
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .click();
const openSnare = (page: Page) => press(page, 'Snare');

const SHOTS: Shot[] = [
  { name: 'pattern-phone-night', size: PHONE, theme: 'dark', act: () => Promise.resolve() },
  {
    name: 'pattern-wide-night',
    size: WIDE,
    theme: 'dark',
    act: async (page) => {
      await press(page, 'M S: mute and solo for all lanes');
      await openSnare(page);
      await press(page, 'Mute Kick');
    },
  },
  {
    name: 'roll-phone-night',
    size: PHONE,
    theme: 'dark',
    act: async (page) => {
      await press(page, 'Closed hat');
      await page.getByRole('checkbox', { name: 'Closed hat, step 9', exact: true }).focus();
      await press(page, '4 rising');
      await page.getByRole('slider', { name: 'Stroke 4', exact: true }).scrollIntoViewIfNeeded();
    },
  },
  {
    name: 'make-wide-day',
    size: WIDE,
    theme: 'light',
    act: async (page) => {
      await press(page, 'Crate knock');
      await page.getByRole('tab', { name: 'Make' }).click();
      await page.getByLabel('Starting point', { exact: true }).selectOption({ label: 'Five ferries' });
      await page.getByRole('checkbox', { name: 'Slot 3', exact: true }).click();
    },
  },
  {
    name: 'bands-phone-day',
    size: PHONE,
    theme: 'light',
    act: async (page) => {
      await press(page, 'Closed hat');
      await page.getByRole('tab', { name: 'Make' }).click();
      await page.getByLabel('Starting point', { exact: true }).selectOption({ label: 'Hats that breathe' });
      await press(page, 'Velocity');
    },
  },
  {
    name: 'kits-phone-night',
    size: PHONE,
    theme: 'dark',
    act: async (page) => {
      await press(page, 'Kits and drums');
      await page.getByRole('button', { name: /^Shutters/ }).click();
      await page.waitForTimeout(3000);
      await page.getByRole('button', { name: 'Hear Low tom' }).scrollIntoViewIfNeeded();
    },
  },
  {
    name: 'loop-phone-day',
    size: PHONE,
    theme: 'light',
    act: async (page) => {
      await press(page, 'Cut a loop');
      await press(page, 'Crates at closing');
      await page.getByRole('slider', { name: 'Slice 2', exact: true }).waitFor();
      await page.waitForTimeout(1000);
      await page.getByRole('button', { name: 'Spread over the drums' }).scrollIntoViewIfNeeded();
    },
  },
  {
    name: 'moves-phone-night',
    size: PHONE,
    theme: 'dark',
    act: async (page) => {
      await press(page, 'Snare');
      await page.getByRole('tab', { name: 'Moves' }).click();
      await press(page, 'Ping into triplets');
      await press(page, 'Add a spark');
      await press(page, 'Halves swapped');
      await page
        .getByRole('group', { name: 'Route: from which slot each slot plays' })
        .scrollIntoViewIfNeeded();
    },
  },
  { name: 'feel-phone-night', size: PHONE, theme: 'dark', act: toFeel },
  {
    name: 'players-phone-night',
    size: PHONE,
    theme: 'dark',
    act: async (page) => {
      await toFeel(page);
      await stage(page, 'Humanize');
      await page.getByRole('radio', { name: 'Players who follow one another' }).click();
      await page.locator('.band-map').scrollIntoViewIfNeeded();
      await page.waitForTimeout(600);
    },
  },
  {
    name: 'ports-phone-night',
    size: PHONE,
    theme: 'dark',
    act: async (page) => {
      await page.goto('/ports');
      for (const path of ['grid', 'host', 'module']) {
        const other = await page.context().newPage();
        await other.goto(`/stand-ins/${path}`);
        await other.getByRole('heading', { level: 1 }).waitFor();
      }
      await page.bringToFront();
      await page.getByRole('group', { name: 'Module stand-in', exact: true }).waitFor();
    },
  },
  {
    name: 'grid-night',
    size: { width: 520, height: 640 },
    theme: 'dark',
    act: async (page) => {
      const app = await page.context().newPage();
      await app.goto('/ports');
      await page.goto('/stand-ins/grid');
      await page.getByRole('button', { name: 'Pad 1 in row 1, accent' }).waitFor();
    },
  },
  {
    name: 'grooves-phone-night',
    size: PHONE,
    theme: 'dark',
    act: async (page) => {
      await toGrooves(page);
      await page.getByRole('searchbox').fill('noodle');
      await press(page, 'Keep Noodle queue, ghost notes');
      await page.getByRole('listitem').getByRole('button', { name: 'Noodle queue', exact: true }).click();
      await page.waitForTimeout(1500);
    },
  },
  {
    name: 'grooves-wide-day',
    size: WIDE,
    theme: 'light',
    act: async (page) => {
      await toGrooves(page);
      await press(page, 'Filters');
      await page.getByLabel('Kind', { exact: true }).selectOption('main');
      await press(page, 'Filters');
      await page.getByRole('listitem').getByRole('button', { name: 'Brass alley', exact: true }).click();
      await page.waitForTimeout(1500);
    },
  },
  { name: 'song-phone-night', size: PHONE, theme: 'dark', act: toSong },
  {
    name: 'section-phone-day',
    size: PHONE,
    theme: 'light',
    act: async (page) => {
      await toSong(page);
      await press(page, 'Edit Break');
      await press(page, 'Offer fills');
    },
  },
  {
    name: 'song-wide-day',
    size: WIDE,
    theme: 'light',
    act: async (page) => {
      await toSong(page);
      await press(page, 'Edit Break');
    },
  },
  { name: 'export-phone-night', size: PHONE, theme: 'dark', act: toExport },
  { name: 'beats-phone-day', size: PHONE, theme: 'light', act: (page) => press(page, 'Beats') },
];

const take = async (browser: Browser, { name, size, theme, act }: Shot): Promise<void> => {
  const context = await browser.newContext({
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: size,
    colorScheme: theme,
  });
  const page = await context.newPage();
  await page.goto(`http://127.0.0.1:${PORT}`);
  await page.locator('[data-step]').first().waitFor();
  await page.waitForTimeout(1200);
  await act(page);
  await page.mouse.move(size.width - 2, size.height / 2);
  await page.waitForTimeout(600);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  await context.close();
};

/** All of them, or those that are named. */
const wanted = process.argv.slice(2);

void browse(PORT, async (browser) => {
  for (const shot of SHOTS) if (!wanted.length || wanted.includes(shot.name)) await take(browser, shot);
});
