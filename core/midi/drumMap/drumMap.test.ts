import { positionOf } from '../../document/position';
import fc from 'fast-check';
import { newBeat, newLane } from '../../document/defaults';
import { beatSchema } from '../../document/schema';
import { INSTRUMENT_IDS, INSTRUMENTS } from '../../document/instruments';
import { grooveTicks } from '../../groove/groove';
import { builtInGrooves } from '../../groove/library';
import { examplesFrom } from '../../groove/perform';
import { steadyBars } from '../../feel/bars';
import { ticksPerMs } from '../../units';
import {
  crossing,
  crossings,
  drumMapText,
  entryOf,
  GENERAL_MIDI,
  instrumentIn,
  instrumentMeant,
  shifted,
  withNote,
  type DrumMap,
} from './drumMap';
import { readDrumMap } from './drumMapFile';
import { guessMap } from '../../analysis/guessMap';
import { laneCrossings, sharedNumbers, writtenWith } from './laneMap';
import { midnamText, readMapCsv, readMidnam } from './mapFiles';
import { mapOf } from './mapPreview';

const mapOfNotes = (notes: DrumMap['notes']): DrumMap => ({
  kind: 'ruddik.drumMap',
  version: 1,
  name: 'Pads',
  notes,
});

describe('drum maps', () => {
  test('General MIDI has one instrument for each note from 35 to 81', () => {
    expect(GENERAL_MIDI.notes.map(({ note }) => note)).toEqual(
      Array.from({ length: 47 }, (_, at) => 35 + at),
    );
    expect([36, 35, 38, 40, 37, 42, 44, 46].map((note) => instrumentIn(GENERAL_MIDI, note))).toEqual([
      'kick',
      'kick.second',
      'snare',
      'snare.second',
      'snare.sideStick',
      'hat.closed',
      'hat.pedal',
      'hat.open',
    ]);
  });

  test('to itself, every note stays; what crosses near is another articulation of the same drum', () => {
    const all = GENERAL_MIDI.notes.map(({ note }) => note);
    for (const { note, kind, to } of crossings(all, GENERAL_MIDI, GENERAL_MIDI))
      expect([kind, to!.note]).toEqual(['same', note]);
    const plain = mapOfNotes([
      { note: 60, instrument: 'kick' },
      { note: 61, instrument: 'snare' },
      { note: 37, instrument: 'hat.open' },
    ]);
    expect(crossing(plain, 'snare.rimshot')).toMatchObject({ kind: 'near', as: 'snare', to: { note: 61 } });
    expect(crossing(plain, 'cowbell').kind).toBe('none');
    const [stick] = crossings([37], GENERAL_MIDI, mapOfNotes([{ note: 37, instrument: 'hat.open' }]));
    expect(stick).toMatchObject({ instrument: 'snare.sideStick', kind: 'none', clash: 'hat.open' });
    const dyes = (id: keyof typeof INSTRUMENTS) => INSTRUMENTS[id].pigment;
    for (const id of INSTRUMENT_IDS) {
      const { as } = crossing(plain, id);
      if (as) expect(dyes(as)).toBe(dyes(id));
    }
  });

  test('an entry for a channel speaks of that channel alone', () => {
    const map = mapOfNotes([
      { note: 60, channel: 3, instrument: 'clap' },
      { note: 60, instrument: 'kick' },
    ]);
    expect([instrumentIn(map, 60, 3), instrumentIn(map, 60, 10), instrumentIn(map, 60)]).toEqual([
      'clap',
      'kick',
      'kick',
    ]);
  });

  test('what a number means on one channel is changed and taken out by itself', () => {
    const map = mapOfNotes([
      { note: 60, instrument: 'kick' },
      { note: 60, channel: 3, instrument: 'clap' },
    ]);
    expect(withNote(map, 60, null, 3).notes).toEqual([{ note: 60, instrument: 'kick' }]);
    expect(withNote(map, 60, null).notes).toEqual([{ note: 60, channel: 3, instrument: 'clap' }]);
    expect(withNote(map, 60, { instrument: 'snare' }, 3).notes).toEqual([
      { note: 60, instrument: 'kick' },
      { note: 60, instrument: 'snare', channel: 3 },
    ]);
    expect(withNote(map, 60, { instrument: 'ride' }).notes).toHaveLength(2);
  });

  test('are changed, shifted, written and read back', () => {
    const map = withNote(mapOfNotes([]), 40, { instrument: 'ride' });
    expect(shifted(map, 12).notes).toEqual([{ note: 52, instrument: 'ride' }]);
    const away = shifted(map, 100);
    expect(entryOf(away, 'ride')).toBeNull();
    expect(readDrumMap(drumMapText(away))).toEqual({ ok: true, value: away });
    expect(midnamText(away)).not.toContain('140');
    expect(shifted(away, -100)).toEqual(map);
    expect(withNote(map, 40, null).notes).toEqual([]);
    expect(readDrumMap(drumMapText(map))).toEqual({ ok: true, value: map });
    expect(entryOf(map, 'kick')).toBeNull();
  });

  test.each([
    ['{', 'It is not JSON, or was cut short'],
    ['{"kind":"other"}', 'not a drum map of Ruddik.'],
    ['{"kind":"ruddik.drumMap","version":2}', 'newer Ruddik'],
    [
      '{"kind":"ruddik.drumMap","version":1,"name":"x","notes":[{"note":2000,"instrument":"kick"}]}',
      'The note of note 1',
    ],
  ])('%j is refused with a sentence', (text, why) => {
    const read = readDrumMap(text);
    expect(read.ok ? '' : read.error).toContain(why);
  });
});

describe('lists from elsewhere', () => {
  test('a name says its drum', () => {
    const meant = (name: string) => instrumentMeant(name);
    expect(
      ['Bass Drum 1', 'Snare Rimshot', 'Hi-Hat Open', 'HH half open', 'Ride Bell', 'Floor Tom 1', 'Gong'].map(
        meant,
      ),
    ).toEqual(['kick', 'snare.rimshot', 'hat.open', 'hat.half', 'ride.bell', 'tom.floor', null]);
    for (const id of INSTRUMENT_IDS) expect(meant(INSTRUMENTS[id].name)).toBe(id);
  });

  test('a MIDI name document comes back as it was written', () => {
    const read = readMidnam(midnamText(GENERAL_MIDI));
    expect(read.ok && mapOf(read.value).notes).toEqual(GENERAL_MIDI.notes);
  });

  test('a table is read with heads or without, whatever separates it; bad lines are named', () => {
    const read = (text: string) => {
      const done = readMapCsv(text);
      if (!done.ok) throw new Error(done.error);
      return done.value;
    };
    expect(read('36,Kick\n38,Snare').notes.map(({ instrument }) => instrument)).toEqual(['kick', 'snare']);
    expect(read('Name;Note\nClosed hat;42\nWind;200').warnings).toEqual([
      'Line 3 was left out: “200” is no note from 0 to 127.',
    ]);
    expect(read('Kick\t36\nThunder\t41').notes).toEqual([
      { note: 36, name: 'Kick', instrument: 'kick' },
      { note: 41, name: 'Thunder', instrument: null },
    ]);
    expect(mapOf(read('36,Kick\n37,Thunder')).notes).toHaveLength(1);
  });

  test.each([
    [() => readMidnam('<a>'), 'not XML'],
    [() => readMidnam('<a></a>'), 'not a MIDI name document'],
    [() => readMidnam('<MIDINameDocument><Author/></MIDINameDocument>'), 'names no notes'],
    [() => readMapCsv('hello'), 'not a table'],
    [() => readMapCsv('a,b\nc,d'), 'No line of it'],
  ])('what is none is refused with a sentence', (read, why) => {
    const done = read();
    expect(done.ok ? '' : done.error).toContain(why);
  });

  test('whatever is given, a sentence or a list comes back', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        for (const read of [readMidnam(text), readMapCsv(text), readDrumMap(text)])
          expect(read.ok || read.error.endsWith('.')).toBe(true);
      }),
    );
  });
});

describe('a beat written with a map', () => {
  const pads = mapOfNotes([
    { note: 60, instrument: 'kick' },
    { note: 61, instrument: 'snare', channel: 2 },
    { note: 42, instrument: 'tom.low' },
  ]);

  test('lanes get their numbers; what has none keeps its own, and a clash is told', () => {
    const beat = newBeat('b', 'B', 1);
    const done = writtenWith(beat, pads, { keep: 'instruments', as: {} });
    const lane = (id: string) => done.lanes.find((one) => one.id === id)!;
    expect([lane('kick').note, lane('snare').note, lane('snare').channel, lane('hat.closed').note]).toEqual([
      60, 61, 2, 42,
    ]);
    expect(laneCrossings(beat, pads).find(({ lane: one }) => one.id === 'hat.closed')).toMatchObject({
      kind: 'none',
      clash: 'tom.low',
    });
    expect(sharedNumbers(done)).toEqual([42]);
    expect(beatSchema.safeParse(done).error).toBeUndefined();
    expect(writtenWith(beat, pads, { keep: 'instruments', as: { kick: null } }).lanes[0]!.note).toBe(36);
  });

  test('or keep their numbers, and names and instruments follow; a chosen name stays', () => {
    const beat = newBeat('b', 'B', 1);
    const lanes = [newLane('a', 'hat.closed'), { ...newLane('b', 'hat.closed'), name: 'Tin lid' }];
    const done = writtenWith({ ...beat, lanes }, pads, { keep: 'notes' });
    expect(done.lanes.map(({ name, instrument, note }) => [name, instrument, note])).toEqual([
      ['Low tom', 'tom.low', 42],
      ['Tin lid', 'tom.low', 42],
    ]);
  });
});

describe('guessing a map', () => {
  const grooves = builtInGrooves().filter(({ kind }) => kind !== 'percussion');
  const SORT: Record<string, string> = { clap: 'snare', 'snare.sideStick': 'snare', 'snare.second': 'snare' };
  const sortOf = (id: string) => SORT[id] ?? id.split('.')[0]!;

  /** How many of kick, snare and hat are told right, of how many. */
  const told = (asked: typeof grooves, examples: ReturnType<typeof examplesFrom>) => {
    let [right, all] = [0, 0];
    for (const groove of asked) {
      const rate = ticksPerMs(groove.bpm);
      // Numbers that say nothing.
      const notes = groove.lanes.flatMap(({ part }, lane) =>
        part.hits.map((hit) => ({
          at: positionOf(hit, part.grid),
          velocity: hit.velocity,
          lane: `10/${(lane * 37 + 11) % 128}`,
        })),
      );
      const guesses = guessMap(
        {
          notes,
          bars: steadyBars(groove.meter),
          meter: groove.meter,
          length: grooveTicks(groove),
          ticksPerMs: () => rate,
        },
        examples,
      );
      groove.lanes.forEach(({ instrument }, lane) => {
        if (!['kick', 'snare', 'hat.closed'].includes(instrument)) return;
        const guess = guesses.find(({ note }) => note === (lane * 37 + 11) % 128)!;
        all += 1;
        if (sortOf(guess.instrument) === sortOf(instrument)) right += 1;
      });
    }
    return right / all;
  };

  test('of our own grooves, nine of ten kicks, snares and hats are told by how they behave', () => {
    expect(told(grooves, examplesFrom(builtInGrooves()))).toBeGreaterThan(0.9);
  });

  test('of a style that it has never seen, still most of them', () => {
    for (const style of ['Rock backbeat', 'Boom-bap', 'Shuffle']) {
      const others = builtInGrooves().filter((groove) => groove.style !== style);
      expect(
        told(
          grooves.filter((groove) => groove.style === style),
          examplesFrom(others),
        ),
      ).toBeGreaterThan(0.75);
    }
  });

  test('with nothing to go by it says nothing', () => {
    expect(
      guessMap(
        {
          notes: [],
          bars: steadyBars({ beats: 4, unit: 4 }),
          meter: { beats: 4, unit: 4 },
          length: 3840,
          ticksPerMs: () => 1,
        },
        [],
      ),
    ).toEqual([]);
  });
});
