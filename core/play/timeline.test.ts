import { allNotes } from './driver';
import { planSong } from './timelinePlan';
import { playable } from './playable';
import { EMPTY_LANE_PATTERN, newBeat, newHit, newPattern } from '../document/defaults';
import type { Beat, Pattern, Section } from '../document/schema';
import {
  barAt,
  entryBars,
  fillTicks,
  patternTimeline,
  songTimeline,
  sectionBars,
  songFaults,
  spanAt,
} from './timeline';
import { secondsAt, tempoAt, tempoMap } from './tempoMap';
import { timeWords } from './time';

const BAR = 3840;

const pattern = (id: string, change: Partial<Pattern> = {}): Pattern => ({
  ...newPattern(id, id.toUpperCase()),
  parts: { kick: { ...EMPTY_LANE_PATTERN, grid: '1/4', hits: [newHit(0), newHit(2)] } },
  ...change,
});

const section = (change: Partial<Section> = {}): Section => ({
  id: 's',
  name: 'Verse',
  pigment: 'lichen',
  entries: [{ id: 'e', patternId: 'a', times: 1 }],
  silent: [],
  ...change,
});

const songOf = (sections: Section[], times = sections.map(() => 1), patterns?: Pattern[]): Beat => ({
  ...newBeat('b', 'Quay', 1),
  tempo: 120,
  patterns: patterns ?? [
    pattern('a'),
    pattern('b', { bars: 2 }),
    pattern('c', { meter: { beats: 7, unit: 8 } }),
  ],
  song: {
    sections,
    order: sections.map(({ id }, at) => ({ id: `p${at}`, sectionId: id, times: times[at]! })),
  },
});

describe('lengths', () => {
  test.each([
    [{ times: 3 }, 3],
    [{ times: 3, bars: 5 }, 5],
    [{ times: 2, patternId: 'b' }, 4],
    [
      { times: 1, patternId: 'gone', gone: { name: 'Old', meter: { beats: 4, unit: 4 } as const, bars: 3 } },
      3,
    ],
    [{ times: 1, patternId: 'gone' }, 1],
  ])('%j plays %i bars', (change, bars) => {
    const entry = { id: 'e', patternId: 'a', ...change };
    const one = section({ entries: [entry] });
    expect(entryBars(songOf([one]), entry)).toBe(bars);
    expect(sectionBars(songOf([one]), one)).toBe(bars);
  });

  test('a section without a pattern takes no time, and one that repeats stands as often', () => {
    const layout = songTimeline(songOf([section({ id: 'x', entries: [] }), section()], [4, 3]));
    expect(layout.spans.map(({ from, time }) => [from, time])).toEqual([
      [0, 0],
      [BAR, 1],
      [2 * BAR, 2],
    ]);
    expect(layout.length).toBe(3 * BAR);
  });

  test('an empty song has no length, and can be asked all the same', () => {
    const layout = songTimeline(songOf([]));
    expect([layout.length, layout.bars.length, spanAt(layout, 0)]).toEqual([0, 0, null]);
    expect(allNotes(planSong(songOf([])), 'hold')).toEqual([]);
  });

  test('bars follow the meter of their pattern', () => {
    const entries = [
      { id: 'e', patternId: 'c', times: 2 },
      { id: 'f', patternId: 'a', times: 1 },
    ];
    const layout = songTimeline(songOf([section({ entries })]));
    expect(layout.bars.map(({ from, meter }) => [from, meter.beats])).toEqual([
      [0, 7],
      [3360, 7],
      [6720, 4],
    ]);
    expect([0, 3359, 3360, 9000, 99999].map((tick) => barAt(layout, tick))).toEqual([0, 0, 1, 2, 2]);
  });

  test('a pattern by itself is laid out as a song of one stretch', () => {
    const beat = songOf([]);
    const layout = patternTimeline(beat, beat.patterns[1]!, 3);
    expect(layout).toMatchObject({ length: 6 * BAR, spans: [{ section: null, length: 6 * BAR }] });
    expect(layout.bars).toHaveLength(6);
  });
});

describe('fills', () => {
  const filled = (over: 'bar' | 'beat', patternId: string, entries = section().entries) =>
    songTimeline(songOf([section({ entries, fill: { patternId, over } })]));
  const shapes = ({ regions }: ReturnType<typeof songTimeline>) =>
    regions.map(({ from, length, offset, fill }) => [from, length, offset, fill]);

  test('the end of the fill’s pattern falls on the end of the section', () => {
    const two = [{ id: 'e', patternId: 'a', times: 2 }];
    expect(shapes(filled('bar', 'b', two))).toEqual([
      [0, BAR, 0, false],
      [BAR, BAR, BAR, true],
    ]);
    expect(shapes(filled('beat', 'a', two))).toEqual([
      [0, 2 * BAR - 960, 0, false],
      [2 * BAR - 960, 960, BAR - 960, true],
    ]);
  });

  test('over a bar it may take the place of all the section has', () => {
    expect(shapes(filled('bar', 'a'))).toEqual([[0, BAR, 0, true]]);
    expect(fillTicks(songOf([]), section({ entries: [], fill: { patternId: 'a', over: 'bar' } }))).toBe(0);
  });

  test('it takes the end of as many patterns as it reaches over', () => {
    const entries = ['a', 'c'].map((patternId, at) => ({ id: `e${at}`, patternId, times: 1 }));
    const layout = filled('bar', 'a', entries);
    expect(layout.regions.map(({ pattern: one, fill }) => [one!.id, fill])).toEqual([
      ['a', false],
      ['a', true],
    ]);
    expect(layout.regions[1]).toMatchObject({ length: 3360, offset: BAR - 3360 });
  });

  test('one that was deleted is named, and the pattern plays to the end', () => {
    const beat = songOf([section({ fill: { patternId: 'gone', over: 'bar' } })]);
    expect(songFaults(beat)).toEqual([
      'The fill of section “Verse” was deleted: its pattern plays to the end.',
    ]);
    expect(allNotes(planSong(beat), 'hold')).toHaveLength(2);
  });
});

describe('tempos', () => {
  test('each section’s own holds from where it begins, in whole microseconds a quarter', () => {
    const { tempos } = songTimeline(songOf([section({ tempo: 97 }), section({ id: 't' })]));
    expect(tempos).toMatchObject({ ticks: [0, BAR], micros: [618557, 500000] });
    expect(secondsAt(tempos, BAR)).toBeCloseTo((4 * 618557) / 1e6, 9);
    expect(secondsAt(tempos, -960)).toBeCloseTo(-0.618557, 9);
    expect(tempoAt(tempos, 2 * BAR)).toBe(120);
  });

  test('one that changes little by little does so in sixteenths, and is the next section’s at its end', () => {
    const beat = songOf([section({ change: { tempo: 180 } }), section({ id: 't', tempo: 180 })]);
    const { tempos } = songTimeline(beat);
    expect(tempos.ticks.slice(0, 3)).toEqual([0, 240, 480]);
    expect(tempoAt(tempos, 8 * 240)).toBeCloseTo(150, 1);
    expect(tempoAt(tempos, BAR)).toBeCloseTo(180, 3);
    const rising = tempos.micros.map((_, at) => tempos.micros[at]!);
    expect(rising).toEqual([...rising].sort((a, b) => b - a));
  });

  test('what changes nothing is left out', () => {
    expect(tempoMap([0, 960, 1920].map((at) => ({ at, bpm: 120 }))).ticks).toEqual([0]);
  });

  test.each([
    [0, '0:00'],
    [59.99, '0:59'],
    [184.2, '3:04'],
    [-3, '0:00'],
  ])('%s seconds are %s', (seconds, words) => expect(timeWords(seconds)).toBe(words));
});

describe('what is shown while it plays', () => {
  const beat = songOf([
    section(),
    section({ id: 't', tempo: 60, entries: [{ id: 'f', patternId: 'c', times: 2 }] }),
  ]);
  const played = playable(planSong(beat), { start: 0, loop: null });

  test('which pattern, from where in it, at which tempo', () => {
    expect(played.marks(0, 3 * BAR)).toEqual([
      { at: 0, patternId: 'a', tick: 0, song: 0, tempo: 120 },
      { at: BAR, patternId: 'c', tick: 0, song: BAR, tempo: 60 },
    ]);
    expect(played.marks(BAR + 100, BAR + 200)[0]).toMatchObject({ patternId: 'c', tick: 100 });
  });

  test('beats are counted by the meters, before the first bar too', () => {
    const beats = played.beats(-BAR, BAR + 3360);
    expect(beats.filter(({ first }) => first).map(({ at }) => at)).toEqual([-BAR, 0, BAR]);
    expect(beats).toHaveLength(4 + 4 + 7);
    expect(played.meterAt(BAR + 10)).toEqual({ beats: 7, unit: 8 });
  });
});
