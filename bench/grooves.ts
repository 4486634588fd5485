/** Grooves by the ten thousand: taken in, looked for, scrolled through, heard, and maps guessed. */
import { positionOf } from '../core/document/position';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { newBeat } from '../core/document/defaults';
import { steadyBars } from '../core/feel/bars';
import { grooveTicks, type Groove } from '../core/groove/groove';
import { grooveToBeat } from '../core/groove/grooveToBeat';
import { builtInGrooves } from '../core/groove/library';
import { examplesFrom } from '../core/groove/perform';
import { EXPORT_DEFAULTS, exportPattern } from '../core/export/exportPattern.mock';
import { guessMap, type Example } from '../core/analysis/guessMap';
import { ticksPerMs } from '../core/units';
import { browse } from '../scripts/browse';
import { median, quantile, report } from './report';
import { atRest, lateScrolling } from './scrolling';

const PORT = 4791;
const ADDRESS = `http://127.0.0.1:${PORT}`;
const SLOWED = 4;
const FILES = 5000;

declare global {
  interface Window {
    longest?: number[];
    typed?: number[];
    begun?: number;
  }
}

/** A folder of many different files: grooves of the library at other tempos, played more than once. */
const folderOf = (count: number, name: string): string => {
  const folder = path.join(mkdtempSync(path.join(tmpdir(), 'bench-')), name);
  const grooves = builtInGrooves();
  const beat = newBeat('b', 'Beat', 1);
  for (let at = 0; at < count; at++) {
    const groove = grooves[at % grooves.length]!;
    const tempo = 60 + (at % 120);
    const played = grooveToBeat(groove, { ...beat, name: `Take ${at}` }, { tempo, kit: 'quay', once: false });
    const passes = 1 + (at % 4);
    const { bytes } = exportPattern(played, played.patterns[0]!, { ...EXPORT_DEFAULTS, ppq: 480, passes });
    const under = path.join(folder, `Row ${at % 40}`);
    mkdirSync(under, { recursive: true });
    writeFileSync(path.join(under, `${groove.name} ${at}.mid`), bytes);
  }
  return folder;
};

const openGrooves = async (browser: Browser): Promise<Page> => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  await context.addInitScript('globalThis.__name = (named) => named');
  const page = await context.newPage();
  await page.goto(`${ADDRESS}/grooves`);
  await page.getByRole('list', { name: 'Grooves' }).waitFor();
  await page.waitForTimeout(1000);
  return page;
};

const watchTasks = (page: Page): Promise<void> =>
  page.evaluate(() => {
    window.longest = [];
    new PerformanceObserver((list) => {
      // What the browser does before it hands the files over is not the page's.
      for (const { startTime, duration } of list.getEntries())
        if (window.begun && startTime >= window.begun) window.longest!.push(duration);
    }).observe({ type: 'longtask', buffered: false });
  });

/** In seconds, from the moment the page has its files: handing them over is the browser's own work. */
const importFolder = async (page: Page, folder: string): Promise<number> => {
  const field = page.getByLabel('Folder of MIDI files', { exact: true });
  await field.evaluate((input) => {
    window.begun = 0;
    input.addEventListener('change', () => (window.begun = performance.now()), { capture: true, once: true });
  });
  await field.setInputFiles(folder);
  await page.getByText('grooves imported').waitFor({ timeout: 120_000 });
  return page.evaluate(() => (performance.now() - window.begun!) / 1000);
};

/** From a letter typed to the rows that answer it painted, in ms. */
const search = async (page: Page): Promise<number[]> => {
  await page.evaluate(() => {
    window.typed = [];
    let pressed = 0;
    window.addEventListener('keydown', ({ timeStamp }) => (pressed = timeStamp), { capture: true });
    // React has drawn the rows when the event comes to the window: what is left is to paint them.
    window.addEventListener('input', () => {
      const since = pressed;
      pressed = 0;
      if (!since) return;
      requestAnimationFrame(() => {
        const painted = new MessageChannel();
        painted.port1.onmessage = () => window.typed!.push(performance.now() - since);
        painted.port2.postMessage(0);
      });
    });
  });
  const field = page.getByRole('searchbox');
  await field.focus();
  for (const word of ['noodle', 'ghost', 'paddle', 'rain', 'fill']) {
    // By keys alone: whatever finds the field anew works in the page, and would be measured with it.
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Backspace');
    await page.waitForTimeout(400);
    for (const letter of word) {
      await page.keyboard.press(letter);
      await page.waitForTimeout(250);
    }
  }
  await field.fill('');
  return page.evaluate(() => window.typed!);
};

/** Points a frame. */
const BY = { x: 0, y: 40 };

const EMPTY_LIST =
  'data:text/html,<div id=box style="height:600px;overflow:auto"><div style="height:560000px"></div></div>';

const many = async (browser: Browser): Promise<void> => {
  const page = await openGrooves(browser);
  await watchTasks(page);
  const seconds = await importFolder(page, folderOf(FILES, 'First'));
  const tasks = await page.evaluate(() => window.longest!);
  const longest = Math.max(0, ...tasks);
  report(`${FILES} MIDI files read and kept`, `${seconds.toFixed(1)} s`, 'under 15 s', seconds < 15);
  report(
    'the page meanwhile: longest task',
    `${longest.toFixed(0)} ms, ${tasks.length} over 50 ms`,
    'none over 50 ms',
    tasks.length === 0,
  );
  await page.getByRole('button', { name: 'Close the summary' }).click();
  await importFolder(page, folderOf(FILES, 'Second'));
  await page.getByRole('button', { name: 'Close the summary' }).click();
  await page.waitForTimeout(3000);

  const bare = await browser.newContext();
  await bare.addInitScript('globalThis.__name = (named) => named');
  const empty = await bare.newPage();
  await empty.goto(EMPTY_LIST);
  const rounds: number[] = [];
  for (let round = 0; round < 3; round++) {
    const [list, plain] = [
      await lateScrolling(page, '[data-testid="groove scroll"]', BY),
      await lateScrolling(empty, '#box', BY),
    ];
    rounds.push(list - plain);
  }
  await bare.close();
  report(
    'scrolling 10,000 rows: late frames more than an empty list',
    rounds.map((more) => more.toFixed(1)).join(', '),
    'at most 5 in 100',
    median(rounds) <= 5,
  );

  await atRest(page, '[data-testid="groove scroll"]');
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });
  const typed = await search(page);
  report(
    `search among 10,000: keystroke to rows (${typed.length} letters)`,
    `median ${median(typed).toFixed(0)} ms, 95 % under ${quantile(typed, 0.95).toFixed(0)} ms`,
    '95 % under 60 ms',
    typed.length > 15 && quantile(typed, 0.95) < 60,
  );
  await page.context().close();
};

const firstSound = async (browser: Browser): Promise<void> => {
  const page = await openGrooves(browser);
  await page.getByRole('list', { name: 'Grooves' }).getByRole('button').first().click();
  await page.waitForTimeout(2500);
  const times: number[] = [];
  for (let at = 1; at < 8; at++) {
    await page.getByRole('button', { name: 'Stop the groove' }).click();
    await page.waitForTimeout(300);
    const time = await page.evaluate(async (row) => {
      window.ruddik!.startLog();
      const begun = performance.now();
      document.querySelectorAll<HTMLElement>('[role=listitem] [role=button]:first-child')[row]!.click();
      for (;;) {
        const [first] = window.ruddik!.readChanges();
        // What was handed over, and how far ahead of the ear it begins.
        if (first) return first.at + Math.max(0, first.ahead) - begun;
        await new Promise((resolve) => setTimeout(resolve, 1));
      }
    }, at);
    times.push(time);
    await page.waitForTimeout(400);
  }
  report(
    'tap on a groove to its first sound',
    `median ${median(times).toFixed(0)} ms, longest ${Math.max(...times).toFixed(0)} ms`,
    'under 150 ms',
    Math.max(...times) < 150,
  );
  await page.context().close();
};

const RIGHT: Record<string, string> = { clap: 'snare', 'snare.sideStick': 'snare', 'snare.second': 'snare' };
const sortOf = (id: string): string => RIGHT[id] ?? id.split('.')[0]!;
const MAPS = 20;

/** Numbers in an order that says nothing, another for each map. */
const numbersOf = (map: number): number[] =>
  Array.from({ length: 64 }, (_, at) => ({ at, key: Math.imul(at + 1, 2654435761 + map * 40503) >>> 0 }))
    .sort((a, b) => a.key - b.key)
    .map(({ at }) => at + 30);

const toldOf = (groove: Groove, map: number, examples: Example[]): [number, number] => {
  const numbers = numbersOf(map);
  const rate = ticksPerMs(groove.bpm);
  const notes = groove.lanes.flatMap(({ part }, lane) =>
    part.hits.map((hit) => ({
      at: positionOf(hit, part.grid),
      velocity: hit.velocity,
      lane: `10/${numbers[lane]!}`,
    })),
  );
  const { meter } = groove;
  const performance = {
    notes,
    bars: steadyBars(meter),
    meter,
    length: grooveTicks(groove),
    ticksPerMs: () => rate,
  };
  const guesses = new Map(guessMap(performance, examples).map((guess) => [guess.note, guess]));
  const asked = groove.lanes
    .map(({ instrument }, lane) => ({ instrument, guess: guesses.get(numbers[lane]!)! }))
    .filter(({ instrument }) => ['kick', 'snare', 'hat.closed'].includes(instrument));
  return [
    asked.filter(({ instrument, guess }) => sortOf(guess.instrument) === sortOf(instrument)).length,
    asked.length,
  ];
};

const guessing = (): void => {
  const all = builtInGrooves();
  const kits = all.filter(({ kind }) => kind !== 'percussion');
  const known = examplesFrom(all);
  const unseen = new Map(
    [...new Set(kits.map(({ style }) => style))].map((style) => [
      style,
      examplesFrom(all.filter((groove) => groove.style !== style)),
    ]),
  );
  const share = (of: (groove: Groove) => Example[], maps: number): number => {
    let [right, asked] = [0, 0];
    for (let map = 0; map < maps; map++)
      for (const groove of kits) {
        const [one, count] = toldOf(groove, map, of(groove));
        right += one;
        asked += count;
      }
    return (100 * right) / asked;
  };
  const told = share(() => known, MAPS);
  report(
    `guessing the map: our own grooves through ${MAPS} random maps`,
    `${told.toFixed(1)} % of kick, snare and hat right`,
    '90 %',
    told >= 90,
  );
  const strange = share((groove) => unseen.get(groove.style)!, 1);
  report(
    'the same, of a style that is left out of what it goes by',
    `${strange.toFixed(1)} %`,
    'for comparison',
    true,
  );
};

const wanted = process.argv.slice(2);
const asked = (name: string): boolean => !wanted.length || wanted.includes(name);
if (asked('guessing')) guessing();
void browse(PORT, async (browser) => {
  if (asked('firstSound')) await firstSound(browser);
  if (asked('many')) await many(browser);
});
