import { writeMidi, type MidiEvent } from 'midi-file';
import { beatSchema, type Beat } from '../document/schema';
import { HOW_DEFAULTS, WHAT_DEFAULTS } from '../export/choice';
import { meterText } from '../document/meter';
import { positionOf } from '../document/position';
import { exported } from '../export/exporting';
import { hitsOf } from '../export/list';
import { grooveOfFile } from '../groove/importing';
import { inspectMidi } from '../midi/read/inspect';
import { GENERAL_MIDI } from '../midi/drumMap/drumMap';
import { beatFromMidi } from './beatFromMidi';

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
