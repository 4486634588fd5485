import { writeMidi, type MidiEvent } from 'midi-file';
import { EMPTY_LANE_PATTERN, newBeat, newHit, newPattern } from '../document/defaults';
import { beatSchema, type Beat, type Pattern, type Section } from '../document/schema';
import { HOW_DEFAULTS, WHAT_DEFAULTS, type ExportHow } from '../export/choice';
import { exported } from '../export/exporting';
import { GENERAL_MIDI, shifted } from '../midi/drumMap/drumMap';
import { drumsFirst } from '../midi/read/parts';
import { beatFromMidi, midiParts } from './beatFromMidi';
import { runsOf, type BarOfFile } from '../midi/convert/midiBars';

const pattern = (id: string, steps: number[], change: Partial<Pattern> = {}): Pattern => ({
  ...newPattern(id, id.toUpperCase()),
  parts: { kick: { ...EMPTY_LANE_PATTERN, hits: steps.map((step) => newHit(step)) } },
  ...change,
});

const section = (id: string, change: Partial<Section> = {}): Section => ({
  id,
  name: id,
  pigment: 'weld',
  entries: [{ id: 'e', patternId: 'a', times: 2 }],
  silent: [],
  ...change,
});

const songOf = (
  sections: Section[],
  order: string[],
  patterns = [pattern('a', [0, 8]), pattern('b', [0, 4, 8, 12])],
): Beat => ({
  ...newBeat('b', 'Quay', 1),
  tempo: 120,
  patterns,
  song: { sections, order: order.map((sectionId, at) => ({ id: `p${at}`, sectionId, times: 1 })) },
});

const opened = (beat: Beat, how: Partial<ExportHow> = {}): Beat => {
  const out = exported(beat, { ...HOW_DEFAULTS, scope: 'song', ...how }, WHAT_DEFAULTS);
  if (!out.ok) throw new Error(out.error);
  const read = beatFromMidi(out.value.files[0]!.data as Uint8Array, 'file', 'new', 5);
  if (!read.ok) throw new Error(read.error);
  expect(beatSchema.safeParse(read.value.beat).success).toBe(true);
  return read.value.beat;
};

test('bars that come again become one pattern that repeats', () => {
  const beat = opened(
    songOf([section('Verse', { entries: [{ id: 'e', patternId: 'a', times: 8 }] })], ['Verse']),
  );
  expect(beat.patterns).toHaveLength(1);
  expect(beat.patterns[0]).toMatchObject({ name: 'Verse', bars: 1 });
  expect(beat.song.sections[0]!.entries).toEqual([{ id: 'e1', patternId: 'p1', times: 1, bars: 8 }]);
});

test('the same section at two places is linked, another one of its name is its own', () => {
  const other = section('other', { name: 'Verse', entries: [{ id: 'e', patternId: 'b', times: 2 }] });
  const beat = opened(songOf([section('Verse'), other], ['Verse', 'other', 'Verse']));
  expect(beat.song.sections.map(({ name }) => name)).toEqual(['Verse', 'Verse 2']);
  expect(beat.song.order.map(({ sectionId }) => sectionId)).toEqual(['s1', 's2', 's1']);
  expect(beat.patterns.map(({ name }) => name)).toEqual(['Verse', 'Verse · 2']);
});

test('a fill at the end is a pattern of its own', () => {
  const verse = section('Verse', {
    entries: [{ id: 'e', patternId: 'a', times: 4 }],
    fill: { patternId: 'b', over: 'bar' },
  });
  const { entries } = opened(songOf([verse], ['Verse'])).song.sections[0]!;
  expect(entries.map(({ bars, times }) => bars ?? times)).toEqual([3, 1]);
});

test('tempos come back: a section’s own, and what it comes to little by little', () => {
  const beat = opened(
    songOf([section('Slow', { tempo: 90 }), section('Rise', { change: { tempo: 150 } })], ['Slow', 'Rise']),
  );
  expect(beat.tempo).toBe(90);
  const [slow, rise] = beat.song.sections;
  expect(slow).not.toHaveProperty('tempo');
  expect(rise!.tempo).toBe(120);
  expect(rise!.change!.tempo).toBeCloseTo(150, 0);
});

test('meters that change part patterns', () => {
  const seven = pattern('c', [0, 6], { meter: { beats: 7, unit: 8 } });
  const entries = ['a', 'c'].map((patternId) => ({ id: patternId, patternId, times: 1 }));
  const beat = opened(songOf([section('Odd', { entries })], ['Odd'], [pattern('a', [0]), seven]));
  expect(beat.patterns.map(({ meter }) => meter.beats)).toEqual([4, 7]);
});

test('a count-in on a track of its own is not taken for music', () => {
  const counted = opened(songOf([section('Verse')], ['Verse']), { countIn: true });
  expect(counted.lanes.map(({ note }) => note)).toEqual([36]);
  const hits = counted.patterns.flatMap(({ parts }) => Object.values(parts).flatMap((part) => part.hits));
  expect(hits.length).toBeGreaterThan(0);
});

test('one pattern is a beat without a song; a lane with a track of its own keeps its name', () => {
  const two = pattern('a', [0], {
    parts: {
      kick: { ...EMPTY_LANE_PATTERN, hits: [newHit(0)] },
      snare: { ...EMPTY_LANE_PATTERN, hits: [newHit(4)] },
    },
  });
  const beat = songOf([], [], [two]);
  const named = {
    ...beat,
    lanes: beat.lanes.map((lane) => (lane.id === 'snare' ? { ...lane, name: 'Tin lid' } : lane)),
  };
  const read = opened(named, { scope: 'pattern', split: 'lanes' });
  expect(read.song).toEqual({ sections: [], order: [] });
  expect(read.lanes.map(({ name, instrument }) => [name, instrument])).toEqual([
    ['Kick', 'kick'],
    ['Tin lid', 'snare'],
  ]);
  expect(opened(named, { scope: 'pattern' }).lanes.map(({ name }) => name)).toEqual(['Kick', 'Snare']);
});

test('another map reads other drums from the same numbers, and stays with the beat', () => {
  const out = exported(songOf([], []), { ...HOW_DEFAULTS }, WHAT_DEFAULTS);
  const bytes = out.ok ? (out.value.files[0]!.data as Uint8Array) : new Uint8Array();
  const map = { ...shifted(GENERAL_MIDI, -2), name: 'Two lower' };
  const read = beatFromMidi(bytes, 'file', 'new', 5, map);
  expect(read.ok && read.value.beat.lanes[0]).toMatchObject({ note: 36, instrument: 'snare' });
  expect(read.ok && read.value.beat.map!.name).toBe('Two lower');
});

describe('bars as runs', () => {
  const bars = (count: number): BarOfFile[] =>
    Array.from({ length: count }, (_, at) => ({ from: at * 3840, meter: { beats: 4, unit: 4 } }));
  test.each([
    ['aaaa', [[0, 1, 4]]],
    ['abab', [[0, 2, 4]]],
    ['ababa', [[0, 2, 5]]],
    ['abcd', [[0, 4, 4]]],
    [
      'aaab',
      [
        [0, 1, 3],
        [3, 1, 1],
      ],
    ],
    [
      'xaaaa',
      [
        [0, 1, 1],
        [1, 1, 4],
      ],
    ],
  ])('%s', (text, runs) => {
    const found = runsOf([...text], bars(text.length), 0, text.length);
    expect(found.map(({ first, bars: own, length }) => [first, own, length])).toEqual(runs);
  });

  test('what never repeats is cut every sixteen bars, what repeats long every sixty-four', () => {
    const all = Array.from({ length: 40 }, (_, at) => String(at));
    expect(runsOf(all, bars(40), 0, 40).map(({ length }) => length)).toEqual([16, 16, 8]);
    const same = Array.from({ length: 150 }, () => 'a');
    expect(runsOf(same, bars(150), 0, 150).map(({ length }) => length)).toEqual([64, 64, 22]);
  });
});

describe('what of a file is opened', () => {
  const snare = { ...EMPTY_LANE_PATTERN, hits: [newHit(4), newHit(12)] };
  const made = songOf([section('Verse')], ['Verse']);
  const beat: Beat = {
    ...made,
    lanes: made.lanes.map((lane) =>
      lane.id === 'snare' ? { ...lane, channel: 10 } : { ...lane, channel: 1 },
    ),
    patterns: made.patterns.map((one) => ({ ...one, parts: { ...one.parts, snare } })),
  };
  const out = exported(beat, { ...HOW_DEFAULTS, scope: 'song', channels: 'lanes' }, WHAT_DEFAULTS);
  const written = out.ok ? (out.value.files[0]!.data as Uint8Array) : new Uint8Array();
  test('its parts are told, the drums first, and only those that are wanted become lanes', () => {
    const parts = midiParts(written);
    if (!parts.ok) throw new Error(parts.error);
    expect(parts.value.map(({ channel, drums }) => [channel, drums])).toEqual([
      [10, true],
      [1, false],
    ]);
    expect(drumsFirst(parts.value)).toEqual([parts.value[0]!.key]);
    const all = beatFromMidi(written, 'x', 'b', 1);
    const drums = beatFromMidi(written, 'x', 'b', 1, undefined, drumsFirst(parts.value));
    if (!all.ok || !drums.ok) throw new Error('It was not opened.');
    expect(all.value.beat.lanes.some(({ channel }) => channel === 1)).toBe(true);
    expect(drums.value.beat.lanes.every(({ channel }) => channel === 10)).toBe(true);
  });

  test('a tempo that is held is told', () => {
    const slow = Uint8Array.from(written);
    // The tempo of a file: FF 51 03, then so many microseconds a quarter.
    const at = slow.findIndex((byte, i) => byte === 0xff && slow[i + 1] === 0x51);
    slow.set([0x4c, 0x4b, 0x40], at + 3);
    const read = beatFromMidi(slow, 'x', 'b', 1);
    if (!read.ok) throw new Error(read.error);
    expect(read.value.beat.tempo).toBe(20);
    expect(read.value.warnings.join(' ')).toContain('Its 12 BPM became 20: a beat goes from 20 to 300.');
  });
});

describe('all of a long or wide file', () => {
  const wide = (tracks: { channel: number; note: number; ticks: number[] }[]): Uint8Array =>
    Uint8Array.from(
      writeMidi({
        header: { format: 1, numTracks: tracks.length, ticksPerBeat: 480 },
        tracks: tracks.map(({ channel, note, ticks }) => {
          let now = 0;
          return [
            ...ticks.flatMap((tick): MidiEvent[] => {
              const deltaTime = tick - now;
              now = tick + 10;
              return [
                { deltaTime, type: 'noteOn', channel, noteNumber: note, velocity: 90 },
                { deltaTime: 10, type: 'noteOff', channel, noteNumber: note, velocity: 0 },
              ];
            }),
            { deltaTime: 0, meta: true, type: 'endOfTrack' },
          ];
        }),
      }),
    );
  const noteCount = (beat: Beat): number =>
    beat.song.order.reduce((sum, { sectionId }) => {
      const { entries } = beat.song.sections.find(({ id }) => id === sectionId)!;
      return (
        sum +
        entries.reduce((inside, { patternId, bars }) => {
          const pattern = beat.patterns.find(({ id }) => id === patternId)!;
          const hits = Object.values(pattern.parts).reduce((all, part) => all + part.hits.length, 0);
          return inside + hits * ((bars ?? pattern.bars) / pattern.bars);
        }, 0)
      );
    }, 0);

  test('160 bars that alternate so that one section does not hold them go on in more sections', () => {
    // Bars in pairs of two alike, each pair another: a run of its own each.
    const ticks = Array.from(
      { length: 160 },
      (_, bar) =>
        bar * 1920 +
        (Math.floor(bar / 2) % 16) * 120 +
        (bar >= 32 ? 30 : 0) +
        (bar >= 64 ? 30 : 0) +
        (bar >= 96 ? 30 : 0) +
        (bar >= 128 ? 15 : 0),
    );
    const read = beatFromMidi(wide([{ channel: 9, note: 36, ticks }]), 'Long', 'b', 1);
    if (!read.ok) throw new Error(read.error);
    const { beat } = read.value;
    expect(beat.song.sections.length).toBeGreaterThan(1);
    expect(beat.song.sections.every(({ entries }) => entries.length <= 64)).toBe(true);
    expect(noteCount(beat)).toBe(160);
  });

  test('more drums than lanes share a lane by their number, and it is told', () => {
    const tracks = Array.from({ length: 80 }, (_, at) => ({
      channel: at % 4,
      note: 36 + (at % 20),
      ticks: [at * 10],
    }));
    const read = beatFromMidi(wide(tracks), 'Wide', 'b', 1);
    if (!read.ok) throw new Error(read.error);
    const { beat, warnings } = read.value;
    expect(beat.lanes).toHaveLength(20);
    expect(Object.values(beat.patterns[0]!.parts).flatMap(({ hits }) => hits)).toHaveLength(80);
    expect(warnings.join(' ')).toContain('share a lane');
  });
});
