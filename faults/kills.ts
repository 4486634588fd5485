/** The whole browser killed soon after an edit of any kind. */
import { execSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM_FLAGS } from '../playwright.config';
import { ready } from '../scripts/wander';
import type { Tried } from './report';
import { edited, opened, press, toneOf } from './steps';

const tempo = (page: Page) => page.getByLabel('Tempo', { exact: true });

const swing = (page: Page) => page.getByLabel('Swing', { exact: true }).first();
const tune = (page: Page) => page.getByRole('slider', { name: 'Tune of Kick', exact: true });

interface Seen {
  patterns: { id: string; parts: Record<string, { hits: { step: number }[] }> }[];
  lanes: { id: string }[];
}

/** A document as text, whatever order its fields came in. */
const inOrder = (value: unknown): unknown => {
  if (Array.isArray(value)) return value.map(inOrder);
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));
  return Object.fromEntries(entries.map(([key, one]) => [key, inOrder(one)]));
};

const seen = async (page: Page): Promise<Seen & { text: string }> => {
  await ready(page);
  const beat = JSON.parse((await page.evaluate(() => window.hands.beat())) ?? 'null') as Seen;
  return { ...beat, text: JSON.stringify(inOrder(beat)) };
};

const KITS = ['quay', 'arches', 'attic', 'bottles'];

/**
 * Edits of several kinds, by what a person touches or as the screens give them; `at` makes them differ from one another. Each says
 * what it was.
 */
const EDITS: ((page: Page, at: number) => Promise<string>)[] = [
  async (page, at) => {
    await press(page, at % 3, (at * 5) % 16);
    return 'a tap';
  },
  async (page, at) => {
    await tempo(page).fill(String(70 + (at % 90)));
    await tempo(page).press('Enter');
    return 'a tempo';
  },
  async (page, at) => {
    await press(page, at % 3, (at * 7) % 16);
    await page.keyboard.press('Control+z');
    return 'an undo';
  },
  async (page, at) => {
    await swing(page).fill(String(52 + (at % 22)));
    await swing(page).press('Enter');
    return 'a feel';
  },
  async (page, at) => {
    // A drag that is still in the hand when the browser goes: as it was last seen.
    const box = (await tune(page).boundingBox())!;
    await page.mouse.move(box.x + box.width * 0.5, box.y + box.height / 2);
    await page.mouse.down();
    for (let step = 1; step <= 6; step++)
      await page.mouse.move(box.x + box.width * (0.5 + (step * ((at % 7) - 3)) / 60), box.y + box.height / 2);
    await page.waitForTimeout(60);
    return 'a drag';
  },
  async (page, at) => {
    const { patterns, lanes } = await seen(page);
    const lane = lanes.find(({ id }) => patterns[0]!.parts[id]?.hits.length)!;
    const spots = [{ laneId: lane.id, step: patterns[0]!.parts[lane.id]!.hits[0]!.step }];
    const roll = { curve: (at % 9) / 10, levels: [1, 0.7, 0.5] };
    const edit = { edit: 'setRolls', args: { spots, roll } };
    await edited(page, 'doc/patternsEdited', { patternIds: [patterns[0]!.id], edit });
    return 'a roll';
  },
  async (page, at) => {
    const { patterns } = await seen(page);
    const entries = [{ id: `e${at}`, patternId: patterns[0]!.id, times: 2 }];
    const section = { id: `s${at}`, name: `Quay ${at}`, pigment: 'weld', entries, silent: [] };
    const edit = { edit: 'addSection', args: { section, placeId: `p${at}`, at: null } };
    await edited(page, 'doc/beatEdited', { edit });
    return 'a section of the song';
  },
  async (page, at) => {
    await edited(page, 'doc/beatRenamed', { name: `Ferry ${at}` });
    return 'a name';
  },
  async (page, at) => {
    await edited(page, 'doc/kitSet', { kit: KITS[at % KITS.length] });
    return 'a kit';
  },
  async (page, at) => {
    const { patterns, lanes } = await seen(page);
    const keep = { count: false, places: false, velocities: false };
    const edit = { edit: 'randomize', args: { laneIds: [lanes[at % 3]!.id], seed: at, id: `t${at}`, keep } };
    await edited(page, 'doc/patternsEdited', { patternIds: [patterns[0]!.id], edit });
    return 'a take';
  },
  async (page, at) => {
    await page.getByRole('button', { name: 'Beats', exact: true }).click();
    const { text: _, ...beat } = await seen(page);
    const file = { ...beat, id: `import-${at}`, name: `Brought ${at}` };
    await page.locator('input[aria-label="Beat file"]').setInputFiles({
      name: 'brought.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify(file)),
    });
    await page.getByText(`Brought ${at}`).first().waitFor();
    return 'an import';
  },
  async (page, at) => {
    await page.getByRole('button', { name: 'Kits and drums', exact: true }).click();
    const field = page.getByLabel('Files for the kit', { exact: true });
    await field.setInputFiles({ name: `kick ${at}.wav`, mimeType: 'audio/wav', buffer: toneOf(at) });
    await page
      .waitForFunction((name) => window.hands?.beat()?.includes(name), `kick ${at}.wav`)
      .catch(() => undefined);
    return 'samples';
  },
];

/**
 * The whole browser killed 0 to 1500 ms after an edit of any kind: the beat is as it was last seen, to the last letter; at most what
 * was done in the last 50 ms may be gone.
 */
export const killed = async (address: string, times: number, first = 0): Promise<Tried> => {
  const faults: string[] = [];
  const home = mkdtempSync(path.join(tmpdir(), 'faults-'));
  const start = () =>
    chromium.launchPersistentContext(home, {
      executablePath: '/usr/bin/chromium',
      args: CHROMIUM_FLAGS,
      viewport: { width: 1280, height: 800 },
    });
  let context = await start();
  let page = context.pages()[0] ?? (await context.newPage());
  await opened(page, address);
  let oldest = 0;
  for (let at = first; at < first + times; at++) {
    const what = await EDITS[at % EDITS.length]!(page, at);
    const { text: before } = await seen(page);
    const pause = (at * 131) % 1500;
    await page.waitForTimeout(pause);
    const { text: last } = await seen(page);
    try {
      execSync(`pkill -9 -f -- ${home}`);
    } catch {
      // It has ended.
    }
    await context.close().catch(() => undefined);
    context = await start();
    page = context.pages()[0] ?? (await context.newPage());
    await opened(page, address);
    const { text: after } = await seen(page);
    if (after === last || (pause <= 50 && after !== before && what !== 'a drag')) continue;
    oldest = Math.max(oldest, pause);
    if (pause > 50) faults.push(`${what} of ${pause} ms before the kill was gone`);
  }
  await context.close();
  return {
    what: `killed 0 to 1500 ms after an edit of ${EDITS.length} kinds (oldest gone: ${oldest} ms)`,
    tried: times,
    faults,
  };
};
