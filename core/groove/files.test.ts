import fc from 'fast-check';
import { writeMidi, type MidiEvent } from 'midi-file';
import { newBeat } from '../document/defaults';
import { EXPORT_DEFAULTS, exportPattern } from '../export/exportPattern.mock';
import { GENERAL_MIDI, type DrumMap } from '../midi/drumMap/drumMap';
import { readMidi } from '../midi/read/readMidi';
import { bringIn } from '../bring/bring';
import { grooveFromMidi, type MidiReading } from './fromMidi';
import { grooveTicks, hitCount, type Groove } from './groove';
import { climbs, grooveOfFile, importFile, isHousekeeping, splitPath } from './importing';

interface Given {
  tick: number;
  note: number;
  velocity: number;
  length: number;
}

/** A file of notes, each ending before its next of the same number. */
const fileOf = (notes: Given[], ppq: number, more: MidiEvent[] = [], end?: number): Uint8Array => {
  const events = notes.flatMap(({ tick, note, velocity, length }) => [
    {
      at: tick,
      rank: 1,
      event: { deltaTime: 0, type: 'noteOn', channel: 9, noteNumber: note, velocity } as MidiEvent,
    },
    {
      at: tick + length,
      rank: 0,
      event: { deltaTime: 0, type: 'noteOff', channel: 9, noteNumber: note, velocity: 64 } as MidiEvent,
    },
  ]);
  const sorted = events.sort((a, b) => a.at - b.at || a.rank - b.rank);
  let now = 0;
  const timed = sorted.map(({ at, event }) => {
    const deltaTime = at - now;
    now = at;
    return { ...event, deltaTime } as MidiEvent;
  });
  const last = Math.max(now, end ?? 0);
  const tail: MidiEvent = { deltaTime: last - now, meta: true, type: 'endOfTrack' };
  return Uint8Array.from(
    writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: ppq },
      tracks: [[...more, ...timed, tail]],
    }),
  );
};

const opened = (bytes: Uint8Array) => {
  const read = readMidi(bytes, 'lenient');
  if (!read.ok) throw new Error(read.error);
  return read.value.file;
};

const READING: MidiReading = {
  id: 'a',
  name: 'A',
  path: [],
  source: 'imported',
  map: GENERAL_MIDI,
  followTempo: false,
};
const grooveOf = (bytes: Uint8Array, more: Partial<MidiReading> = {}) =>
  grooveFromMidi(opened(bytes), { ...READING, ...more });

/** Exports a groove by itself in a division. */
const exported = (groove: Groove, ppq: number) => {
  const beat = { ...newBeat('b', 'B', 1), lanes: newBeat('b', 'B', 1).lanes.slice(0, 1) };
  const { beat: done } = bringIn(beat, groove, { how: 'new', id: 'new', name: 'New' });
  const { bytes } = exportPattern(done, done.patterns[1]!, { ...EXPORT_DEFAULTS, ppq });
  return opened(bytes).notes.map(({ start, end, note, velocity }) => ({ start, end, note, velocity }));
};

const byTick = <T extends { start: number; note: number }>(notes: T[]): T[] =>
  [...notes].sort((a, b) => a.start - b.start || a.note - b.note);

const someNotes = fc.uniqueArray(
  fc.record({
    at: fc.integer({ min: 0, max: 4 * 960 - 1 }),
    note: fc.integer({ min: 35, max: 81 }),
    velocity: fc.integer({ min: 1, max: 127 }),
    length: fc.double({ min: 0.01, max: 1, noNaN: true }),
  }),
  { minLength: 1, maxLength: 40, selector: ({ at, note }) => `${at} ${note}` },
);

describe('a file as a groove', () => {
  test('taken in and written out unchanged: the same notes at the same ticks, whatever the division', () => {
    fc.assert(
      fc.property(someNotes, fc.integer({ min: 96, max: 1920 }), (some, ppq) => {
        const ticks = some.map(({ at, ...rest }) => ({ ...rest, tick: Math.floor((at * ppq) / 960) }));
        const notes = ticks
          .filter((one, at) => ticks.findIndex((o) => o.tick === one.tick && o.note === one.note) === at)
          .map((one): Given => {
            const next = Math.min(
              4 * ppq,
              ...ticks.filter((o) => o.note === one.note && o.tick > one.tick).map(({ tick }) => tick),
            );
            return { ...one, length: Math.max(1, Math.floor((next - one.tick) * one.length)) };
          });
        const bytes = fileOf(notes, ppq, [], 4 * ppq);
        const { groove } = grooveOf(bytes);
        const before = opened(bytes).notes.map(({ start, end, note, velocity }) => ({
          start,
          end,
          note,
          velocity,
        }));
        expect(byTick(exported(groove, ppq))).toEqual(byTick(before));
      }),
      { numRuns: 200 },
    );
  });

  test('a note a hair before the last bar line adds no bar: it is an early first beat', () => {
    const bytes = fileOf(
      [
        { tick: 0, note: 36, velocity: 100, length: 100 },
        { tick: 3835, note: 38, velocity: 90, length: 5 },
      ],
      960,
    );
    const { groove } = grooveOf(bytes);
    expect(groove.bars).toBe(1);
    const snare = groove.lanes.find(({ instrument }) => instrument === 'snare')!.part.hits[0]!;
    expect([snare.step, snare.nudge < 0]).toEqual([0, true]);
    expect(byTick(exported(groove, 960))[1]!.start).toBe(3835);
  });

  test('bars are those that every start falls into, or as many as the track says', () => {
    const one = [{ tick: 0, note: 36, velocity: 100, length: 100 }];
    expect(grooveOf(fileOf(one, 96)).groove.bars).toBe(1);
    expect(grooveOf(fileOf(one, 96, [], 96 * 4 * 3)).groove.bars).toBe(3);
    expect(grooveOf(fileOf(one, 96, [], 96 * 4 * 3 - 7)).groove.bars).toBe(1);
  });

  test('doubles become one and what sounds on is ended, and both are counted', () => {
    const file = opened(fileOf([{ tick: 0, note: 36, velocity: 100, length: 10 }], 480));
    const [first] = file.notes;
    file.notes.push(
      { ...first!, velocity: 50 },
      { ...first!, start: 5, end: 500 },
      { ...first!, start: 300, end: 310 },
    );
    const { groove, doubles, cut } = grooveFromMidi(file, READING);
    expect([hitCount(groove), doubles, cut]).toEqual([3, 1, 2]);
    expect(groove.lanes[0]!.part.hits[0]!.velocity).toBe(100);
  });

  test('further tempos are followed where that is wanted', () => {
    const tempo = (deltaTime: number, bpm: number): MidiEvent => ({
      deltaTime,
      meta: true,
      type: 'setTempo',
      microsecondsPerBeat: 60e6 / bpm,
    });
    const notes: MidiEvent[] = [
      tempo(0, 120),
      tempo(480, 60),
      { deltaTime: 480, type: 'noteOn', channel: 9, noteNumber: 36, velocity: 90 },
      { deltaTime: 10, type: 'noteOff', channel: 9, noteNumber: 36, velocity: 0 },
      { deltaTime: 0, meta: true, type: 'endOfTrack' },
    ];
    const bytes = Uint8Array.from(
      writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 480 }, tracks: [notes] }),
    );
    const at = (followTempo: boolean) => {
      const { step, nudge } = grooveOf(bytes, { followTempo }).groove.lanes[0]!.part.hits[0]!;
      return (step + nudge) * 240;
    };
    expect(at(false)).toBeCloseTo(1920, 6);
    // The second quarter lasts twice as long.
    expect(at(true)).toBeCloseTo(2880, 6);
  });

  test('the pedal of a hat says whether it is open, half open or closed; its number stays', () => {
    const pedal = (deltaTime: number, value: number): MidiEvent => ({
      deltaTime,
      type: 'controller',
      channel: 9,
      controllerType: 4,
      value,
    });
    const hit = (deltaTime: number): MidiEvent[] => [
      { deltaTime, type: 'noteOn', channel: 9, noteNumber: 46, velocity: 90 },
      { deltaTime: 10, type: 'noteOff', channel: 9, noteNumber: 46, velocity: 0 },
    ];
    const track: MidiEvent[] = [
      ...hit(0),
      pedal(100, 127),
      ...hit(10),
      pedal(100, 60),
      ...hit(10),
      pedal(100, 0),
      ...hit(10),
      { deltaTime: 0, meta: true, type: 'endOfTrack' },
    ];
    const bytes = Uint8Array.from(
      writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 480 }, tracks: [track] }),
    );
    const { groove } = grooveOf(bytes);
    const hits = Object.fromEntries(
      groove.lanes.map(({ instrument, part }) => [instrument, part.hits.length]),
    );
    expect(hits).toEqual({ 'hat.open': 2, 'hat.closed': 1, 'hat.half': 1 });
    expect(groove.lanes.every(({ note }) => note === 46)).toBe(true);
    expect(exported(groove, 480).map(({ note }) => note)).toEqual([46, 46, 46, 46]);
  });

  test('a note that the map does not know is kept under its number', () => {
    const bytes = fileOf([{ tick: 0, note: 100, velocity: 80, length: 10 }], 480);
    const { groove, unknown } = grooveOf(bytes);
    expect([unknown, groove.lanes[0]!.unknown]).toEqual([[100], true]);
    const { beat } = bringIn(newBeat('b', 'B', 1), groove, { how: 'new', id: 'n', name: 'N' });
    expect(beat.lanes[beat.lanes.length - 1]).toMatchObject({ name: 'Note 100', note: 100 });
    const map: DrumMap = { ...GENERAL_MIDI, name: 'Other', notes: [{ note: 100, instrument: 'kick' }] };
    expect(grooveOf(bytes, { map }).groove.lanes[0]).toMatchObject({ instrument: 'kick', note: 100 });
  });
});

describe('files from somewhere', () => {
  test('one is listed with its folders, another left out with a sentence', () => {
    const bytes = fileOf([{ tick: 0, note: 36, velocity: 100, length: 10 }], 480);
    const read = importFile(bytes, { path: 'Pier/Night/rain.MID', source: 'imported', map: GENERAL_MIDI });
    expect(read.ok && read.value.indexed.row).toMatchObject({
      id: 'imported/Pier/Night/rain.MID',
      name: 'rain',
      path: ['Imported', 'Pier', 'Night'],
      style: 'Night',
    });
    expect(read.ok && grooveTicks(read.value.indexed.row)).toBe(3840);
    const left = importFile(new Uint8Array([1, 2]), { path: 'x.mid', source: 'imported', map: GENERAL_MIDI });
    expect(left).toEqual({ ok: false, value: { path: 'x.mid', why: 'It is not a MIDI file.' } });
    const none = importFile(fileOf([], 480), { path: 'x.mid', source: 'imported', map: GENERAL_MIDI });
    expect(none).toMatchObject({ ok: false, value: { why: 'It holds no notes.' } });
  });

  test('of one with a bass beside the drums the drums are taken at first, the rest is told and can be had', () => {
    const track = (channel: number, noteNumber: number, name: string): MidiEvent[] => [
      { deltaTime: 0, meta: true, type: 'trackName', text: name },
      { deltaTime: 0, type: 'noteOn', channel, noteNumber, velocity: 90 },
      { deltaTime: 100, type: 'noteOff', channel, noteNumber, velocity: 0 },
      { deltaTime: 1820, meta: true, type: 'endOfTrack' },
    ];
    const bytes = Uint8Array.from(
      writeMidi({
        header: { format: 1, numTracks: 2, ticksPerBeat: 480 },
        tracks: [track(0, 36, 'Bass'), track(9, 38, 'Drums')],
      }),
    );
    const place = { path: 'song.mid', source: 'imported', map: GENERAL_MIDI } as const;
    const read = importFile(bytes, place);
    if (!read.ok) throw new Error(read.value.why);
    const { indexed, warnings } = read.value;
    expect(indexed.row.instruments).toEqual(['snare']);
    expect(indexed.parts!.map(({ name, drums }) => [name, drums])).toEqual([
      ['Drums', true],
      ['Bass', false],
    ]);
    expect(indexed.only).toEqual(['1/10']);
    expect(warnings.join(' ')).toMatch(/Not taken: Bass, channel 1, 1 note\./);
    const both = grooveOfFile(bytes, { ...place, only: ['1/10', '0/1'] });
    expect(both.ok && both.groove.lanes.map(({ channel, note }) => [channel, note])).toEqual([
      [1, 36],
      [10, 38],
    ]);
    // What was kept before parts were chosen is read as it was.
    const all = grooveOfFile(bytes, place);
    expect(all.ok && all.groove.lanes).toHaveLength(2);
    const drumsAlone = importFile(fileOf([{ tick: 0, note: 36, velocity: 100, length: 10 }], 480), place);
    expect(drumsAlone.ok && 'parts' in drumsAlone.value.indexed).toBe(false);
  });

  test('a microsecond a quarter among other tempos is not followed into millions of bars; it is told', () => {
    const tempo = (microsecondsPerBeat: number): MidiEvent => ({
      deltaTime: 0,
      meta: true,
      type: 'setTempo',
      microsecondsPerBeat,
    });
    const bytes = (first: number) =>
      Uint8Array.from(
        writeMidi({
          header: { format: 0, numTracks: 1, ticksPerBeat: 480 },
          tracks: [
            [
              tempo(first),
              { deltaTime: 0, type: 'noteOn', channel: 9, noteNumber: 36, velocity: 90 },
              { deltaTime: 480, type: 'noteOff', channel: 9, noteNumber: 36, velocity: 0 },
              tempo(500_000),
              { deltaTime: 480 * 60, type: 'noteOn', channel: 9, noteNumber: 38, velocity: 90 },
              // A note that is held for days is no reason to work for hours.
              { deltaTime: 0x0fffffff, type: 'noteOff', channel: 9, noteNumber: 38, velocity: 0 },
              { deltaTime: 0, meta: true, type: 'endOfTrack' },
            ],
          ],
        }),
      );
    const place = { path: 'x.mid', source: 'imported', map: GENERAL_MIDI, followTempo: true } as const;
    const wild = grooveOfFile(bytes(1), place);
    if (!wild.ok) throw new Error(wild.error);
    expect(wild.groove.bars).toBe(16);
    expect(wild.taken.indexed.followTempo).toBe(false);
    expect(wild.taken.warnings.join(' ')).toBe(
      'With its tempos it would be longer than 4000 bars. It has 1 more tempo: ignored.',
    );
    // Twice as fast at first: after it everything lasts twice as long.
    const tame = grooveOfFile(bytes(250_000), place);
    if (!tame.ok) throw new Error(tame.error);
    // Of 64 quarters one is at the first tempo and 63 last twice as long.
    expect(tame.groove.bars).toBe(32);
    expect(tame.taken.indexed.followTempo).toBe(true);
  });

  test('beside drums, another channel is one lane with pitches; brought in and written out it has the same notes', () => {
    const track = (channel: number, numbers: number[]): MidiEvent[] => [
      ...numbers.flatMap((noteNumber): MidiEvent[] => [
        { deltaTime: 0, type: 'noteOn', channel, noteNumber, velocity: 90 },
        { deltaTime: 240, type: 'noteOff', channel, noteNumber, velocity: 0 },
      ]),
      { deltaTime: 1920 - 240 * numbers.length, meta: true, type: 'endOfTrack' },
    ];
    const file = (tracks: MidiEvent[][]) =>
      Uint8Array.from(
        writeMidi({ header: { format: 1, numTracks: tracks.length, ticksPerBeat: 480 }, tracks }),
      );
    const place = { path: 'song.mid', source: 'imported', map: GENERAL_MIDI } as const;
    const read = grooveOfFile(file([track(0, [60, 63, 67, 60, 48]), track(9, [36, 38])]), place);
    if (!read.ok) throw new Error('not read');
    expect(read.groove.lanes.map(({ instrument, note, tuned }) => [instrument, note, tuned])).toEqual([
      ['kick', 36, undefined],
      ['snare', 38, undefined],
      ['marimba', 48, true],
    ]);
    expect(read.groove.lanes[2]!.part.hits.map(({ pitch = 0 }) => pitch)).toEqual([12, 15, 19, 12, 0]);
    const { beat } = bringIn(newBeat('b', 'B', 1), read.groove, { how: 'new', id: 'n', name: 'Song' });
    const lane = beat.lanes.find(({ instrument }) => instrument === 'marimba')!;
    expect(lane).toMatchObject({ channel: 1, note: 48, tuning: { scale: 'chromatic', low: 48, high: 67 } });
    const pattern = beat.patterns.find(({ id }) => id === 'n')!;
    const again = opened(exportPattern(beat, pattern, EXPORT_DEFAULTS).bytes);
    expect(again.notes.map(({ channel, note }) => `${channel} ${note}`).sort()).toEqual([
      '1 48',
      '1 60',
      '1 60',
      '1 63',
      '1 67',
      '10 36',
      '10 38',
    ]);
    // Alone, nothing says that it is not for drums.
    const alone = grooveOfFile(file([track(0, [36, 38])]), place);
    expect(alone.ok && alone.groove.lanes.map(({ instrument }) => instrument)).toEqual(['kick', 'snare']);
  });

  test('paths', () => {
    expect(['../a.mid', '/a.mid', 'a/../../b.mid', 'C:\\a.mid', 'a\\..\\b'].every(climbs)).toBe(true);
    expect(['a.mid', 'a/b..c/d.mid', '...mid'].some(climbs)).toBe(false);
    expect(['__MACOSX/a.mid', 'x/._a.mid', 'x/.DS_Store'].every(isHousekeeping)).toBe(true);
    expect(splitPath('./a\\b/c.midi')).toEqual({ folders: ['a', 'b'], name: 'c' });
  });
});
