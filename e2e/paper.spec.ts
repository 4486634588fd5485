/** What an independent program makes of the drum parts: it draws them, and its own reading is held against the hits. */
import { createRequire } from 'node:module';
import { expect, test } from '@playwright/test';
import { EMPTY_LANE_PATTERN, newBeat, newHit, newPattern } from '../core/document/defaults';
import type { Grid } from '../core/document/grid';
import type { Beat, LanePattern } from '../core/document/schema';
import { DEMO_BEATS } from '../demo/beats';
import { HOW_DEFAULTS, WHAT_DEFAULTS } from '../core/export/choice';
import { exported } from '../core/export/exporting';
import { writtenBars } from '../core/export/written';
import { button, openApp } from './app';

const READER = createRequire(__filename).resolve('opensheetmusicdisplay/build/opensheetmusicdisplay.min.js');

interface DrawnNote {
  /** In quarters from the start of its bar. */
  at: number;
  bar: number;
}

/** What the reader offers, as far as it is used here. */
interface Reader {
  load(xml: string): Promise<unknown>;
  render(): void;
  Sheet: {
    SourceMeasures: {
      VerticalSourceStaffEntryContainers: {
        Timestamp: { RealValue: number };
        StaffEntries: (
          { VoiceEntries: { IsGrace: boolean; Notes: { isRest(): boolean }[] }[] } | undefined
        )[];
      }[];
    }[];
  };
}

/** Triplets in the hats against sixteenths in snare and kick, and both in one lane. */
const against = (): Beat => {
  const beat = newBeat('against', 'Two against three', 1);
  const part = (grid: Grid, steps: number[]): LanePattern => ({
    ...EMPTY_LANE_PATTERN,
    grid,
    hits: steps.map((step) => newHit(step)),
  });
  const parts = {
    'hat.closed': part('1/8T', [0, 1, 2, 3, 5, 6, 7, 8, 9, 10, 11]),
    snare: part('1/16', [1, 3, 4, 7, 9, 12, 15]),
    kick: part('1/32T', [0, 4, 9, 24, 28, 33, 40]),
  };
  return { ...beat, patterns: [{ ...newPattern('a', 'A'), parts }] };
};

for (const beat of [...DEMO_BEATS, against()])
  test(`the part of ${beat.name} is drawn without a fault, every hit where it belongs`, async ({ page }) => {
    const scope = beat.song.order.length ? 'song' : 'pattern';
    const out = exported(beat, { ...HOW_DEFAULTS, kind: 'paper', scope }, WHAT_DEFAULTS);
    if (!out.ok) throw new Error(out.error);
    const faults: string[] = [];
    page.on('pageerror', (fault) => faults.push(fault.message));
    await page.setContent('<div id="part" style="width:1100px"></div>');
    await page.addScriptTag({ path: READER });
    const drawn = await page.evaluate(async (xml) => {
      const { OpenSheetMusicDisplay } = (
        window as unknown as { opensheetmusicdisplay: { OpenSheetMusicDisplay: new (id: string) => Reader } }
      ).opensheetmusicdisplay;
      const reader = new OpenSheetMusicDisplay('part');
      await reader.load(xml);
      reader.render();
      const notes: DrawnNote[] = [];
      reader.Sheet.SourceMeasures.forEach((measure, bar) => {
        for (const { Timestamp, StaffEntries } of measure.VerticalSourceStaffEntryContainers)
          for (const entry of StaffEntries)
            for (const voice of entry?.VoiceEntries ?? [])
              if (!voice.IsGrace)
                for (const note of voice.Notes)
                  if (!note.isRest()) notes.push({ at: Timestamp.RealValue * 4, bar });
      });
      return { notes, heads: document.querySelectorAll('.vf-stavenote').length };
    }, out.value.files[0]!.data as string);
    expect(faults).toEqual([]);
    expect(drawn.heads).toBeGreaterThan(0);
    const meant = writtenBars(out.value.pieces[0]!).flatMap(({ beats }, bar) => {
      let from = 0;
      return beats.flatMap(({ length, hits }) => {
        const begin = from;
        from += length / 960;
        return hits.map(({ tick }) => ({ bar, at: begin + tick / 960 }));
      });
    });
    const key = ({ bar, at }: DrawnNote) => `${bar} ${at.toFixed(3)}`;
    expect(drawn.notes.map(key).sort()).toEqual(meant.map(key).sort());
  });

test('the part is looked at on the screen before it is written', async ({ page }) => {
  await openApp(page);
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByLabel('What', { exact: true }).selectOption('song');
  await page.getByLabel('As', { exact: true }).selectOption('paper');
  await button(page, 'Look at the part').click();
  const part = page.getByRole('img', { name: 'Bars 1 to 16 of Lantern-Walk-Song.musicxml' });
  await expect(part.locator('.vf-stavenote').first()).toBeVisible();
  const before = await part.locator('.vf-stavenote').count();
  await button(page, 'Draw more: 16 of 76 bars are here').click();
  const more = page.getByRole('img', { name: 'Bars 1 to 32 of Lantern-Walk-Song.musicxml' });
  await expect.poll(() => more.locator('.vf-stavenote').count()).toBeGreaterThan(before * 1.5);
});
