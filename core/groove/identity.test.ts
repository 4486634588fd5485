import fc from 'fast-check';
import { writeMidi, type MidiEvent } from 'midi-file';
import { newBeat, newHit, lanePatternOf, patternTicks } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import { barTicks, type Meter } from '../document/meter';
import { beatSchema, type Beat } from '../document/schema';
import { HOW_DEFAULTS, WHAT_DEFAULTS } from '../export/choice';
import { exported } from '../export/exporting';
import { GENERAL_MIDI, type DrumMap } from '../midi/drumMap/drumMap';
import { readMidi } from '../midi/read/readMidi';
import { bringIn } from '../bring/bring';
import { groovePiecesOf } from './fit';
import { grooveFromMidi } from './fromMidi';
import type { Groove } from './groove';
import { builtInGrooves } from './library';
import { revoiced } from './revoice';
import { PLAIN_VOICING } from './voicing';

interface Given {
  at: number;
  channel: number;
  note: number;
  velocity: number;
}

const METERS: Meter[] = [
  { beats: 4, unit: 4 },
  { beats: 7, unit: 8 },
  { beats: 6, unit: 8 },
  { beats: 3, unit: 4 },
];

/** A file of notes of 60 ticks each, with a time signature at each of some bars. */
const fileOf = (notes: Given[], meters: { at: number; meter: Meter }[], end: number): Uint8Array => {
  const events: { at: number; rank: number; event: Record<string, unknown> }[] = [
    ...meters.map(({ at, meter }) => ({
      at,
      rank: 0,
      event: {
        meta: true,
        type: 'timeSignature',
        numerator: meter.beats,
        denominator: meter.unit,
        metronome: 24,
        thirtyseconds: 8,
      },
    })),
    ...notes.flatMap(({ at, channel, note, velocity }) => [
      { at, rank: 2, event: { type: 'noteOn', channel: channel - 1, noteNumber: note, velocity } },
      {
        at: at + 60,
        rank: 1,
        event: { type: 'noteOff', channel: channel - 1, noteNumber: note, velocity: 0 },
      },
    ]),
  ].sort((a, b) => a.at - b.at || a.rank - b.rank);
  let now = 0;
  const track = events.map(({ at, event }) => {
    const timed = { ...event, deltaTime: at - now };
    now = at;
    return timed as unknown as MidiEvent;
  });
  track.push({ deltaTime: Math.max(0, end - now), meta: true, type: 'endOfTrack' });
  return Uint8Array.from(
    writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 960 }, tracks: [track] }),
  );
};

const grooveOf = (bytes: Uint8Array, map: DrumMap = GENERAL_MIDI): Groove => {
  const read = readMidi(bytes, 'lenient');
  if (!read.ok) throw new Error(read.error);
  return grooveFromMidi(read.value.file, {
    id: 'a',
    name: 'Crates',
    path: [],
    source: 'imported',
    map,
    followTempo: false,
  }).groove;
};

const told = ({ at, channel, note, velocity }: Given) => `${at} ${channel} ${note} ${velocity}`;

/** What a pattern is written as, `from` ticks later. */
const written = (beat: Beat, patternId: string, from = 0): string[] => {
  const out = exported(beat, HOW_DEFAULTS, { ...WHAT_DEFAULTS, patternId });
  if (!out.ok) throw new Error(out.error);
  const read = readMidi(out.value.files[0]!.data as Uint8Array, 'lenient');
  if (!read.ok) throw new Error(read.error);
  return read.value.file.notes.map(({ start, channel, note, velocity }) =>
    told({ at: start + from, channel, note, velocity }),
  );
};

const someNotes = (bar: number) =>
  fc.uniqueArray(
    fc.record({
      at: fc.nat({ max: bar * 2 - 1 }).map((at) => Math.floor(at / 60) * 60),
      channel: fc.constantFrom(10, 10, 1, 7),
      note: fc.integer({ min: 0, max: 127 }),
      velocity: fc.integer({ min: 1, max: 127 }),
    }),
    { minLength: 1, maxLength: 40, selector: ({ at, note, channel }) => `${at} ${note} ${channel}` },
  );

const maps: DrumMap[] = [
  GENERAL_MIDI,
  {
    kind: 'ruddik.drumMap',
    version: 1,
    name: 'Two kicks',
    notes: [36, 35, 41].map((note) => ({ note, instrument: 'kick' })),
  },
  { kind: 'ruddik.drumMap', version: 1, name: 'Nothing', notes: [] },
];

test('a file that is taken in, brought in and written out has the same notes: any number, channel, meter and map', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...METERS).chain((meter) => fc.tuple(fc.constant(meter), someNotes(barTicks(meter)))),
      fc.constantFrom(...maps),
      fc.boolean(),
      ([meter, notes], map, used) => {
        const bytes = fileOf(notes, [{ at: 0, meter }], 2 * barTicks(meter));
        const groove = revoiced(grooveOf(bytes, map), PLAIN_VOICING);
        const blank = newBeat('b', 'Quay', 1);
        // Lanes that are played already keep their numbers.
        const parts = Object.fromEntries(
          blank.lanes.map(({ id }) => [id, { ...lanePatternOf(blank.patterns[0]!, id), hits: [newHit(0)] }]),
        );
        const before = used ? { ...blank, patterns: [{ ...blank.patterns[0]!, parts }] } : blank;
        const { beat, told: said } = bringIn(before, groove, { how: 'new', id: 'n', name: groove.name });
        expect(said).toEqual([]);
        expect(beatSchema.safeParse(beat).error).toBeUndefined();
        expect(written(beat, 'n').sort()).toEqual(notes.map(told).sort());
        if (used) expect(written(beat, 'a')).toEqual(written(before, 'a'));
      },
    ),
    { numRuns: 200 },
  );
});

test('bars without end and meters that change come in whole, piece by piece, and only the first is said to be cut', () => {
  const changes = [
    { at: 0, meter: METERS[0]! },
    { at: 20 * 3840, meter: METERS[1]! },
    { at: 20 * 3840 + 3 * 3360, meter: METERS[3]! },
  ];
  const end = 20 * 3840 + 3 * 3360 + 2880;
  const notes: Given[] = [];
  for (let at = 0; at < end; at += 480)
    notes.push({ at, channel: 10, note: at % 960 ? 42 : 36, velocity: 80 });
  // A hair before a bar line at which a piece begins.
  notes.push({ at: 16 * 3840 - 5, channel: 10, note: 49, velocity: 70 });
  const groove = grooveOf(fileOf(notes, changes, end));
  const pieces = groovePiecesOf(groove);
  expect(pieces.map(({ bars, meter }) => `${bars} ${meter.beats}/${meter.unit}`)).toEqual([
    '16 4/4',
    '4 4/4',
    '3 7/8',
    '1 3/4',
  ]);
  const beat = newBeat('b', 'Quay', 1);
  const ids = pieces.map((_, at) => ({ pattern: `p${at}`, tray: `t${at}` }));
  const { beat: all, told: said } = bringIn(beat, groove, { how: 'all', ids, name: 'Crates' });
  expect(said).toEqual([]);
  expect(all.tray.map(({ name }) => name)).toEqual(['Crates 1', 'Crates 2', 'Crates 3', 'Crates 4']);
  let from = 0;
  const out: string[] = [];
  for (const { pattern } of ids) {
    const own = all.patterns.find(({ id }) => id === pattern)!;
    // An early first beat comes round to the end of its own piece there.
    out.push(
      ...written(all, pattern, from).map((note) =>
        pattern === 'p1' ? note.replace(String(20 * 3840 - 5), String(16 * 3840 - 5)) : note,
      ),
    );
    from += patternTicks(own);
  }
  expect(from).toBe(end);
  expect(out.sort()).toEqual(notes.map(told).sort());
  const first = bringIn(beat, groove, { how: 'new', id: 'n', name: 'Crates' });
  expect(first.told).toEqual(['Only its first 16 bars of 24 came in.']);
});

const named = (name: string) => builtInGrooves().find((groove) => groove.name === name)!;

test('laid over, what is there stays and sounds as it did; replacing replaces; other meters are told', () => {
  const blank = newBeat('b', 'Quay', 1);
  const kick = { ...lanePatternOf(blank.patterns[0]!, 'kick'), hits: [newHit(1), newHit(7)] };
  const own = { ...kick, steps: 5, hits: [newHit(0)] };
  const beat: Beat = {
    ...blank,
    feel: newFeel({ percent: 62, grid: '1/16' }),
    patterns: [{ ...blank.patterns[0]!, parts: { kick, 'hat.closed': own } }],
  };
  const groove = named('Ferry deck');
  const over = bringIn(beat, groove, {
    how: 'over',
    patternId: 'a',
    instruments: ['kick', 'hat.closed'],
  });
  const before = written(beat, 'a').filter((note) => note.split(' ')[2] === '36');
  const after = written(over.beat, 'a').filter((note) => note.split(' ')[2] === '36');
  expect(after).toEqual(expect.arrayContaining(before));
  expect(after.length).toBeGreaterThan(before.length);
  expect(lanePatternOf(over.beat.patterns[0]!, 'hat.closed')).toEqual(own);
  if (groove.lanes.some(({ instrument }) => instrument === 'hat.closed'))
    expect(over.told).toEqual(['Closed hat has a loop of its own: what was added lies on “Closed hat 2”.']);
  const replaced = bringIn(beat, groove, { how: 'replace', patternId: 'a' });
  expect(written(replaced.beat, 'a')).not.toEqual(expect.arrayContaining(before));
  const odd = bringIn(beat, named('Seven gulls'), { how: 'over', patternId: 'a', instruments: ['snare'] });
  expect(odd.told[0]).toBe('The groove is in 7/8 and the pattern in 4/4: their bars do not meet.');
});

test('ten copies have ten names', () => {
  const groove = named('Ferry deck');
  let beat = newBeat('b', 'Quay', 1);
  for (let at = 0; at < 10; at++)
    beat = bringIn(beat, groove, { how: 'new', id: `n${at}`, name: groove.name }).beat;
  expect(new Set(beat.patterns.map(({ name }) => name)).size).toBe(11);
  expect(beat.patterns[2]!.name).toBe('Ferry deck 2');
});
