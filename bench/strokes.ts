/** How near recorded strokes come to their events: keys and pads, 200 of each, against a reading of the audio clock of its own. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { newBeat } from '../core/document/defaults';
import { gridTicks } from '../core/document/grid';
import type { Beat } from '../core/document/schema';
import { writeBeat } from '../core/document/text';
import { browse } from '../scripts/browse';
import { median, report } from './report';

const PORT = 4796;
const STROKES = 200;
const BPM = 20;
const BARS = 16;

/** What the page notes down meanwhile. */
interface Watched {
  clocks: { page: number; audio: number }[];
  events: number[];
  anchors: { frame: number; tick: number }[];
}
declare global {
  interface Window {
    watched: Watched;
  }
}

/** Listens to the audio clock, the events and where the song began, beside the app's own ways. */
const WATCH = `
window.watched = { clocks: [], events: [], anchors: [] };
const Context = window.AudioContext;
window.AudioContext = class extends Context {
  constructor(options) {
    super(options);
    setInterval(() => {
      const { contextTime, performanceTime } = this.getOutputTimestamp();
      if (contextTime) window.watched.clocks.push({ page: performanceTime, audio: contextTime * 1000 });
    }, 20);
  }
};
const Thread = window.Worker;
window.Worker = class extends Thread {
  constructor(...all) {
    super(...all);
    this.addEventListener('message', ({ data }) => data?.type === 'anchor' && window.watched.anchors.push({ frame: data.frame, tick: data.tick }));
  }
};
const note = (event) => (event.type === 'pointerdown' ? event.target.closest?.('[aria-label="Play Snare, S"]') : event.code === 'KeyS') && !event.repeat && window.watched.events.push(event.timeStamp);
addEventListener('keydown', note, true);
addEventListener('pointerdown', note, true);
`;

const opened = async (browser: Browser, beat: Beat): Promise<Page> => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(WATCH);
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'bench-')), 'beat.ruddik.json');
  writeFileSync(file, writeBeat(beat));
  await page.goto(`http://127.0.0.1:${PORT}`);
  await page.locator('[data-step]').first().waitFor();
  await page.getByRole('button', { name: 'Beats', exact: true }).click();
  await page.locator('input[aria-label="Beat file"]').setInputFiles(file);
  await page.locator('#step-0-255').waitFor({ state: 'attached' });
  return page;
};

/** The beat as the browser keeps it. */
const kept = async (page: Page): Promise<Beat> => {
  await page.waitForTimeout(2500);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Beats', exact: true }).click();
  await page
    .getByRole('button', { name: /^Save Strokes/ })
    .first()
    .click();
  const stream = await (await download).createReadStream();
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  return JSON.parse(Buffer.concat(parts).toString()) as Beat;
};

const offsetAt = (clocks: Watched['clocks'], time: number): number =>
  median(clocks.filter(({ page }) => Math.abs(page - time) < 150).map(({ page, audio }) => page - audio));

const strokes = async (browser: Browser, way: 'keys' | 'pads'): Promise<void> => {
  const made = newBeat('strokes', 'Strokes', 1);
  const beat: Beat = { ...made, tempo: BPM, patterns: [{ ...made.patterns[0]!, bars: BARS }] };
  const page = await opened(browser, beat);
  await page.getByRole('button', { name: 'Pads', exact: true }).click();
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(2000);
  const pad = page.getByRole('button', { name: 'Play Snare, S', exact: true });
  for (let stroke = 0; stroke < STROKES; stroke++) {
    if (way === 'keys') await page.keyboard.press('KeyS');
    else {
      const box = (await pad.boundingBox())!;
      await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
    }
    await page.waitForTimeout(90 + ((stroke * 61) % 150));
  }
  await page.waitForTimeout(500);
  const { clocks, events, anchors } = await page.evaluate(() => window.watched);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  const after = await kept(page);
  const part = after.patterns[0]!.parts['snare'];
  const taken = (part?.hits ?? [])
    .map(({ step, nudge }) => (step + nudge) * gridTicks(part!.grid))
    .sort((a, b) => a - b);
  const first = anchors[0]!;
  const msPerTick = 60000 / (BPM * 960);
  const struck = events.map(
    (time) => first.tick + (time - offsetAt(clocks, time) - (first.frame / 48000) * 1000) / msPerTick,
  );
  const apart = struck.map((tick, at) => ((taken[at] ?? NaN) - tick) * msPerTick);
  const mean = apart.reduce((sum, one) => sum + one, 0) / apart.length;
  const spread = Math.sqrt(apart.reduce((sum, one) => sum + (one - mean) ** 2, 0) / apart.length);
  const near = apart.filter((one) => Math.abs(one) < 1).length;
  if (process.env['DETAIL'])
    events.forEach((time, at) => {
      if (Math.abs(apart[at]!) > 0.5)
        console.log(
          at,
          apart[at]!.toFixed(2),
          clocks
            .filter(({ page }) => Math.abs(page - time) < 400)
            .map(({ page, audio }) => `${Math.round(page - time)}:${(page - audio).toFixed(1)}`)
            .join(' '),
        );
    });
  const steps = clocks.slice(1).map((one, at) => one.page - one.audio - clocks[at]!.page + clocks[at]!.audio);
  const jumps = steps.filter((one) => Math.abs(one) > 20).length;
  report(
    `recorded ${way} against their events, ${taken.length} of ${events.length} (${near} within 1 ms; ${jumps} jumps of the audio clock)`,
    `mean ${mean.toFixed(2)} ms, SD ${spread.toFixed(2)} ms`,
    'mean within 1, SD under 1 ms',
    Math.abs(mean) < 1 && spread < 1 && taken.length === STROKES,
  );
  await page.close();
};

const main = () =>
  browse(PORT, async (browser) => {
    await strokes(browser, 'keys');
    await strokes(browser, 'pads');
  });

void main();
