/** Every key that the app knows is pressed, in each way that it is pressed, and does what the list of keys says. */
import { expect, test, type Page } from '@playwright/test';
import { KEYS, type KeyId } from '../src/ui/keys';
import { button, openApp, patternShown, step } from './app';

const LANE = 'Low tom';
const at = (page: Page, number: number) => step(page, LANE, number);
const hits = (page: Page, lane = LANE) =>
  page.getByRole('group', { name: lane, exact: true }).getByRole('checkbox', { checked: true });
const undoAll = async (page: Page) => {
  while (await button(page, 'Undo').isEnabled()) await button(page, 'Undo').click();
};

/** As Playwright names it; of a group of keys one. */
const NAMES: Record<string, string> = {
  Mod: 'Control',
  Arrow: 'ArrowRight',
  '1-9': '9',
  'Digit1-9': 'Digit2',
  'Digit0-9': 'Digit1',
};
const named = (press: string): string =>
  press
    .split('+')
    .map((name) => NAMES[name] ?? (/^[A-Z]$/.test(name) ? name.toLowerCase() : name))
    .join('+');

type Press = () => Promise<void>;
type Try = (page: Page, press: Press, key: string) => Promise<void>;

/** Two hits on the lane, side by side, the first in focus. */
const twoHits = async (page: Page) => {
  for (const number of [2, 3]) {
    await at(page, number).focus();
    await page.keyboard.press('Enter');
    await expect(at(page, number)).toBeChecked();
  }
  await at(page, 2).focus();
};

const flips =
  (name: string): Try =>
  async (page, press) => {
    await at(page, 2).focus();
    await press();
    await expect(button(page, name)).toHaveAttribute('aria-pressed', 'true');
    await press();
    await expect(button(page, name)).toHaveAttribute('aria-pressed', 'false');
  };

const nudged =
  (ms: string): Try =>
  async (page, press) => {
    await at(page, 2).focus();
    await page.keyboard.press('Enter');
    await page.keyboard.press('o');
    await press();
    await expect(page.getByRole('slider', { name: /^Nudge of the hits/ })).toHaveAttribute(
      'aria-valuetext',
      new RegExp(ms),
    );
    await page.keyboard.press('o');
  };

const ON_STRINGS = {
  find: async (page, press) => {
    await press();
    await expect(page.getByLabel('What do you want to do?')).toBeFocused();
    await page.keyboard.press('Escape');
  },
  help: async (page, press) => {
    await at(page, 2).focus();
    await press();
    await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('heading', { name: 'Keys' })).toHaveCount(0);
  },
  play: async (page, press) => {
    await page.getByRole('heading', { level: 1 }).click();
    await press();
    await expect(button(page, 'Stop')).toBeVisible();
    await press();
    await expect(button(page, 'Play')).toBeVisible();
  },
  undo: async (page, press) => {
    await twoHits(page);
    await press();
    await expect(at(page, 3)).not.toBeChecked();
  },
  redo: async (page, press) => {
    await twoHits(page);
    await page.keyboard.press('Control+z');
    await press();
    await expect(at(page, 3)).toBeChecked();
  },
  showPattern: async (page, press) => {
    await at(page, 2).focus();
    const was = await patternShown(page).textContent();
    await press();
    await expect(patternShown(page)).not.toHaveText(was!);
    await page.keyboard.press('Shift+Digit1');
    await expect(patternShown(page)).toHaveText(was!);
  },
  walk: async (page, press) => {
    await at(page, 2).focus();
    await press();
    await expect(at(page, 3)).toBeFocused();
  },
  ends: async (page, press, key) => {
    await at(page, 2).focus();
    await press();
    await expect(at(page, key === 'Home' ? 1 : 32)).toBeFocused();
  },
  put: async (page, press) => {
    await at(page, 2).focus();
    await press();
    await expect(at(page, 2)).toBeChecked();
    await press();
    await expect(at(page, 2)).not.toBeChecked();
  },
  velocity: async (page, press) => {
    await at(page, 2).focus();
    await press();
    await expect(at(page, 2)).toHaveAttribute('aria-describedby', 'velocity-127');
  },
  open: async (page, press) => {
    await at(page, 2).focus();
    await press();
    await expect(button(page, LANE)).toHaveAttribute('aria-expanded', 'true');
    await press();
    await expect(button(page, LANE)).toHaveAttribute('aria-expanded', 'false');
  },
  drawer: async (page, press) => {
    await at(page, 2).focus();
    await press();
    await expect(page.getByRole('tab', { name: 'Hits', selected: true })).toBeFocused();
    await page.keyboard.press('Escape');
    await expect(at(page, 2)).toBeFocused();
    await page.keyboard.press('o');
  },
  hear: async (page, press) => {
    await at(page, 2).focus();
    const struck = () => page.evaluate(() => (window as unknown as { struck: number }).struck);
    const before = await struck();
    await press();
    await expect.poll(struck).toBe(before + 1);
  },
  mute: flips(`Mute ${LANE}`),
  solo: flips(`Solo ${LANE}`),
  extend: async (page, press) => {
    await twoHits(page);
    const count = await hits(page).count();
    await press();
    await page.keyboard.press('Delete');
    await expect(hits(page)).toHaveCount(count - 2);
  },
  selectLane: async (page, press) => {
    await twoHits(page);
    await press();
    await page.keyboard.press('Delete');
    await expect(hits(page)).toHaveCount(0);
    expect(await hits(page, 'Kick').count()).toBeGreaterThan(0);
  },
  selectAll: async (page, press) => {
    await twoHits(page);
    await press();
    await page.keyboard.press('Delete');
    await expect(hits(page, 'Kick')).toHaveCount(0);
  },
  deselect: async (page, press) => {
    await twoHits(page);
    const count = await hits(page).count();
    await page.keyboard.press('Control+a');
    await press();
    await page.keyboard.press('Delete');
    await expect(hits(page)).toHaveCount(count - 1);
  },
  copy: async (page, press) => {
    await twoHits(page);
    await press();
    await at(page, 18).focus();
    await page.keyboard.press('Control+v');
    await expect(at(page, 18)).toBeChecked();
    await expect(at(page, 2)).toBeChecked();
    await page.keyboard.press('Escape');
  },
  cut: async (page, press) => {
    await twoHits(page);
    await press();
    await expect(at(page, 2)).not.toBeChecked();
    await page.keyboard.press('Escape');
  },
  paste: async (page, press) => {
    await twoHits(page);
    await page.keyboard.press('Control+c');
    await at(page, 20).focus();
    await press();
    await expect(at(page, 20)).toBeChecked();
    await page.keyboard.press('Escape');
  },
  duplicate: async (page, press) => {
    await twoHits(page);
    await page.keyboard.press('Shift+ArrowRight');
    await press();
    await expect(at(page, 4)).toBeChecked();
    await expect(at(page, 5)).toBeChecked();
    await page.keyboard.press('Escape');
  },
  move: async (page, press) => {
    await at(page, 2).focus();
    await page.keyboard.press('Enter');
    await press();
    await expect(at(page, 2)).not.toBeChecked();
    await expect(at(page, 3)).toBeChecked();
    await page.keyboard.press('Escape');
  },
  remove: async (page, press) => {
    await twoHits(page);
    await press();
    await expect(at(page, 2)).not.toBeChecked();
  },
  nudge: nudged('[+−]1.0 ms'),
  nudgeFar: nudged('[+−]10.0 ms'),
} satisfies Partial<Record<KeyId, Try>>;

/** Pressed elsewhere, or after more was made ready: each on a page of its own. */
const ELSEWHERE = {
  recallRoute: async (page, press) => {
    await button(page, LANE).click();
    await page.getByRole('tab', { name: 'Moves', exact: true }).click();
    await button(page, 'Halves swapped').click();
    await button(page, 'Keep the route').click();
    await page.keyboard.press('Control+z');
    await at(page, 2).focus();
    await press();
    await expect(page.getByText(/Halves swapped|5678/).first()).toBeVisible();
    await page.keyboard.press('Alt+Digit0');
  },
  tune: async (page, press, key) => {
    await button(page, 'Add a lane').click();
    await page.getByLabel('Drum of the new lane', { exact: true }).selectOption({ label: 'Log drum' });
    await page.getByRole('tab', { name: 'Hits', exact: true }).click();
    const note = page.getByLabel('Note of the hits', { exact: true });
    await step(page, 'Log drum', 9).focus();
    await page.keyboard.press('Enter');
    const was = Number(await note.inputValue());
    await press();
    if (key === 'PageUp') await expect.poll(async () => Number(await note.inputValue())).toBeGreaterThan(was);
    else await expect.poll(async () => Number(await note.inputValue())).toBeLessThan(was);
  },
  compare: async (page, _, key) => {
    await page.getByRole('link', { name: 'Feel' }).click();
    await expect(page.getByRole('heading', { name: 'Feel', level: 1 })).toBeVisible();
    await page.keyboard.down(key);
    await expect(page.getByText('Without feel', { exact: true }).first()).toBeVisible();
    await page.keyboard.up(key);
    await expect(page.getByText('Without feel', { exact: true })).toHaveCount(0);
  },
  keepGroove: async (page, press) => {
    await page.getByRole('link', { name: 'Grooves' }).click();
    const list = page.getByRole('list', { name: 'Grooves' });
    const kept = list.getByRole('button', { name: /^Keep /, pressed: true });
    await list.getByRole('listitem').first().getByRole('button').first().focus();
    await page.keyboard.press('ArrowDown');
    await expect(kept).toHaveCount(0);
    await press();
    await expect(kept).toHaveCount(1);
  },
  playHere: async (page, press) => {
    await page.getByRole('link', { name: 'Song' }).click();
    await page.getByRole('slider', { name: 'Place in the song' }).focus();
    await press();
    await expect(button(page, 'Stop')).toBeVisible();
  },
} satisfies Partial<Record<KeyId, Try>>;

/** A key that is not tried here does not pass the type check. */
const TRIED: Record<KeyId, Try> = { ...ON_STRINGS, ...ELSEWHERE };

const ready = async (page: Page) => {
  await page.addInitScript(() => {
    const page = window as unknown as { struck: number };
    page.struck = 0;
    const post = Worker.prototype.postMessage as (...all: unknown[]) => void;
    Worker.prototype.postMessage = function (this: Worker, ...all: unknown[]) {
      if ((all[0] as { type?: string } | null)?.type === 'strike') page.struck += 1;
      post.apply(this, all);
    };
  });
  await openApp(page);
};

const pressed = (page: Page, id: KeyId, press: string) =>
  test.step(`${id}: ${press}`, () => TRIED[id](page, () => page.keyboard.press(named(press)), named(press)));

test('on the strings and everywhere', async ({ page }) => {
  test.setTimeout(180_000);
  await ready(page);
  for (const id of Object.keys(ON_STRINGS) as KeyId[])
    for (const press of KEYS[id]) {
      await pressed(page, id, press);
      await undoAll(page);
    }
});

for (const id of Object.keys(ELSEWHERE) as KeyId[])
  for (const press of KEYS[id])
    test(`on other screens, and after something else: ${id} by ${press}`, async ({ page }) => {
      await ready(page);
      await pressed(page, id, press);
    });
