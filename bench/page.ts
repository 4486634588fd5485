/** What a person waits for while working in the built app, with the processor slowed four times. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Browser, Locator, Page } from '@playwright/test';
import { writeBeat } from '../core/document/text';
import { browse } from '../scripts/browse';
import { felt, grown, rich } from './beats';
import type { Beat } from '../core/document/schema';
import { median, quantile, report } from './report';
import { ADDRESS, opened, PORT, settled, slowed } from './slowed';
import { bundle, cold, second } from './visits';

declare global {
  interface Window {
    taps?: number[];
    moved?: number[];
  }
}

const withBeat = (page: Page, lanes: number, bars: number): Promise<void> =>
  withThis(page, grown(lanes, bars), lanes, bars);

const withThis = async (page: Page, beat: Beat, lanes: number, bars: number): Promise<void> => {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'bench-')), 'beat.ruddik.json');
  writeFileSync(file, writeBeat(beat));
  await page.goto(ADDRESS);
  await page.locator('[data-step]').first().waitFor();
  await page.getByRole('button', { name: 'Beats', exact: true }).click();
  await page.locator('input[aria-label="Beat file"]').setInputFiles(file);
  // The first lane has no length of its own, and all its steps.
  await page.locator(`#step-0-${bars * 16 - 1}`).waitFor({ state: 'attached' });
  await page.locator(`#step-${lanes - 1}-0`).waitFor({ state: 'attached' });
  await settled(page);
};

/** From the press to the frame in which the step is painted, as often as asked for, in ms. */
const taps = async (page: Page, lanes: number, count: number, steps = 15): Promise<number[]> => {
  await page.evaluate(() => {
    window.taps = [];
    addEventListener(
      'pointerdown',
      (event) => {
        const cell = (event.target as Element).closest('[data-step]')!;
        const before = cell.getAttribute('aria-checked');
        const look = () => {
          if (cell.getAttribute('aria-checked') === before) return void requestAnimationFrame(look);
          const painted = new MessageChannel();
          painted.port1.onmessage = () => window.taps!.push(performance.now() - event.timeStamp);
          painted.port2.postMessage(0);
        };
        requestAnimationFrame(look);
      },
      true,
    );
  });
  // Where the steps are is asked for beforehand: asking is work for the page too.
  const places: { x: number; y: number }[] = [];
  for (let tap = 0; tap < count; tap++) {
    const cell = page.locator(`#step-${tap % Math.min(lanes, 8)}-${(tap * 5) % steps}`);
    const box = (await cell.boundingBox())!;
    places.push({ x: box.x + box.width / 2, y: box.y + box.height / 2 });
  }
  for (const [tap, { x, y }] of places.entries()) {
    await page.mouse.move(x, y);
    await page.waitForTimeout(60);
    await page.mouse.down();
    await page.waitForTimeout(50);
    await page.mouse.up();
    await page.waitForTimeout(40 + ((tap * 13) % 40));
  }
  await page.waitForTimeout(300);
  return page.evaluate(() => window.taps!);
};

const TAPS = 120;

/** The page would turn with the position; a hand on it keeps it where the taps go. */
const heldOnFirstPage = async (page: Page): Promise<void> => {
  const strings = page.locator('.strings').filter({ visible: true });
  await strings.dispatchEvent('wheel');
  await strings.evaluate((one) => one.scrollTo({ left: 0 }));
};

/** A grid of as many steps that only turn over when they are pressed: what a tap costs on this machine without any app. */
const PLAIN_GRID = `data:text/html,<style>span{position:absolute;width:20px;height:40px;background:gray}
[aria-checked=true]{background:red}</style><body><script>
for(let lane=0;lane<12;lane++)for(let step=0;step<16;step++){const cell=document.body.appendChild(document.createElement('span'));
cell.id='step-'+lane+'-'+step;cell.dataset.step=step;cell.setAttribute('aria-checked','false');
cell.style.left=24*step+'px';cell.style.top=48*lane+'px'}
addEventListener('pointerdown',({target})=>target.setAttribute('aria-checked',target.getAttribute('aria-checked')!=='true'))
</script>`;

const plain = async (browser: Browser): Promise<number> => {
  const { context, page } = await opened(browser);
  await page.goto(PLAIN_GRID);
  await slowed(context, page);
  const times = await taps(page, 12, TAPS);
  await context.close();
  return quantile(times, 0.95);
};

const still = async (browser: Browser): Promise<void> => {
  const { context, page } = await opened(browser);
  await withBeat(page, 12, 1);
  await slowed(context, page);
  const times = await taps(page, 12, TAPS);
  await context.close();
  const most = quantile(times, 0.95);
  const least = await plain(browser);
  report(
    `tap to painted, 12 lanes x 16 steps, still (${times.length} taps)`,
    `median ${median(times).toFixed(0)} ms, 95 % under ${most.toFixed(0)} ms (a page without an app ${least.toFixed(0)} ms)`,
    '95 % under 42 ms',
    most < 42,
  );
};

const playing = async (browser: Browser): Promise<void> => {
  const { context, page } = await opened(browser);
  await withBeat(page, 12, 4);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await heldOnFirstPage(page);
  await slowed(context, page);
  await page.waitForTimeout(500);
  const times = await taps(page, 12, TAPS);
  await context.close();
  const most = quantile(times, 0.95);
  report(
    `tap to painted, 12 lanes x 64 steps, playing (${times.length} taps)`,
    `median ${median(times).toFixed(0)} ms, 95 % under ${most.toFixed(0)} ms`,
    '95 % under 70 ms',
    most < 70,
  );
};

/** Plays the rich beat on its first page, the processor slowed. */
const richPlaying = async (browser: Browser) => {
  const { context, page } = await opened(browser);
  await withThis(page, rich(), 16, 4);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await heldOnFirstPage(page);
  await slowed(context, page);
  await page.waitForTimeout(500);
  return { context, page };
};

const WATCHED_MS = 6000;

/** How many of a hundred frames come later than one and a half times the usual distance. */
const lateFrames = (page: Page): Promise<number> =>
  page.evaluate(
    (span) =>
      new Promise<number>((resolve) => {
        const times: number[] = [];
        const frame = (now: number) => {
          times.push(now);
          if (now - times[0]! < span) requestAnimationFrame(frame);
          else {
            const apart = times.slice(1).map((time, at) => time - times[at]!);
            resolve((100 * apart.filter((one) => one > 25).length) / apart.length);
          }
        };
        requestAnimationFrame(frame);
      }),
    WATCHED_MS,
  );

const EMPTY_PAGE = `data:text/html,<style>i{position:absolute;width:2px;height:100vh;background:red;animation:a 2s linear infinite}
@keyframes a{to{transform:translateX(390px)}}</style><i></i>`;

const frames = async (browser: Browser): Promise<void> => {
  const empty = await opened(browser);
  await empty.page.goto(EMPTY_PAGE);
  await slowed(empty.context, empty.page);
  const still = await lateFrames(empty.page);
  await empty.context.close();
  const { context, page } = await richPlaying(browser);
  const late = await lateFrames(page);
  await context.close();
  report(
    '16 lanes x 64 steps with rolls and polymeter, playing: late frames in a hundred',
    `${late.toFixed(1)}, an empty page with one moving line ${still.toFixed(1)}`,
    'at most 5 more',
    late - still <= 5,
  );
};

const richTaps = async (browser: Browser): Promise<void> => {
  const { context, page } = await richPlaying(browser);
  const times = await taps(page, 16, TAPS, 7);
  await context.close();
  const most = quantile(times, 0.95);
  report(
    `tap to painted on the same, playing (${times.length} taps)`,
    `median ${median(times).toFixed(0)} ms, 95 % under ${most.toFixed(0)} ms`,
    'median under 50 ms, 95 % under 90 ms',
    median(times) < 50 && most < 90,
  );
};

/** From the press on a beat of 64 patterns to its strings, at the machine's own speed. */
const opening = async (browser: Browser): Promise<void> => {
  const { context, page } = await opened(browser);
  await withThis(page, rich(64), 16, 4);
  const times: number[] = [];
  for (let round = 0; round < 5; round++) {
    await page.getByRole('button', { name: 'Beats', exact: true }).click();
    await page.getByRole('button', { name: 'Open Lantern Walk', exact: true }).click();
    await page.getByRole('heading', { name: 'Lantern Walk' }).waitFor();
    await page.getByRole('button', { name: 'Beats', exact: true }).click();
    const open = page.getByRole('button', { name: 'Open Rich 64', exact: true });
    await open.waitFor();
    times.push(
      await open.evaluate(
        (button: HTMLElement) =>
          new Promise<number>((resolve) => {
            const from = performance.now();
            const look = () => {
              const heads = [...document.querySelectorAll('h1')].filter((one) => one.getClientRects().length);
              const there = heads[0]?.textContent === 'Rich 64';
              if (there && document.querySelector('#step-15-0'))
                requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - from)));
              else requestAnimationFrame(look);
            };
            button.click();
            look();
          }),
      ),
    );
  }
  await context.close();
  report(
    'opening a beat of 64 patterns x 16 lanes',
    `median ${median(times).toFixed(0)} ms`,
    'under 500 ms',
    median(times) < 500,
  );
};

const MOVES = 60;

/** From a move of a control to its strings painted, and to the moment that it is heard: a slider dragged while it plays. */
const dragged = async (
  browser: Browser,
  what: string,
  beat: Beat,
  find: (page: Page) => Promise<Locator>,
  wanted: { painted: number | null; heard: number },
): Promise<void> => {
  const { context, page } = await opened(browser);
  await withThis(page, beat, 12, 4);
  const slider = await find(page);
  await slider.waitFor();
  await slider.scrollIntoViewIfNeeded();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(1500);
  await page.evaluate(() => window.ruddik!.startLog());
  await slowed(context, page);
  await page.waitForTimeout(500);
  const box = (await slider.boundingBox())!;
  await page.evaluate(() => {
    window.taps = [];
    window.moved = [];
    addEventListener(
      'mousemove',
      (event) => {
        if (!(event as MouseEvent).buttons) return;
        const from = event.timeStamp;
        window.moved!.push(from);
        // The board is painted with what React has changed; the frame after it is on the screen.
        requestAnimationFrame(() => {
          const painted = new MessageChannel();
          painted.port1.onmessage = () => window.taps!.push(performance.now() - from);
          painted.port2.postMessage(0);
        });
      },
      true,
    );
  });
  await page.mouse.move(box.x + box.width * 0.2, box.y + box.height / 2);
  await page.mouse.down();
  for (let move = 0; move < MOVES; move++) {
    await page.mouse.move(
      box.x + box.width * (0.2 + (0.7 * ((move * 7) % MOVES)) / MOVES),
      box.y + box.height / 2,
    );
    await page.waitForTimeout(60);
  }
  await page.mouse.up();
  await page.waitForTimeout(500);
  const { painted, moved, changes } = await page.evaluate(() => ({
    painted: window.taps!,
    moved: window.moved!,
    changes: window.ruddik!.readChanges(),
  }));
  await context.close();
  const most = quantile(painted, 0.95);
  if (wanted.painted !== null)
    report(
      `${what}: move to painted (${painted.length} moves)`,
      `median ${median(painted).toFixed(0)} ms, 95 % under ${most.toFixed(0)} ms`,
      `95 % within ${wanted.painted} ms`,
      painted.length > 20 && most < wanted.painted,
    );
  // What is merely handed over ahead of time lies two seconds away; a change is cut in close to now.
  const near = changes.filter(({ ahead }) => ahead < 500);
  const heard = moved.flatMap((from) => {
    const change = near.find(({ at }) => at > from);
    return change ? [change.at - from + Math.max(0, change.ahead)] : [];
  });
  const latest = quantile(heard, 0.95);
  report(
    `${what}: move to heard (${heard.length} moves)`,
    `median ${median(heard).toFixed(0)} ms, 95 % under ${latest.toFixed(0)} ms`,
    `95 % within ${wanted.heard} ms`,
    heard.length > 20 && latest < wanted.heard,
  );
};

const feelDrag = (browser: Browser): Promise<void> =>
  dragged(
    browser,
    'feel dragged while playing, 12 lanes x 64 steps',
    felt(grown(12, 4)),
    async (page) => {
      await page.getByRole('link', { name: 'Feel' }).click();
      await page.getByRole('button', { name: /^Humanize/ }).click();
      return page.getByRole('slider', { name: 'Timing spread' });
    },
    { painted: 60, heard: 100 },
  );

const makerTurn = (browser: Browser): Promise<void> =>
  dragged(
    browser,
    'a ring turned while playing, 12 lanes x 64 steps',
    grown(12, 4),
    async (page) => {
      await page.locator('.name-button').first().click();
      await page.getByRole('tab', { name: 'Make', exact: true }).click();
      return page.getByRole('slider', { name: 'Turn of the ring' });
    },
    { painted: null, heard: 100 },
  );

const BLOCKS = 10;

const blocked = async (browser: Browser): Promise<void> => {
  const { context, page } = await opened(browser);
  await withBeat(page, 12, 1);
  await page.evaluate(() => window.ruddik!.startLog());
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(1000);
  for (let block = 0; block < BLOCKS; block++) {
    await page.evaluate(() => {
      const end = performance.now() + 500;
      while (performance.now() < end);
    });
    await page.waitForTimeout(200);
  }
  const { handed, report: heard } = await page.evaluate(() => window.ruddik!.readLog());
  await context.close();
  const last = heard.started.at(-1) ?? 0;
  const due = handed.filter((note) => note.frame <= last).length;
  report(
    `hits late by more than 1 ms, the page blocked for 500 ms ${BLOCKS} times (${heard.started.length} hits)`,
    `${heard.late} late, ${due - heard.started.length} lost`,
    'none',
    heard.late === 0 && heard.started.length > 100 && due === heard.started.length,
  );
};

void browse(PORT, async (browser) => {
  const all = {
    bundle,
    cold,
    second,
    still,
    playing,
    frames,
    richTaps,
    opening,
    feelDrag,
    makerTurn,
    blocked,
  };
  const wanted = process.argv.slice(2);
  for (const [name, measure] of Object.entries(all))
    if (!wanted.length || wanted.includes(name)) await measure(browser);
});
