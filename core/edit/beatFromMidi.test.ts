import { writeMidi, type MidiEvent } from 'midi-file';
import { EMPTY_LANE_PATTERN, newBeat, newHit, newPattern } from '../document/defaults';
import { beatSchema, type Beat, type Pattern, type Section } from '../document/schema';
import { HOW_DEFAULTS, WHAT_DEFAULTS, type ExportHow } from '../export/choice';
import { meterText } from '../document/meter';
import { positionOf } from '../document/position';
import { exported } from '../export/exporting';
import { hitsOf } from '../export/list';
import { grooveOfFile } from '../groove/importing';
import { inspectMidi } from '../midi/read/inspect';
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

/** A file of one track: what happens at which tick, 480 to the quarter; each note 30 ticks long. */
type Event = [tick: number, event: Omit<MidiEvent, 'deltaTime'>];
const trackOf = (events: Event[], notes: [tick: number, note?: number][]): MidiEvent[] => {
  const all: Event[] = [
    ...events,
    ...notes.flatMap(([tick, noteNumber = 38]): Event[] => [
      [tick, { type: 'noteOn', channel: 9, noteNumber, velocity: 90 } as MidiEvent],
      [tick + 30, { type: 'noteOff', channel: 9, noteNumber, velocity: 0 } as MidiEvent],
    ]),
  ];
  let now = 0;
  const sorted = all.sort((a, b) => a[0] - b[0]);
  const out = sorted.map(([tick, event]) => {
    const deltaTime = tick - now;
    now = tick;
    return { deltaTime, ...event } as MidiEvent;
  });
  return [...out, { deltaTime: 0, meta: true, type: 'endOfTrack' }];
};
const fileOf = (tracks: MidiEvent[][], format: 0 | 1 | 2 = 1): Uint8Array =>
  Uint8Array.from(writeMidi({ header: { format, numTracks: tracks.length, ticksPerBeat: 480 }, tracks }));
const tempo = (tick: number, bpm: number): Event => [
  tick,
  { meta: true, type: 'setTempo', microsecondsPerBeat: Math.round(60e6 / bpm) } as MidiEvent,
];
const meter = (tick: number, numerator: number, denominator: number): Event => [
  tick,
  { meta: true, type: 'timeSignature', numerator, denominator, metronome: 24, thirtyseconds: 8 } as MidiEvent,
];
const read = (bytes: Uint8Array) => {
  const made = beatFromMidi(bytes, 'file', 'new', 5);
  if (!made.ok) throw new Error(made.error);
  expect(beatSchema.safeParse(made.value.beat).success).toBe(true);
  return made.value;
};
/** When every note sounds, in ms, as it is written out again. */
const msOf = (beat: Beat): number[] => {
  const scope = beat.song.order.length ? 'song' : 'pattern';
  const out = exported(beat, { ...HOW_DEFAULTS, scope, kind: 'list' }, WHAT_DEFAULTS);
  if (!out.ok) throw new Error(out.error);
  return hitsOf(out.value.pieces[0]!, out.value.beat).map(({ ms }) => ms);
};

describe('strokes before a bar line', () => {
  const ticks = (beat: Beat) =>
    Object.values(beat.patterns[0]!.parts)[0]!.hits.map(
      ({ step, nudge }) =>
        (step + nudge) *
        { '1/16': 120, '1/32': 60, '1/64': 30, '1/64T': 20 }[
          Object.values(beat.patterns[0]!.parts)[0]!.grid as '1/16'
        ]!,
    );
  // Twelve strokes of a fill over the last beat of a bar, each in its place: no one is an early first beat of the next bar.
  test.each([
    ['thirty-seconds', Array.from({ length: 8 }, (_, at) => 1440 + at * 60)],
    ['sixteenth triplets', Array.from({ length: 6 }, (_, at) => 1440 + at * 80)],
    ['sixty-fourths', Array.from({ length: 16 }, (_, at) => 1440 + at * 30)],
  ])('a fill in %s stays before the line', (_, fill) => {
    for (const bars of [1, 2]) {
      const { beat, warnings } = read(
        fileOf([trackOf([], [...fill.map((tick): [number] => [tick + (bars - 1) * 1920])])]),
      );
      const got = ticks(beat).map((tick) => Math.round(tick * 100) / 100);
      expect(got).toEqual(fill.map((tick) => tick + (bars - 1) * 1920));
      expect(warnings).toEqual([]);
    }
  });

  test('one that stands alone within 20 ms of the line is an early first beat; one farther off is not', () => {
    // At 120 BPM a tick is 1.0417 ms: 18 ticks are 18.75 ms, 24 are 25.
    const early = read(fileOf([trackOf([], [[0], [1902], [3840]])]));
    expect(early.beat.patterns[0]!.bars).toBe(3);
    const hits = Object.values(early.beat.patterns[0]!.parts)[0]!.hits;
    expect(hits.map(({ step }) => step)).toEqual([0, 16, 32]);
    const late = read(fileOf([trackOf([], [[0], [960], [1896]])]));
    expect(ticks(late.beat)).toEqual([0, 960, 1896]);
  });

  test('a groove keeps a fill before its end as it is too', () => {
    const fill = Array.from({ length: 8 }, (_, at): [number] => [1440 + at * 60]);
    const bytes = fileOf([trackOf([], [[0], ...fill])]);
    const groove = grooveOfFile(bytes, { path: 'fill.mid', source: 'imported', map: GENERAL_MIDI });
    if (!groove.ok) throw new Error(groove.error);
    const [lane] = groove.groove.lanes;
    expect(lane!.part.hits.map((hit) => positionOf(hit, lane!.part.grid))).toEqual(
      [0, ...fill.map(([tick]) => tick)].map((tick) => tick * 2),
    );
  });
});

describe('tempos', () => {
  const every = (bars: number): [number][] => Array.from({ length: bars * 4 }, (_, at) => [at * 480]);
  const wanted = (bytes: Uint8Array, notes: [number][], changes: [tick: number, bpm: number][]) => {
    const made = read(bytes);
    // By hand: what passes under each tempo up to a tick.
    const at = (tick: number) =>
      changes.reduce((sum, [from, bpm], index) => {
        const to = Math.min(tick, changes[index + 1]?.[0] ?? Infinity);
        return to > from ? sum + ((to - from) / 480) * (60_000 / bpm) : sum;
      }, 0);
    const got = msOf(made.beat);
    expect(got).toHaveLength(notes.length);
    return { ...made, off: Math.max(...notes.map(([tick], index) => Math.abs(got[index]! - at(tick)))) };
  };

  test('steps within one section become sections, and every note stands where it was', () => {
    const changes: [number, number][] = [
      [0, 120],
      [4 * 1920, 90],
      [6 * 1920, 150],
    ];
    const bytes = fileOf([
      trackOf(
        changes.map(([tick, bpm]) => tempo(tick, bpm)),
        every(10),
      ),
    ]);
    const { beat, warnings, off } = wanted(bytes, every(10), changes);
    expect(off).toBeLessThan(1);
    expect(beat.song.sections.map(({ tempo: own, change }) => [own ?? beat.tempo, change])).toEqual([
      [120, undefined],
      [90, undefined],
      [150, undefined],
    ]);
    expect(warnings).toEqual([]);
  });

  test('a tempo that begins later than the first note leaves what is before it at 120', () => {
    const bytes = fileOf([trackOf([tempo(1920, 60)], every(2))]);
    const { beat, off } = wanted(bytes, every(2), [
      [0, 120],
      [1920, 60],
    ]);
    expect([beat.tempo, off < 1]).toEqual([120, true]);
    const inspected = inspectMidi(bytes);
    expect(inspected.ok && [inspected.value.bpm, inspected.value.tempoChanges]).toEqual([120, 1]);
  });

  test('one pattern whose tempo rises all along is a section that rises, and not one at its first tempo', () => {
    const changes = Array.from({ length: 32 }, (_, at): [number, number] => [at * 120, 100 + at * 2]);
    const bytes = fileOf([
      trackOf(
        changes.map(([tick, bpm]) => tempo(tick, bpm)),
        every(2),
      ),
    ]);
    const { beat, off } = wanted(bytes, every(2), changes);
    expect(off).toBeLessThan(1.5);
    expect(beat.song.sections[0]!.change).toBeDefined();
  });

  test('one that changes with every bar of 200 is followed as nearly as sections go, and the rest is told', () => {
    const changes = Array.from({ length: 200 }, (_, at): [number, number] => [
      at * 1920,
      100 + ((at * 37) % 23),
    ]);
    const bytes = fileOf([
      trackOf(
        changes.map(([tick, bpm]) => tempo(tick, bpm)),
        every(200),
      ),
    ]);
    const { beat, warnings } = read(bytes);
    expect(beat.song.sections.length).toBeLessThanOrEqual(128);
    expect(warnings.join(' ')).toMatch(/notes stand up to \d+ ms from where they were/);
  });
});

describe('meters that a beat does not have', () => {
  test.each([
    [1, 1, '2/2', 'Its 1/1 became 2/2: the bars are as long.'],
    [3, 32, '3/16', 'Its 3/32 became 3/16: a bar holds two of them.'],
    [23, 16, '4/4', 'A beat has no 23/16, so those bars are drawn in 4/4; every note is where it was.'],
    [7, 8, '7/8', undefined],
  ])('%i/%i', (numerator, denominator, drawn, told) => {
    const notes: [number][] = [[0], [480], [960]];
    const bytes = fileOf([trackOf([meter(0, numerator, denominator)], notes)]);
    const { beat, warnings } = read(bytes);
    expect(warnings[0]).toBe(told);
    expect(meterText(beat.patterns[0]!.meter)).toBe(drawn);
    expect(msOf(beat)).toEqual([0, 500, 1000]);
    const groove = grooveOfFile(bytes, { path: 'a.mid', source: 'imported', map: GENERAL_MIDI });
    expect(groove.ok && groove.taken.warnings[0]).toBe(told);
    const inspected = inspectMidi(bytes);
    expect(inspected.ok && inspected.value.timeSignature).toBe(`${numerator}/${denominator}`);
  });
});

test('a file of format 2 gives a pattern a sequence, each with its own meter and tempo', () => {
  const first = trackOf([tempo(0, 90)], [[0], [480], [960], [1440], [1920], [2400]]);
  const second = trackOf(
    [tempo(0, 150), meter(0, 3, 4)],
    [
      [0, 36],
      [480, 36],
      [960, 36],
    ],
  );
  const third = trackOf([], [[0], [960, 42]]);
  const { beat } = read(fileOf([first, second, third], 2));
  expect(beat.patterns.map(({ bars, meter: own }) => [bars, meterText(own)])).toEqual([
    [2, '4/4'],
    [1, '3/4'],
    [1, '4/4'],
  ]);
  expect(beat.song.sections.map(({ tempo: own }) => own ?? beat.tempo)).toEqual([90, 150, 120]);
  expect(beat.song.sections.map(({ name }) => name)).toEqual(['Sequence 1', 'Sequence 2', 'Sequence 3']);
  const hits = beat.patterns.map(({ parts }) =>
    Object.values(parts).reduce((sum, part) => sum + part.hits.length, 0),
  );
  expect(hits).toEqual([6, 3, 2]);
});
