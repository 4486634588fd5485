import fc from 'fast-check';
import { parse } from 'papaparse';
import { DEMO_BEATS } from '../../demo/beats';
import { beats } from '../arbitraries';
import type { Beat } from '../document/schema';
import { HOW_DEFAULTS, WHAT_DEFAULTS, type ExportHow } from './choice';
import { csvOf, hitsOf } from './list';
import { exported } from './exporting';

const made = (beat: Beat, how: Partial<ExportHow>) => {
  const out = exported(beat, { ...HOW_DEFAULTS, ...how }, WHAT_DEFAULTS);
  if (!out.ok) throw new Error(out.error);
  return out.value;
};

const rowsOf = (text: string): Record<string, string>[] => {
  const { data, errors } = parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
  expect(errors).toEqual([]);
  return data;
};

test('every hit has its line, in order of time, and reads as it was', () => {
  fc.assert(
    fc.property(beats, (beat) => {
      const { pieces, beat: written } = made(beat, { scope: 'pattern' });
      const hits = hitsOf(pieces[0]!, written);
      expect(hits).toHaveLength(pieces[0]!.notes().length);
      if (!hits.length) return;
      const rows = rowsOf(csvOf(pieces[0]!, written));
      expect(rows.map(({ tick, note, velocity }) => [Number(tick), Number(note), Number(velocity)])).toEqual(
        hits.map(({ tick, note, velocity }) => [tick, note, velocity]),
      );
      hits.slice(1).forEach(({ ms }, at) => expect(ms).toBeGreaterThanOrEqual(hits[at]!.ms));
    }),
    { numRuns: 40 },
  );
});

test('a name with commas and quotes stays one name', () => {
  const [first] = DEMO_BEATS;
  const lanes = first!.lanes.map((lane, at) => (at ? lane : { ...lane, name: 'Kick, "the low" one' }));
  const { pieces, beat } = made({ ...first!, lanes }, { scope: 'pattern' });
  const rows = rowsOf(csvOf(pieces[0]!, beat));
  expect(rows.some(({ lane }) => lane === 'Kick, "the low" one')).toBe(true);
  expect(Object.keys(rows[0]!)).toEqual([
    'bar',
    'beat',
    'ms',
    'tick',
    'lane',
    'instrument',
    'note',
    'channel',
    'velocity',
    'length',
    'section',
  ]);
});

test('in a song bars count on, and each hit says its section and where in its bar it lies', () => {
  const song = DEMO_BEATS.find(({ song: { order } }) => order.length)!;
  const { pieces, beat } = made(song, { scope: 'song' });
  const { timeline } = pieces[0]!.plan;
  const hits = hitsOf(pieces[0]!, beat);
  expect(Math.max(...hits.map(({ bar }) => bar))).toBe(timeline.bars.length);
  const sections = new Set(song.song.sections.map(({ name }) => name));
  for (const { bar, beat: counted, tick, section } of hits) {
    expect(sections.has(section)).toBe(true);
    const { from, meter } = timeline.bars[bar - 1]!;
    expect(from + (counted - 1) * (3840 / meter.unit)).toBeCloseTo(tick, 0);
    expect(counted).toBeLessThan(meter.beats + 1);
  }
});

test('some bars of a song are counted from their own first one, in bars and in ms', () => {
  const song = DEMO_BEATS.find(({ song: { order } }) => order.length)!;
  const out = exported(
    song,
    { ...HOW_DEFAULTS, scope: 'range', kind: 'list' },
    { ...WHAT_DEFAULTS, bars: { from: 7, to: 8 } },
  );
  if (!out.ok) throw new Error(out.error);
  const hits = hitsOf(out.value.pieces[0]!, out.value.beat);
  expect(new Set(hits.map(({ bar }) => bar))).toEqual(new Set([1, 2]));
  expect(Math.min(...hits.map(({ ms }) => ms))).toBeGreaterThanOrEqual(0);
  expect(Math.max(...hits.map(({ ms }) => ms))).toBeLessThan((2 * 4 * 60_000) / song.tempo);
  expect(new Set(hits.map(({ section }) => section))).toEqual(new Set(['Verse']));
});
