/** Every screen, tab and sheet is audited for whoever cannot see, point or tell colours apart. */
import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { button, openApp, patternShown, step } from './app';

const link = (page: Page, name: string) => page.getByRole('link', { name, exact: true });
const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true });

/** What is found, a line for each kind of fault and thing. */
const audit = async (page: Page, place: string, { all = true, alike = false } = {}): Promise<string[]> => {
  // In one piece, without what passes: of a page of charts that takes ten times the audit to bring over.
  const audited = new AxeBuilder({ page }).setLegacyMode().options({
    resultTypes: ['violations'],
    // By day only the colours are others.
    ...(all
      ? { rules: { 'label-content-name-mismatch': { enabled: true } } }
      : { runOnly: ['color-contrast'] }),
  });
  // The strings have hundreds of steps, all alike: they are looked through once.
  if (place !== 'strings') audited.exclude('.strings');
  // What all places of a screen have alike is looked through with the first of them.
  if (alike) for (const name of ['Transport', 'Screens']) audited.exclude(`[aria-label="${name}"]`);
  const { violations } = await audited.analyze();
  return violations.flatMap(({ id, nodes }) =>
    nodes.map(({ html }) => {
      const [, label = ''] = /aria-label="([^"]*)"/.exec(html) ?? [];
      const text = html
        .replace(/<[^>]*>/g, ' ')
        .replace(/\s+/g, ' ')
        .trim();
      return `${place}: ${id}: “${label}” shows “${text.slice(0, 60)}” ${html.slice(0, 80)}`;
    }),
  );
};

/** All places of a screen, each with the way to it. */
const PLACES: { screen: string; places: [string, (page: Page) => Promise<void>][] }[] = [
  {
    screen: 'Pattern',
    places: [
      ['strings', () => Promise.resolve()],
      [
        'a hit',
        async (page) => {
          await button(page, 'Closed hat').click();
          await step(page, 'Closed hat', 3).click();
        },
      ],
      ['a lane', (page) => tab(page, 'Lane').click()],
      ['a sound', (page) => tab(page, 'Sound').click()],
      [
        'a sound of its own',
        async (page) => {
          await button(page, 'Change this sound').click();
          await button(page, 'Stack a drum').click();
        },
      ],
      ['a ring', (page) => tab(page, 'Make').click()],
      ['bands', (page) => button(page, 'Bands').click()],
      ['a rudiment', (page) => button(page, 'Rudiment').click()],
      ['a whole beat', (page) => button(page, 'Whole beat').click()],
      ['chance', (page) => button(page, 'Chance').click()],
      [
        'moves',
        async (page) => {
          await tab(page, 'Moves').click();
          await button(page, 'Dying eighths').click();
          await button(page, 'Reversed').click();
        },
      ],
      ['pads', (page) => tab(page, 'Pads').click()],
      ['patterns', (page) => patternShown(page).click()],
      [
        'kits',
        async (page) => {
          await button(page, 'Close').click();
          await button(page, 'Kits and drums').click();
          await expect(button(page, 'Hear Kick')).toBeVisible();
        },
      ],
      [
        'a loop',
        async (page) => {
          await button(page, 'Close').click();
          await button(page, 'Cut a loop').click();
          await button(page, 'Crates at closing').click();
          await page.getByRole('slider', { name: 'Slice 2', exact: true }).focus({ timeout: 30_000 });
        },
      ],
    ],
  },
  {
    screen: 'Feel',
    places: [
      ...['Stages', 'Compare', 'Charts', 'Report', 'Templates', 'Feels'].map(
        (name): [string, (page: Page) => Promise<void>] => [name, (page) => tab(page, name).click()],
      ),
      ...['Quantize', 'Base feel', 'Ahead and behind', 'Dynamics', 'Humanize'].map(
        (name): [string, (page: Page) => Promise<void>] => [
          name,
          async (page) => {
            await tab(page, 'Stages').click();
            const stage = page.getByRole('button', { name: new RegExp(`^${name}`) }).first();
            if ((await stage.getAttribute('aria-expanded')) !== 'true') await stage.click();
          },
        ],
      ),
    ],
  },
  {
    screen: 'Grooves',
    places: [
      ['list', async (page) => expect(button(page, 'Agogo, rocking')).toBeVisible()],
      ['folders', (page) => tab(page, 'Folders').click()],
      ['keepers', (page) => tab(page, 'Keepers').click()],
      [
        'a groove',
        async (page) => {
          await tab(page, 'All').click();
          await button(page, 'Agogo, rocking').click();
          const open = button(page, 'Open');
          if (await open.isVisible()) await open.click();
          await expect(tab(page, 'Bring in')).toBeVisible();
        },
      ],
      ['bring in', (page) => tab(page, 'Bring in').click()],
      ['re-voice', (page) => tab(page, 'Re-voice').click()],
      ['like this', (page) => tab(page, 'Like this').click()],
    ],
  },
  {
    screen: 'Song',
    places: [
      ['sections', () => Promise.resolve()],
      ['tray', (page) => tab(page, 'Tray').click()],
      ['live', (page) => tab(page, 'Play live').click()],
      [
        'a section',
        async (page) => {
          await tab(page, 'Sections').click();
          await button(page, 'Edit Verse').first().click();
        },
      ],
    ],
  },
  { screen: 'Export', places: [['all of it', () => Promise.resolve()]] },
];

/** By night and by day, which is told as it changes. */
const auditBoth = async (page: Page, place: string, alike = false): Promise<string[]> => {
  const found: string[] = [];
  for (const scheme of ['dark', 'light'] as const) {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' });
    await page.waitForTimeout(100);
    const faults = await audit(page, place, { all: scheme === 'dark', alike });
    found.push(...faults.map((fault) => `${scheme}: ${fault}`));
  }
  return found;
};

for (const { screen, places } of PLACES)
  test(`${screen}: nothing stands in anyone’s way, by night or by day`, async ({ page }) => {
    // A dozen places, each audited twice: on a slow machine that is minutes.
    test.setTimeout(300000);
    await openApp(page);
    await link(page, screen).click();
    const found: string[] = [];
    for (const [at, [name, go]] of places.entries()) {
      await go(page);
      found.push(...(await auditBoth(page, name, at > 0)));
    }
    expect(found).toEqual([]);
  });

test('beats and keys: nothing stands in anyone’s way', async ({ page }) => {
  await openApp(page);
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
  const found = await audit(page, 'keys');
  await page.keyboard.press('Escape');
  await button(page, 'Find a command').click();
  await expect(page.getByRole('option', { name: /^Play and stop/ })).toBeVisible();
  found.push(...(await audit(page, 'commands')));
  await page.keyboard.press('Escape');
  await button(page, 'Beats').click();
  await expect(page.getByRole('heading', { name: 'Beats', exact: true })).toBeVisible();
  found.push(...(await audit(page, 'beats')));
  expect(found).toEqual([]);
});

test('ports and stand-ins: nothing stands in anyone’s way, by night or by day', async ({ page }) => {
  await page.goto('/ports');
  const found: string[] = [];
  for (const path of ['grid', 'host', 'module']) {
    const other = await page.context().newPage();
    await other.goto(`/stand-ins/${path}`);
    await expect(other.getByRole('heading', { level: 1 })).toBeVisible();
    found.push(...(await auditBoth(other, path)));
  }
  await expect(page.getByRole('group', { name: 'Module stand-in', exact: true })).toBeVisible();
  found.push(...(await auditBoth(page, 'ports')));
  expect(found).toEqual([]);
});

test('all parts: nothing stands in anyone’s way, by night or by day', async ({ page }) => {
  await page.goto('/kit');
  await expect(page.getByRole('heading', { name: 'Parts' })).toBeVisible();
  const found = await auditBoth(page, 'parts');
  await button(page, 'Open a sheet').click();
  found.push(...(await auditBoth(page, 'a sheet')));
  await page.keyboard.press('Escape');
  await button(page, 'Ask something').click();
  found.push(...(await auditBoth(page, 'a question')));
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(button(page, 'Ask something')).toBeFocused();
  expect(found).toEqual([]);
});

test('what stands in somebody’s way is found', async ({ page }) => {
  await page.goto('/kit');
  await expect(page.getByRole('heading', { name: 'Parts' })).toBeVisible();
  await page.evaluate(() => {
    document.querySelector('main')!.insertAdjacentHTML('beforeend', '<button></button>');
  });
  expect(await audit(page, 'parts')).toEqual([expect.stringContaining('parts: button-name')]);
});

test('in the colours of somebody’s system all is still told apart', async ({ page }) => {
  await page.emulateMedia({ forcedColors: 'active' });
  await openApp(page);
  await link(page, 'Feel').click();
  const colourOf = (name: string) =>
    button(page, name)
      .locator('div')
      .first()
      .evaluate((inner) => getComputedStyle(inner).backgroundColor);
  await expect(button(page, 'Swing').last()).toHaveAttribute('aria-pressed', 'true');
  expect(await colourOf('Swing')).not.toBe(await colourOf('Straight'));
  // What is drawn without words is drawn in them too, and not in the ground's own.
  const drawn = await page.evaluate(() => {
    const style = (one: Element) => getComputedStyle(one).backgroundColor;
    const ground = style(document.body);
    return ['.hairline', '.material', '[data-testid=RNE__Slider_Track_maximum]'].map(
      (which) => style([...document.querySelectorAll(which)].at(-1)!) !== ground,
    );
  });
  expect(drawn).toEqual([true, true, true]);
});
