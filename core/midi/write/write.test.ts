import fc from 'fast-check';
import { parseMidi, type MidiEvent } from 'midi-file';
import { emptyColumns, type NoteColumns } from './noteColumns';
import { writeSong, type MidiSong } from './write';

const END = 40000;

/** Notes that do not overlap: each of a number of its own, one after the other. */
const notes: fc.Arbitrary<NoteColumns> = fc
  .array(
    fc.record({
      tick: fc.nat({ max: END - 400 }),
      length: fc.integer({ min: 1, max: 400 }),
      velocity: fc.integer({ min: 1, max: 127 }),
      channel: fc.integer({ min: 1, max: 16 }),
    }),
    { maxLength: 40 },
  )
  .map((list) => {
    const columns = emptyColumns(list.length);
    list.forEach((note, at) => {
      columns.tick[at] = note.tick;
      columns.length[at] = note.length;
      columns.velocity[at] = note.velocity;
      columns.channel[at] = note.channel;
      columns.note[at] = 20 + at;
    });
    return columns;
  });

const rising = <T>(value: fc.Arbitrary<T>) =>
  fc
    .uniqueArray(fc.integer({ min: 1, max: END }), { maxLength: 5 })
    .chain((ticks) =>
      fc.tuple(...[0, ...ticks.sort((a, b) => a - b)].map((tick) => value.map((one) => ({ tick, one })))),
    );

const words = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 20 });

const songs: fc.Arbitrary<MidiSong> = fc.record({
  format: fc.constantFrom(0 as const, 1 as const),
  ppq: fc.constantFrom(24, 96, 480, 960, 1920, 32767),
  name: words,
  tempos: rising(fc.integer({ min: 200_000, max: 3_000_000 })).map((list) =>
    list.map(({ tick, one }) => ({ tick, micros: one })),
  ),
  meters: rising(
    fc.constantFrom(
      { beats: 4, unit: 4 as const },
      { beats: 7, unit: 8 as const },
      { beats: 3, unit: 2 as const },
    ),
  ).map((list) => list.map(({ tick, one }) => ({ tick, meter: one }))),
  markers: rising(words).map((list) => list.map(({ tick, one }) => ({ tick, text: one }))),
  tracks: fc.array(fc.record({ name: words, notes }), { minLength: 1, maxLength: 4 }),
  end: fc.constant(END),
});

type At = MidiEvent & { tick: number };

/** What another reader finds in it, each event at its tick. */
const readBack = (song: MidiSong): { tracks: At[][]; header: { format: number; ticksPerBeat?: number } } => {
  const { tracks, header } = parseMidi(writeSong(song));
  const placed = tracks.map((track) => {
    let tick = 0;
    return track.map((event): At => ({ ...event, tick: (tick += event.deltaTime) }));
  });
  return { tracks: placed, header };
};

const only = <T extends MidiEvent['type']>(events: At[], type: T) =>
  events.filter((event): event is At & Extract<MidiEvent, { type: T }> => event.type === type);

/** The package reads a byte a character. */
const asText = (raw: string): string =>
  new TextDecoder().decode(Uint8Array.from(raw, (letter) => letter.charCodeAt(0)));

const oneTrack = (song: MidiSong): MidiSong =>
  song.format === 0 ? { ...song, tracks: song.tracks.slice(0, 1) } : song;

const written = songs.map(oneTrack);

test('tempos, meters and markers stand at their ticks, in the first track', () => {
  fc.assert(
    fc.property(written, (song) => {
      const { tracks, header } = readBack(song);
      expect([header.format, header.ticksPerBeat]).toEqual([song.format, song.ppq]);
      const [first] = tracks;
      expect(
        only(first!, 'setTempo').map(({ tick, microsecondsPerBeat }) => [tick, microsecondsPerBeat]),
      ).toEqual(song.tempos.map(({ tick, micros }) => [tick, micros]));
      expect(
        only(first!, 'timeSignature').map(({ tick, numerator, denominator }) => [
          tick,
          numerator,
          denominator,
        ]),
      ).toEqual(song.meters.map(({ tick, meter }) => [tick, meter.beats, meter.unit]));
      expect(only(first!, 'marker').map(({ tick, text }) => [tick, asText(text)])).toEqual(
        song.markers.map(({ tick, text }) => [tick, text]),
      );
      expect(asText(only(first!, 'trackName')[0]!.text)).toBe(song.name);
    }),
    { numRuns: 60 },
  );
});

test('every note begins and ends where it should, in a track that ends where the song does', () => {
  fc.assert(
    fc.property(written, (song) => {
      const { tracks } = readBack(song);
      const own = song.format === 1 ? tracks.slice(1) : tracks;
      expect(own).toHaveLength(song.tracks.length);
      for (const track of tracks) {
        expect(track.at(-1)).toMatchObject({ type: 'endOfTrack', tick: song.end });
        expect(track.filter(({ type }) => type === 'endOfTrack')).toHaveLength(1);
      }
      song.tracks.forEach(({ name, notes: meant }, at) => {
        const events = own[at]!;
        if (song.format === 1) expect(asText(only(events, 'trackName')[0]!.text)).toBe(name);
        const starts = new Map(only(events, 'noteOn').map((event) => [event.noteNumber, event]));
        const ends = new Map(only(events, 'noteOff').map((event) => [event.noteNumber, event]));
        expect([starts.size, ends.size]).toEqual([meant.size, meant.size]);
        for (let i = 0; i < meant.size; i++) {
          const note = meant.note[i]!;
          expect(starts.get(note)).toMatchObject({
            tick: meant.tick[i],
            velocity: meant.velocity[i],
            channel: meant.channel[i]! - 1,
          });
          expect(ends.get(note)!.tick).toBe(meant.tick[i]! + meant.length[i]!);
        }
      });
    }),
    { numRuns: 60 },
  );
});

test('where a note ends and the next of its number begins, the end comes first', () => {
  const columns = emptyColumns(2);
  columns.tick.set([0, 240]);
  columns.length.set([240, 240]);
  columns.velocity.set([100, 90]);
  columns.channel.set([10, 10]);
  columns.note.set([36, 36]);
  const song: MidiSong = {
    format: 1,
    ppq: 960,
    name: 'Pier',
    tempos: [{ tick: 0, micros: 500_000 }],
    meters: [{ tick: 0, meter: { beats: 4, unit: 4 } }],
    markers: [],
    tracks: [{ name: 'Kick', notes: columns }],
    end: 3840,
  };
  const [, track] = readBack(song).tracks;
  expect(track!.filter(({ type }) => type.startsWith('note')).map(({ type, tick }) => [type, tick])).toEqual([
    ['noteOn', 0],
    ['noteOff', 240],
    ['noteOn', 240],
    ['noteOff', 480],
  ]);
});

test('a long silence takes four bytes, and is read as it was meant', () => {
  const columns = emptyColumns(1);
  columns.tick[0] = 200_000_000;
  columns.length[0] = 10;
  columns.velocity[0] = 64;
  columns.channel[0] = 1;
  columns.note[0] = 60;
  const song: MidiSong = {
    format: 0,
    ppq: 960,
    name: 'Long',
    tempos: [{ tick: 0, micros: 500_000 }],
    meters: [],
    markers: [],
    tracks: [{ name: 'One', notes: columns }],
    end: 200_000_100,
  };
  const [track] = readBack(song).tracks;
  expect(only(track!, 'noteOn')[0]!.tick).toBe(200_000_000);
  expect(track!.at(-1)!.tick).toBe(200_000_100);
});
