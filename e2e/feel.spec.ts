import { expect, test, type Page } from '@playwright/test';
import { templateMidi } from '../core/midi/convert/templateMidi';
import { readMidiFile } from '../core/midi/read/readMidi';
import { secondsAt } from '../core/play/tempoMap';
import { readNotes } from '../core/midi/read/readBack.mock';
import { TEMPLATES } from '../core/feel/templates';
import { beadX, button, bytesOf, downloaded, openApp, saved, setField, setSlider } from './app';

const stage = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const slider = (page: Page, name: string) => page.getByRole('slider', { name, exact: true });
const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();

const openFeel = async (page: Page): Promise<void> => {
  await openApp(page);
  await page.getByRole('link', { name: 'Feel' }).click();
  await expect(page.getByRole('heading', { name: 'Feel', exact: true })).toBeVisible();
};

const openStage = async (page: Page, name: string): Promise<void> => {
  const head = stage(page, name).getByRole('button', { name: new RegExp(`^${name}`) });
  if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
};

/** The notes of the pattern shown, as they are written. */
const exported = async (page: Page) => {
  await page.getByRole('link', { name: 'Export' }).click();
  const file = await downloaded(page, () => button(page, 'Export MIDI').click());
  await page.getByRole('link', { name: 'Feel' }).click();
  return readNotes(await bytesOf(file)).notes;
};

test('a straight beat takes the feel of a played file, its snare is laid back, its hats loosened', async ({
  page,
}) => {
  await openFeel(page);
  await button(page, 'Straight').click();
  const straight = await exported(page);

  await tab(page, 'Templates');
  const played = TEMPLATES.find(({ id }) => id === 'late-ferry')!;
  await page.getByLabel('Take a template from a MIDI file').setInputFiles({
    name: 'played.mid',
    mimeType: 'audio/midi',
    buffer: Buffer.from(templateMidi(played)),
  });
  await expect(page.getByText(/^16 of 16 notes/)).toBeVisible();
  await page.getByLabel('Name of the template').fill('From the quay');
  await button(page, 'Keep it').click();
  await button(page, 'Use From the quay').click();

  await tab(page, 'Stages');
  await expect(stage(page, 'Base feel')).toContainText('From the quay, timing 100 %');
  const bent = await exported(page);
  // The closed hat on the third sixteenth stands 9 hundredths of a step late, as the template has it.
  const third = (notes: typeof bent) => notes.find(({ note, tick }) => note === 42 && tick > 440)!;
  const late = third(bent).tick - third(straight).tick;
  expect(Math.abs(late - played.slots[2]!.offset * 240)).toBeLessThanOrEqual(1);

  await openStage(page, 'Ahead and behind');
  await setField(page, 'Offset of Snare', '9');
  await expect(stage(page, 'Ahead and behind')).toContainText('Snare 9 ms behind');
  await button(page, 'Closed hat').click();
  await openStage(page, 'Humanize');
  await setSlider(page, 'Timing spread', '6');
  await setSlider(page, 'Share of the timing spread of Closed hat', '150');
  const felt = await exported(page);
  const snares = (notes: typeof felt) => notes.filter(({ note }) => note === 38).map(({ tick }) => tick);
  expect(snares(felt)).toHaveLength(snares(bent).length);
  const moved = snares(felt).map((tick, at) => tick - snares(bent)[at]!);
  // 9 ms at 92 BPM are 13.2 ticks; the spread adds to and takes from it.
  expect(moved.reduce((sum, one) => sum + one, 0) / moved.length).toBeGreaterThan(4);
  expect(new Set(moved).size).toBeGreaterThan(1);

  await saved(page);
  await page.reload();
  await expect(stage(page, 'Ahead and behind')).toContainText('Snare 9 ms behind');
  expect(await exported(page)).toEqual(felt);
});

test('what is heard is what is written, every stage at work, and a change is heard while it plays', async ({
  page,
}) => {
  await openFeel(page);
  await openStage(page, 'Quantize');
  await setSlider(page, 'Quantize strength', '60');
  await openStage(page, 'Humanize');
  await setSlider(page, 'Timing spread', '8');
  await setSlider(page, 'Velocity spread', '6');
  await openStage(page, 'Dynamics');
  await setSlider(page, 'Kick contrast', '60');
  await setField(page, 'Tempo', '240');
  const written = await exported(page);

  await openStage(page, 'Dynamics');
  await page.evaluate(() => window.ruddik!.startLog());
  await button(page, 'Play').click();
  await expect
    .poll(async () => (await page.evaluate(() => window.ruddik!.readLog())).report.started.length)
    .toBeGreaterThan(30);
  await setSlider(page, 'Level of the kit', '50');
  await expect
    .poll(async () =>
      (await page.evaluate(() => window.ruddik!.readLog())).handed
        .slice(-12)
        .every(({ velocity }) => velocity < 90),
    )
    .toBe(true);
  const { handed } = await page.evaluate(() => window.ruddik!.readLog());
  await button(page, 'Stop').click();

  const first = handed[0]!.frame;
  const perTick = (48000 * 60) / (240 * 960);
  // What sounded before the level was changed, the loop's edges left out.
  const early = written.filter(({ tick }) => tick > 200 && tick < 3000);
  expect(early.length).toBeGreaterThan(10);
  for (const note of early) {
    const near = handed.filter((one) => one.note === note.note && one.velocity === note.velocity);
    const apart = near.map(({ frame }) => Math.abs(frame - first - note.tick * perTick));
    expect(Math.min(...apart)).toBeLessThan(48 * 12);
  }
});

test('players: a band to begin with, one drawn to another, its drift as the tempo, heard as it is written', async ({
  page,
}) => {
  await openFeel(page);
  await openStage(page, 'Humanize');
  await page.getByRole('radio', { name: 'Players who follow one another' }).click();
  await page.getByLabel('Begin with a band', { exact: true }).selectOption('leads');
  const out = page.getByText(/^What comes out/);
  const tight = await out.textContent();
  await page.getByLabel('Begin with a band', { exact: true }).selectOption('late');
  await expect(out).not.toHaveText(tight!);
  const map = page.locator('.band-map');
  await map.scrollIntoViewIfNeeded();
  const place = async (name: string) => {
    const box = (await map.getByRole('radio', { name, exact: true }).locator('circle').boundingBox())!;
    return [box.x + box.width / 2, box.y + box.height / 2] as const;
  };
  await page.getByLabel('Begin with a band', { exact: true }).selectOption('strangers');
  await map.scrollIntoViewIfNeeded();
  await page.mouse.move(...(await place('Toms')));
  await page.mouse.down();
  await page.mouse.move(...(await place('Hats')), { steps: 6 });
  await page.mouse.up();
  await expect(page.getByText(/Toms goes mostly by Hats/)).toBeVisible();
  await button(page, 'Undo').click();
  await expect(page.getByText(/Toms goes mostly by Hats/)).toHaveCount(0);
  await page.getByRole('checkbox', { name: 'The click follows the band' }).click();
  await page.getByRole('link', { name: 'Export' }).click();
  await setField(page, 'Passes', '4');
  const midi = readMidiFile(await bytesOf(await downloaded(page, () => button(page, 'Export MIDI').click())));
  if (!midi.ok) throw new Error(midi.error);
  expect(midi.value.tempoChanges).toBeGreaterThan(20);
  await page.getByRole('link', { name: 'Feel' }).click();
  await page.evaluate(() => window.ruddik!.startLog());
  await button(page, 'Play').click();
  await expect
    .poll(async () => (await page.evaluate(() => window.ruddik!.readLog())).report.started.length)
    .toBeGreaterThan(20);
  const { handed } = await page.evaluate(() => window.ruddik!.readLog());
  await button(page, 'Stop').click();
  const { tempos, ppq, notes } = midi.value;
  const first = handed[0]!.frame;
  const early = notes
    .map(({ start, note, velocity }) => ({ at: secondsAt(tempos, (start * 960) / ppq), note, velocity }))
    .filter(({ at }) => at > 0.2 && at < 1.5);
  expect(early.length).toBeGreaterThan(8);
  const begins = Math.min(...notes.map(({ start }) => secondsAt(tempos, (start * 960) / ppq)));
  for (const { at, note, velocity } of early) {
    const near = handed.filter((one) => one.note === note && one.velocity === velocity);
    expect(
      Math.min(...near.map(({ frame }) => Math.abs((frame - first) / 48000 - at + begins))),
    ).toBeLessThan(0.012);
  }
  await saved(page);
  await page.reload();
  await expect(stage(page, 'Humanize')).toContainText('6 players');
});

test('beads move with the stages, and the hinge turns the swing by hand', async ({ page }) => {
  await openFeel(page);
  await button(page, 'Straight').click();
  const straight = await beadX(page, 'Closed hat', 4);
  await button(page, 'Swing').click();
  await button(page, 'Swing of all lanes: triplet').click();
  await expect.poll(() => beadX(page, 'Closed hat', 4)).toBeGreaterThan(straight + 4);
  const hinge = slider(page, 'Swing hinge');
  const box = (await hinge.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 60, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  // On a phone's string a point is a small turn: 60 of them do not go through the whole range.
  const turned = Number(await hinge.getAttribute('aria-valuenow'));
  expect(turned).toBeGreaterThan(42);
  expect(turned).toBeLessThan(60);
  await button(page, 'Undo').click();
  await expect(hinge).toHaveAttribute('aria-valuenow', '66.67');
});

test('compared by holding C, measured against a template, written in and taken out again', async ({
  page,
}) => {
  await openFeel(page);
  await button(page, 'Swing of all lanes: triplet').click();
  await page.keyboard.down('c');
  await expect(page.getByText('Without feel', { exact: true }).first()).toBeVisible();
  await page.keyboard.up('c');
  await tab(page, 'Report');
  await expect(page.getByText(/^Swing 6[678]\.\d % on sixteenths/)).toBeVisible();
  await page.getByLabel('Set it against', { exact: true }).selectOption({ label: 'template Late ferry' });
  await expect(page.getByRole('region', { name: 'Differences' })).toContainText('Spread');
  await tab(page, 'Charts');
  await expect(page.getByRole('img', { name: /Distance of each hit/ })).toBeVisible();
  const before = await exported(page);
  await tab(page, 'Feels');
  await button(page, 'Write in all lanes').click();
  await expect(page.getByText(/was written into all lanes/)).toBeVisible();
  const after = await exported(page);
  expect(after.map(({ note, velocity }) => [note, velocity])).toEqual(
    before.map(({ note, velocity }) => [note, velocity]),
  );
  for (const [at, note] of after.entries())
    expect(Math.abs(note.tick - before[at]!.tick)).toBeLessThanOrEqual(1);
  await button(page, 'Undo').click();
  await tab(page, 'Stages');
  await expect(stage(page, 'Base feel')).toContainText('Swing 66.67 % on sixteenths');
});
