/** The guide, as someone would do it who has never seen the app. */
import { expect, test, type Page } from '@playwright/test';
import { readNotes } from '../core/midi/read/readBack.mock';
import { button, bytesOf, downloaded, patternShown, step } from './app';
import type { Hand } from './hand';

const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true });
const hitsOf = (page: Page, lane: string) =>
  page.getByRole('group', { name: lane, exact: true }).getByRole('checkbox', { checked: true });
const velocityOf = async (page: Page, lane: string, number: number): Promise<number> => {
  const said = await step(page, lane, number).evaluate(
    (node) =>
      document.getElementById(node.getAttribute('aria-describedby') ?? '')?.textContent ??
      node.getAttribute('aria-description'),
  );
  return Number(/velocity (\d+)/.exec(said ?? '')?.[1]);
};

/** Each step of the guide, in its words. */
export const tenMinutes = async (page: Page, hand: Hand): Promise<void> => {
  let strokes = 0;
  await test.step('an empty pattern', async () => {
    await hand.press(patternShown(page));
    await hand.press(button(page, 'New pattern'));
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toBeHidden();
    for (const number of [1, 11]) await hand.toggle('Kick', number);
    for (const number of [5, 13]) await hand.toggle('Snare', number);
    await expect(hitsOf(page, 'Kick')).toHaveCount(2);
    await expect(hitsOf(page, 'Snare')).toHaveCount(2);
  });
  await test.step('a line of hats', async () => {
    await hand.paint('Closed hat', 1, 16);
    await expect(hitsOf(page, 'Closed hat')).toHaveCount(16);
    await hand.press(button(page, 'Play'));
    await expect(button(page, 'Stop')).toBeVisible();
    await hand.press(button(page, 'Stop'));
    await hand.press(button(page, 'Closed hat'));
    await hand.select('Closed hat', 3);
    await expect(page.getByText('Closed hat, step 3', { exact: true })).toBeVisible();
    const before = await velocityOf(page, 'Closed hat', 3);
    await hand.soften('Closed hat', 3);
    expect(await velocityOf(page, 'Closed hat', 3)).toBeLessThan(before);
    expect(await velocityOf(page, 'Closed hat', 4)).toBe(before);
  });
  await test.step('a roll', async () => {
    await hand.select('Closed hat', 7);
    await hand.press(button(page, '4 rising'));
    await expect(page.getByRole('slider', { name: 'Stroke 4', exact: true })).toBeVisible();
    const count = page.getByRole('slider', { name: 'Strokes of the roll' });
    await hand.slide(count, 6);
    strokes = Number(await count.getAttribute('aria-valuenow'));
    expect(strokes).toBeGreaterThan(4);
    await expect(page.getByRole('slider', { name: `Stroke ${strokes}`, exact: true })).toBeVisible();
  });
  await test.step('a flam on the snare', async () => {
    await hand.press(button(page, 'Snare'));
    await hand.select('Snare', 5);
    await expect(page.getByText('Snare, step 5', { exact: true })).toBeVisible();
    await hand.press(button(page, 'Open flam'));
    await expect(page.getByText('Grace strokes: flam')).toBeVisible();
    await expect(hitsOf(page, 'Snare')).toHaveCount(2);
  });
  await test.step('a lane that goes its own way', async () => {
    await hand.press(button(page, 'Shaker'));
    await hand.press(tab(page, 'Lane'));
    await hand.write(page.getByLabel('Steps of Shaker', { exact: true }), '7');
    await expect(page.getByText('All lanes meet again after 14 bars.')).toBeVisible();
  });
  await test.step('chance, without losing anything', async () => {
    await hand.press(button(page, 'Closed hat'));
    await hand.press(tab(page, 'Make'));
    await hand.press(button(page, 'Chance'));
    await hand.press(button(page, 'Vary a quarter'));
    const takes = page.getByRole('listbox', { name: 'Takes' }).getByRole('option');
    await expect(takes).toHaveCount(2);
    await hand.press(takes.first());
    await hand.press(button(page, 'Use it'));
    await expect(hitsOf(page, 'Closed hat')).toHaveCount(16);
  });
  await test.step('playing it in', async () => {
    await hand.press(button(page, 'Pads'));
    await hand.press(button(page, 'Record'));
    await expect(button(page, 'Record')).toHaveAttribute('aria-pressed', 'true');
    await hand.press(button(page, 'Record'));
    await hand.press(button(page, 'Pads'));
  });
  await test.step('made to feel played', async () => {
    await hand.press(page.getByRole('link', { name: 'Feel', exact: true }));
    await hand.write(page.getByLabel('Swing', { exact: true }).first(), '62');
    await hand.press(page.getByRole('button', { name: /^Humanize/ }).first());
    await hand.press(button(page, 'Another take').first());
  });
  await test.step('out', async () => {
    await hand.press(page.getByRole('link', { name: 'Export', exact: true }));
    const file = await downloaded(page, () => hand.press(button(page, 'Export MIDI')));
    const { notes } = readNotes(await bytesOf(file));
    expect(notes.filter(({ note }) => note === 36)).toHaveLength(2);
    // Two backbeats and the grace stroke before the first.
    expect(notes.filter(({ note }) => note === 38)).toHaveLength(3);
    // Sixteen hats, one of them a roll.
    expect(notes.filter(({ note }) => note === 42)).toHaveLength(strokes + 15);
  });
};

/** What someone already played: found, heard, brought in; then a song, and out. */
export const theRest = async (page: Page, hand: Hand): Promise<void> => {
  const link = (name: string) => page.getByRole('link', { name, exact: true });
  await test.step('a lane ahead and behind, a template, without feel', async () => {
    await hand.press(link('Feel'));
    await hand.press(page.getByRole('button', { name: /^Ahead and behind/ }));
    await hand.write(page.getByLabel('Offset of Snare', { exact: true }), '9');
    await hand.press(page.getByRole('button', { name: /^Base feel/ }));
    await hand.press(button(page, 'Template'));
    await expect(button(page, 'Template')).toHaveAttribute('aria-pressed', 'true');
  });
  await test.step('grooves that someone already played', async () => {
    await hand.press(link('Grooves'));
    await hand.write(page.getByRole('searchbox', { name: 'Search grooves' }), '7/8');
    await expect(page.getByText(/7\/8/).locator('visible=true').first()).toBeVisible();
    await hand.write(page.getByRole('searchbox', { name: 'Search grooves' }), 'back-alley steam fill');
    await hand.press(button(page, 'Back-alley steam, fill 1'));
    await expect(button(page, 'Stop')).toBeVisible();
    await hand.press(button(page, 'Stop the groove'));
    await hand.press(button(page, 'Set the groove aside in the tray'));
    await hand.write(page.getByRole('searchbox', { name: 'Search grooves' }), 'back-alley steam');
    await hand.press(button(page, 'Back-alley steam'));
    // On a wide screen its page stands beside the list.
    if ((page.viewportSize()?.width ?? 0) < 1024) await hand.press(button(page, 'Open'));
    await expect(page.getByRole('heading', { name: 'Back-alley steam' })).toBeVisible();
    await hand.press(tab(page, 'Bring in'));
    await hand.press(button(page, 'As a new pattern'));
    await expect(page.getByText('“Back-alley steam” is a new pattern of your beat.')).toBeVisible();
  });
  await test.step('a song', async () => {
    await hand.press(link('Song'));
    await hand.press(button(page, 'Forms'));
    await hand.press(page.getByRole('button', { name: /^16-bar loop/ }));
    await hand.press(page.getByRole('button', { name: /^Edit / }).first());
    await hand.press(button(page, 'Offer fills'));
    await page.keyboard.press('Escape');
    await hand.press(tab(page, 'Play live'));
  });
  await test.step('out', async () => {
    await hand.press(link('Export'));
    await hand.choose(page.getByLabel('What', { exact: true }), 'The whole song');
    await expect(
      page
        .getByText(/\.mid$/)
        .locator('visible=true')
        .first(),
    ).toBeVisible();
    const file = await downloaded(page, () => hand.press(button(page, 'Export MIDI')));
    const { end } = readNotes(await bytesOf(file));
    expect(end).toBe(16 * 3840);
  });
};
