import { readMidiFile } from './readMidi';
import fc from 'fast-check';
import { parseMidi, writeMidi, type MidiEvent } from 'midi-file';
import { readChunks } from './chunks';
import { inspectMidi } from './inspect';
import { FILE_BOUNDS } from './limits';
import { readMidi } from './readMidi';
import { wholeEvents } from './wholeEvents';

const note = (deltaTime: number, noteNumber = 38, velocity = 90): MidiEvent => ({
  deltaTime,
  type: velocity ? 'noteOn' : 'noteOff',
  channel: 9,
  noteNumber,
  velocity,
});
const END: MidiEvent = { deltaTime: 0, meta: true, type: 'endOfTrack' };

/** Steady sixteenths on a snare, at 480 to the quarter. */
const steady = (count: number): MidiEvent[] =>
  Array.from({ length: count }, (_, at) => [note(at ? 60 : 0), note(60, 38, 0)]).flat();

const fileOf = (tracks: MidiEvent[][], format: 0 | 1 | 2 = 1): Uint8Array =>
  Uint8Array.from(
    writeMidi({
      header: { format, numTracks: tracks.length, ticksPerBeat: 480 },
      tracks: tracks.map((events) => [...events, END]),
    }),
  );

const WHOLE = fileOf([steady(32)]);

const opened = (bytes: Uint8Array) => {
  const read = readMidi(bytes, 'lenient');
  if (!read.ok) throw new Error(read.error);
  return read.value;
};
const changed = (bytes: Uint8Array, change: (view: DataView) => void): Uint8Array => {
  const copy = bytes.slice();
  change(new DataView(copy.buffer));
  return copy;
};
/** A chunk of another kind. */
const foreign = (id: string, length: number): number[] => [
  ...[...id].map((sign) => sign.charCodeAt(0)),
  ...[0, 0, 0, length],
  ...Array.from({ length }, (_, at) => at),
];

describe('whole files', () => {
  test('are read as the strict reader reads them, without a warning', () => {
    const [loose, strict] = [opened(WHOLE), readMidiFile(WHOLE)];
    expect(loose.warnings).toEqual([]);
    expect(strict.ok && strict.value.notes).toEqual(loose.file.notes);
    expect(loose.file.notes).toHaveLength(32);
  });

  test('chunks of other kinds and longer headers are passed over without a word', () => {
    const head = changed(WHOLE.slice(0, 14), (view) => view.setUint32(4, 9));
    const bytes = Uint8Array.from([
      ...head,
      1,
      2,
      3,
      ...foreign('XFIH', 5),
      ...WHOLE.slice(14),
      ...foreign('JUNK', 3),
    ]);
    expect(opened(bytes)).toMatchObject({ warnings: [] });
    expect(opened(bytes).file.notes).toHaveLength(32);
  });

  test('running status, meta events and exclusive messages are followed', () => {
    const body = [
      0x00, 0x99, 38, 90, 0x10, 38, 0, 0x00, 0xf0, 2, 1, 0xf7, 0x00, 0xff, 1, 3, 65, 66, 67, 0x00, 0x99, 40,
      9,
    ];
    expect(wholeEvents(Uint8Array.from(body))).toEqual({ end: body.length, ended: false });
    expect(wholeEvents(Uint8Array.from([...body, 0x00, 0xff, 0x2f, 0x00, 7]))).toEqual({
      end: body.length + 4,
      ended: true,
    });
    expect(wholeEvents(Uint8Array.from([...body, 0x00, 0x99, 38]))).toEqual({
      end: body.length,
      ended: false,
    });
    expect(wholeEvents(Uint8Array.from([0x00, 38, 90]))).toEqual({ end: 0, ended: false });
  });
});

describe('refused, each with its own sentence', () => {
  test.each([
    ['nothing', new Uint8Array(), 'It is empty.'],
    ['no MThd', Uint8Array.from(Buffer.from('RIFF....and so on')), 'It is not a MIDI file.'],
    [
      'division 0',
      changed(WHOLE, (view) => view.setUint16(12, 0)),
      'It says that a quarter note has no ticks.',
    ],
    ['no track', WHOLE.slice(0, 14), 'It has no tracks.'],
    ['too large', new Uint8Array(FILE_BOUNDS.bytes + 1), 'It is larger than 4 MB.'],
  ])('%s', (_, bytes, error) => expect(readMidi(bytes, 'lenient')).toEqual({ ok: false, error }));

  test('too many notes', () => {
    const body = new Uint8Array(4 * (FILE_BOUNDS.notes + 1));
    for (let at = 0; at < body.length; at += 4) body.set([0, 0x99, 38, 90], at);
    const bytes = Uint8Array.from([...WHOLE.slice(0, 14), 0x4d, 0x54, 0x72, 0x6b, 0, 0, 0, 0, ...body]);
    new DataView(bytes.buffer).setUint32(18, body.length);
    expect(readMidi(bytes, 'lenient')).toEqual({
      ok: false,
      error: 'It has 200,001 notes; at most 200,000 are read.',
    });
  });
});

describe('read with a warning', () => {
  test('a track cut short gives its whole events', () => {
    const { file, warnings } = opened(WHOLE.slice(0, WHOLE.length - 61));
    expect(file.notes.length).toBeGreaterThan(20);
    expect(warnings).toEqual([
      'Track 1 is shorter than it says.',
      'Track 1 breaks off; what stands before that was read.',
      '1 note has no end and was given one.',
    ]);
  });

  test('a length that says too much or too little', () => {
    const much = opened(changed(WHOLE, (view) => view.setUint32(18, 90000)));
    expect(much.file.notes).toHaveLength(32);
    expect(much.warnings).toEqual(['Track 1 is shorter than it says.']);
    const little = opened(changed(WHOLE, (view) => view.setUint32(18, 20)));
    expect(little.file.notes).toHaveLength(32);
    expect(little.warnings).toEqual(['Track 1 is longer than it says.']);
  });

  test('a wrong track count', () => {
    const { file, warnings } = opened(
      changed(fileOf([steady(2), steady(3)]), (view) => view.setUint16(10, 7)),
    );
    expect(file.notes).toHaveLength(5);
    expect(warnings).toEqual(['It says that it has 7 tracks, and has 2.']);
  });

  test('notes without an end stop at the next of their number, or at the track’s end', () => {
    const { file, warnings } = opened(fileOf([[note(0), note(100, 42), note(140), note(50, 42, 0)]]));
    expect(file.notes.map(({ note: n, start, end }) => [n, start, end])).toEqual([
      [38, 0, 240],
      [42, 100, 290],
      [38, 240, 290],
    ]);
    expect(warnings).toEqual(['2 notes have no end and were given one.']);
  });

  test('SMPTE time is read at 120 BPM: 25 frames of 40 ticks are 500 ticks a quarter', () => {
    const bytes = changed(WHOLE, (view) => view.setUint16(12, ((256 - 25) << 8) | 40));
    const { file, warnings } = opened(bytes);
    expect(file.ppq).toBe(500);
    expect(warnings[0]).toContain('SMPTE');
  });
});

/** A time signature as it stands in a file: so many beats of the note that is 2 to a power. */
const signature = (beats: number, power: number, delta = 0): number[] => [
  delta >> 7 ? 0x80 | (delta >> 7) : delta,
  ...(delta >> 7 ? [delta & 0x7f] : []),
  ...[0xff, 0x58, 4, beats, power, 24, 8],
];

/** A file of 480 ticks a quarter with one track, in bytes. */
const ofBytes = (body: number[]): Uint8Array =>
  Uint8Array.from([
    ...[0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 0, 0, 1, 0x01, 0xe0, 0x4d, 0x54, 0x72, 0x6b, 0, 0, 0],
    ...[body.length, ...body],
  ]);
/** A stroke of the snare after a time below 16,384 ticks. */
const struck = (delta: number): number[] => [0x80 | (delta >> 7), delta & 0x7f, 0x99, 38, 90, 10, 38, 0];
const OVER = [0, 0xff, 0x2f, 0];

test.each([7, 30, 31])('time signatures of a note of 2 to the power of %i are left out and told', (power) => {
  const said = ['1 time signature skipped: the note value is shorter than a 64th.'];
  const first = inspectMidi(ofBytes([...signature(4, power), ...struck(9000), ...OVER]));
  expect(first).toMatchObject({ value: { timeSignature: '4/4', bars: 5, warnings: said } });
  const later = inspectMidi(
    ofBytes([...signature(3, 2), ...struck(1450), ...signature(5, power, 100), ...struck(9000), ...OVER]),
  );
  // 1450 + 10 + 100 + 9000 ticks, in bars of 1440: the eighth one.
  expect(later).toMatchObject({ value: { timeSignature: '3/4', bars: 8, warnings: said } });
});

test('bars are counted as they stand: cut short by a meter that comes within one, and the shortest in long silence', () => {
  // 2 bars of 4/4 and a third of 960 ticks, then 3/8 (720) up to a stroke 2000 later: 3 more.
  const cut = inspectMidi(ofBytes([...struck(4790), ...signature(3, 3, 0), ...struck(2000), ...OVER]));
  expect(cut).toMatchObject({ value: { bars: 3 + 3 } });
  // 32/64 is 960 ticks, 1/64 is 30: 16,000 ticks are 534 of them.
  const short = inspectMidi(ofBytes([...signature(1, 6), ...struck(16000), ...OVER]));
  expect(short).toMatchObject({ value: { timeSignature: '1/64', bars: 534 } });
});

test('files damaged at random are all answered, and what is read is sane', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(WHOLE.length - 1), fc.nat(255)), { minLength: 1, maxLength: 12 }),
      fc.nat(WHOLE.length),
      (bytes, cut) => {
        const damaged = WHOLE.slice(0, Math.max(14, WHOLE.length - (cut % 80)));
        for (const [at, value] of bytes) if (at < damaged.length) damaged[at] = value;
        const read = inspectMidi(damaged);
        if (!read.ok) return expect(read.error).toMatch(/\.$/);
        expect(read.value.bars).toBeGreaterThanOrEqual(0);
        expect(read.value.notes).toBeLessThanOrEqual(64);
        for (const hit of read.value.instruments) expect(hit.note).toBeLessThan(128);
      },
    ),
    { numRuns: 1500 },
  );
});

test('what readChunks mends, the package reads', () => {
  fc.assert(
    fc.property(fc.uint8Array({ minLength: 1, maxLength: 60 }), (body) => {
      const bytes = Uint8Array.from([
        ...WHOLE.slice(0, 14),
        0x4d,
        0x54,
        0x72,
        0x6b,
        0,
        0,
        0,
        body.length,
        ...body,
      ]);
      const read = readChunks(bytes);
      if (!read.ok) return;
      for (const track of read.value.tracks)
        expect(wholeEvents(track)).toEqual({ end: track.length, ended: true });
    }),
  );
});

describe('looking into a file', () => {
  test('bars, tempo, meter, swing and instruments', () => {
    const swung = Array.from({ length: 32 }, (_, at): MidiEvent[] => [
      note(at ? (at % 2 ? 298 - 60 : 182 - 60) / 2 : 0, at % 4 ? 42 : 36),
      note(30, at % 4 ? 42 : 36, 0),
    ]).flat();
    const head: MidiEvent[] = [
      { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 600000 },
      {
        deltaTime: 0,
        meta: true,
        type: 'timeSignature',
        numerator: 4,
        denominator: 4,
        metronome: 24,
        thirtyseconds: 8,
      },
    ];
    const read = inspectMidi(fileOf([[...head, ...swung]]));
    expect(read).toMatchObject({
      ok: true,
      value: {
        format: 1,
        ppq: 480,
        bpm: 100,
        tempoChanges: 0,
        timeSignature: '4/4',
        bars: 2,
        notes: 32,
        swing: { grid: '1/16' },
        instruments: [
          { note: 36, name: 'Kick', hits: 8 },
          { note: 42, name: 'Closed hat', hits: 24 },
        ],
      },
    });
    expect(read.ok && read.value.swing!.percent).toBeCloseTo(62, 0);
  });

  test('a meter that changes is counted bar by bar', () => {
    const meter = (deltaTime: number, numerator: number): MidiEvent => ({
      deltaTime,
      meta: true,
      type: 'timeSignature',
      numerator,
      denominator: 4,
      metronome: 24,
      thirtyseconds: 8,
    });
    // Two bars of 3/4, then hits in two bars of 4/4.
    const events = [
      meter(0, 3),
      note(0),
      note(10, 38, 0),
      meter(2870, 4),
      note(0),
      note(10, 38, 0),
      note(1990),
      note(10, 38, 0),
    ];
    const read = inspectMidi(fileOf([events]));
    expect(read).toMatchObject({ ok: true, value: { bars: 4, timeSignature: '3/4' } });
  });

  test('reads back what the package wrote', () => {
    expect(parseMidi(WHOLE).tracks[0]).toHaveLength(65);
    expect(inspectMidi(WHOLE)).toMatchObject({ ok: true, value: { bars: 2, swing: { percent: 50 } } });
  });
});
