/** Songs: written, bounced, scheduled as they are written, and scrolled through. */
import { lanesIn } from '../core/play/driver';
import { planSong } from '../core/play/timelinePlan';
import { playable } from '../core/play/playable';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { writeBeat } from '../core/document/text';
import type { Beat } from '../core/document/schema';
import { HOW_DEFAULTS, WHAT_DEFAULTS } from '../core/export/choice';
import { exported } from '../core/export/exporting';
import { readNotes } from '../core/midi/read/readBack.mock';
import { secondsAt } from '../core/play/tempoMap';
import { DEMO_BEATS } from '../demo/beats';
import { browse } from '../scripts/browse';
import { change, startFeeder, wake, type PlannedNote } from '../src/audio/feeder';
import { felt, grown } from './beats';
import { median, report } from './report';
import { lateScrolling } from './scrolling';

const PORT = 4791;
const ADDRESS = `http://127.0.0.1:${PORT}`;
const RATE = 48000;

/** A song of so many bars of 16 lanes, in sections of 20 bars. */
const songOf = (bars: number): Beat => {
  const beat = grown(16, 4);
  const sections = Array.from({ length: bars / 20 }, (_, at) => ({
    id: `s${at}`,
    name: `Section ${at + 1}`,
    pigment: 'lichen' as const,
    entries: [{ id: 'e', patternId: 'a', times: 1, bars: 20 }],
    silent: [],
  }));
  const order = sections.map(({ id }, at) => ({ id: `o${at}`, sectionId: id, times: 1 }));
  return { ...beat, id: `song-${bars}`, name: `Song of ${bars} bars`, song: { sections, order } };
};

const ms = (work: () => void): number => {
  const begun = performance.now();
  work();
  return performance.now() - begun;
};

const writing = (): void => {
  const beat = songOf(200);
  const write = () => exported(beat, { ...HOW_DEFAULTS, scope: 'song', split: 'lanes' }, WHAT_DEFAULTS);
  const out = write();
  const notes = out.ok ? out.value.files[0]!.notes : 0;
  const times = Array.from({ length: 7 }, () => ms(write));
  report(
    `a 200-bar song of 16 lanes exported to MIDI (${notes} notes)`,
    `median ${median(times).toFixed(0)} ms`,
    'under 300 ms',
    notes > 10000 && median(times) < 300,
  );
};

/** What the audio clock is given, woken at uneven times, with edits that change nothing. */
const scheduled = (beat: Beat): PlannedNote[] => {
  const plan = planSong(beat);
  const played = playable(plan);
  const feeder = startFeeder(played, RATE, 4800);
  const end = 4800 + (secondsAt(plan.timeline.tempos, plan.timeline.length) + 2) * RATE;
  let queue: PlannedNote[] = [];
  for (let now = 0, turn = 0; now < end; now += 480 + ((turn * 7919) % 40000), turn++) {
    const batch = turn % 9 === 8 ? change(feeder, played, now) : wake(feeder, now);
    if (batch) queue = queue.filter((note) => note.frame < batch.from).concat(batch.notes);
  }
  return queue;
};

/** Every note that was scheduled has its note in the file, and the other way round. */
const compare = (beat: Beat): void => {
  const out = exported(beat, { ...HOW_DEFAULTS, scope: 'song', ppq: 1920 }, WHAT_DEFAULTS);
  if (!out.ok) throw new Error(out.error);
  const written = readNotes(out.value.files[0]!.data as Uint8Array).notes;
  const plan = planSong(beat);
  const { tempos } = plan.timeline;
  const moved = [...lanesIn(plan, 'hold')].flat().filter((note) => note.moved).length;
  const heard = scheduled(beat);
  const msOf = (tick: number) => secondsAt(tempos, tick / 2) * 1000;
  const open = new Map<number, { at: number; tick: number; velocity: number }[]>();
  for (const { note, tick, velocity } of written)
    open.set(note, [...(open.get(note) ?? []), { at: msOf(tick), tick, velocity }]);
  let worst = 0;
  let wrong = Math.abs(heard.length - written.length);
  for (const note of heard) {
    if (note.moved) continue;
    const at = ((note.frame - 4800) * 1000) / RATE;
    const list = open.get(note.note) ?? [];
    const found = list.findIndex((one) => {
      const half = (msOf(one.tick + 1) - one.at) / 2;
      return one.velocity === note.velocity && Math.abs(one.at - at) <= half + 0.1;
    });
    if (found < 0) wrong += 1;
    else worst = Math.max(worst, Math.abs(list.splice(found, 1)[0]!.at - at));
  }
  report(
    `${beat.name}: the song exported at 1920 against scheduled`,
    `${heard.length} notes, ${wrong} differ, worst ${worst.toFixed(3)} ms, ${moved} held at an edge`,
    'none differ',
    wrong === 0 && heard.length > 1000,
  );
};

const opened = async (browser: Browser, beat: Beat, rate: number): Promise<Page> => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  await context.addInitScript('globalThis.__name = (named) => named');
  const page = await context.newPage();
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'bench-')), 'song.ruddik.json');
  writeFileSync(file, writeBeat(beat));
  await page.goto(ADDRESS);
  await page.locator('[data-step]').first().waitFor();
  await page.getByRole('button', { name: 'Beats', exact: true }).click();
  await page.getByLabel('Beat file', { exact: true }).setInputFiles(file);
  await page.getByText(/was opened from/).waitFor();
  await page.waitForTimeout(1000);
  await page.getByRole('link', { name: 'Song' }).click();
  await page.getByRole('slider', { name: 'Place in the song' }).waitFor();
  await page.waitForTimeout(1500);
  const session = await context.newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate });
  return page;
};

/** Points a frame. */
const BY = { x: 24, y: 0 };

const EMPTY_PAGE =
  'data:text/html,<div id=box style="width:390px;overflow:auto"><div style="width:12000px;height:170px"></div></div>';

const scrolling = async (browser: Browser): Promise<void> => {
  const page = await opened(browser, songOf(500), 4);
  for (let zoom = 0; zoom < 5; zoom++) {
    await page.getByRole('button', { name: 'Show less of the song, larger' }).click();
    await page.waitForTimeout(300);
  }
  const bare = await browser.newContext({ viewport: { width: 390, height: 844 } });
  await bare.addInitScript('globalThis.__name = (named) => named');
  const empty = await bare.newPage();
  await empty.goto(EMPTY_PAGE);
  const session = await bare.newCDPSession(empty);
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  const rounds: string[] = [];
  const more: number[] = [];
  for (let round = 0; round < 3; round++) {
    const [song, plain] = [
      await lateScrolling(page, '.song-scroll', BY),
      await lateScrolling(empty, '#box', BY),
    ];
    more.push(song - plain);
    rounds.push(`${song.toFixed(1)} against ${plain.toFixed(1)}`);
  }
  report(
    'scrolling the timeline of 500 bars, x4: late frames in 100',
    rounds.join(', '),
    'at most 5 more than an empty page',
    median(more) <= 5,
  );
  await bare.close();
  await page.context().close();
};

const bouncing = async (browser: Browser): Promise<void> => {
  const beat = { ...felt(songOf(200)), id: 'felt-song' };
  const page = await opened(browser, beat, 1);
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByLabel('What', { exact: true }).selectOption('song');
  await page.getByLabel('As', { exact: true }).selectOption('audio');
  const times: number[] = [];
  for (const depth of ['24', '16', '32f']) {
    await page.getByLabel('Depth', { exact: true }).selectOption(depth);
    await page.getByRole('button', { name: 'Bounce to WAV' }).click();
    const told = page.getByText(/^Rendered in/);
    await told.waitFor({ timeout: 120_000 });
    times.push(Number(/([\d.]+) s/.exec((await told.textContent())!)![1]));
  }
  const { timeline } = planSong(beat);
  const seconds = secondsAt(timeline.tempos, timeline.length);
  const ratio = seconds / median(times);
  report(
    `a 200-bar song of 16 lanes (${seconds.toFixed(0)} s) bounced to stereo WAV in the browser`,
    `${times.map((time) => time.toFixed(1)).join(', ')} s, ${ratio.toFixed(0)} x as fast as it plays`,
    'at least 20 x',
    ratio >= 20,
  );
  await page.context().close();
};

const wanted = process.argv.slice(2);
const asked = (name: string): boolean => !wanted.length || wanted.includes(name);
if (asked('writing')) writing();
if (asked('compare')) {
  const song = DEMO_BEATS.find((beat) => beat.song.order.length)!;
  compare(song);
  compare({ ...felt(song), name: `${song.name} with every stage of feel` });
}
if (asked('scrolling') || asked('bouncing'))
  void browse(PORT, async (browser) => {
    if (asked('scrolling')) await scrolling(browser);
    if (asked('bouncing')) await bouncing(browser);
  });
