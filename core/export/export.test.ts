import { allNotes } from '../play/driver';
import { planPasses } from '../play/timelinePlan';
import { patternTicks } from '../document/defaults';
import fc from 'fast-check';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { DEMO_BEATS } from '../../demo/beats';
import { beats } from '../arbitraries';
import { EMPTY_LANE_PATTERN, newBeat, newHit } from '../document/defaults';
import type { Beat } from '../document/schema';
import { drumPlan } from '../samples/voiceSound';
import { GENERAL_MIDI } from '../midi/drumMap/drumMap';
import { fileNotes } from '../midi/write/fileNotes';
import { readNotes } from '../midi/read/readBack.mock';
import { beatFromMidi } from '../bring/beatFromMidi';
import { CHANNELS, HOW_DEFAULTS, heldHow, SCOPES, SPLITS, WHAT_DEFAULTS, type ExportHow } from './choice';
import { exported, listOf, pathOf, type Exported } from './exporting';
import { hitsOf } from './list';
import { namedBy, unlike } from './names';

const LANTERN = DEMO_BEATS[0]!;

const made = (beat: Beat, how: Partial<ExportHow>, what: Partial<typeof WHAT_DEFAULTS> = {}): Exported => {
  const out = exported(beat, { ...HOW_DEFAULTS, ...how }, { ...WHAT_DEFAULTS, ...what });
  if (!out.ok) throw new Error(out.error);
  return out.value;
};
const bytes = (out: Exported, at = 0): Uint8Array => out.files[at]!.data as Uint8Array;
const text = (out: Exported): string => out.files[0]!.data as string;
const notesIn = (out: Exported, at = 0) => readNotes(bytes(out, at)).notes;
const told = ({ tick, note, velocity }: { tick: number; note: number; velocity: number }) =>
  `${tick} ${note} ${velocity}`;

const hows = fc.record({
  scope: fc.constantFrom(...SCOPES.filter((scope) => scope !== 'tray')),
  split: fc.constantFrom(...SPLITS),
  as: fc.constantFrom('tracks' as const, 'files' as const),
  format: fc.constantFrom(0 as const, 1 as const),
  ppq: fc.constantFrom(96, 480, 960, 1920),
  channels: fc.constantFrom(...CHANNELS),
  map: fc.constantFrom(null, GENERAL_MIDI),
  straight: fc.boolean(),
  edges: fc.constantFrom('wrap' as const, 'hold' as const),
  countIn: fc.boolean(),
});

describe('MIDI', () => {
  test('a count-in is one bar of sticks, the first the strongest', () => {
    const counted = made(LANTERN, { countIn: true });
    const [first, ...rest] = notesIn(counted).filter(({ tick }) => tick < 3840);
    expect(first).toMatchObject({ tick: 0, note: 37, velocity: 110 });
    expect(rest.map(({ tick, note, velocity }) => [tick, note, velocity])).toEqual([
      [960, 37, 84],
      [1920, 37, 84],
      [2880, 37, 84],
    ]);
  });

  test('a note that is led by the attack of its sound comes earlier and ends where it did', () => {
    const beat = {
      ...newBeat('b', 'Quay', 1),
      tempo: 120,
      patterns: [
        {
          ...newBeat('b', 'Quay', 1).patterns[0]!,
          parts: {
            kick: { ...EMPTY_LANE_PATTERN, hits: [newHit(0), newHit(4), { ...newHit(8), length: 2 }] },
          },
        },
      ],
    };
    const [layer] = drumPlan(4).layers;
    // 2,400 of 48,000 frames are 50 ms: 96 ticks at 120 BPM.
    const plan = { ...drumPlan(4), layers: [{ ...layer!, lead: 2400 }] };
    const leads = { rate: 48000, plans: [plan] };
    const out = exported(beat, { ...HOW_DEFAULTS, lead: true }, WHAT_DEFAULTS, leads);
    if (!out.ok) throw new Error(out.error);
    expect(notesIn(out.value).map(({ tick, length }) => [tick, tick + length])).toEqual([
      [0, 240],
      [960 - 96, 1200],
      [1920 - 96, 2400],
    ]);
  });

  test('a pattern is written note for note as it is played', () => {
    fc.assert(
      fc.property(
        beats,
        fc.constantFrom('wrap' as const, 'hold' as const),
        fc.integer({ min: 1, max: 3 }),
        (beat, edges, passes) => {
          const [pattern] = beat.patterns;
          const length = patternTicks(pattern!) * passes;
          const notes = allNotes(planPasses(beat, pattern!, passes), edges);
          const played = beat.lanes.map((_, at) => notes.filter(({ lane }) => lane === at));
          const before = fileNotes(played, length, 960, edges).notes;
          const all = Array.from({ length: before.size }, (_, at) =>
            told({ tick: before.tick[at]!, note: before.note[at]!, velocity: before.velocity[at]! }),
          );
          const now = notesIn(made(beat, { edges, passes }));
          // What is held at an edge stands there tick by tick: in which order is a matter of the file.
          const inner = (one: string) => {
            const tick = Number(one.split(' ')[0]);
            return edges === 'wrap' || (tick >= 8 && tick < length - 8);
          };
          expect(now.map(told).filter(inner).sort()).toEqual(all.filter(inner).sort());
          const struck = (one: string) => one.split(' ').slice(1).join();
          expect(now.map(told).map(struck).sort()).toEqual(all.map(struck).sort());
        },
      ),
      { numRuns: 60 },
    );
  });

  test('every split, format, division, channel and map of the demo song is whole: bar lines, no overlap, all notes', () => {
    const all = new Map<string, number>();
    fc.assert(
      fc.property(hows, (how) => {
        const out = made(LANTERN, how);
        for (const file of out.files) {
          const { notes, end, ppq } = readNotes(file.data as Uint8Array);
          expect(end % (ppq * 4)).toBe(0);
          expect(end / (ppq * 4)).toBe(file.bars + (how.countIn ? 1 : 0));
          const last = new Map<string, number>();
          for (const { tick, length, note, channel } of notes) {
            const key = `${channel} ${note}`;
            expect(length).toBeGreaterThan(0);
            expect(tick).toBeGreaterThanOrEqual(last.get(key) ?? 0);
            last.set(key, tick + length);
          }
        }
        // However it is split, no note is lost and none is doubled.
        const key = JSON.stringify([how.scope, how.straight, how.edges, how.ppq]);
        const sum = out.files.reduce((total, { notes }) => total + notes, 0);
        expect(sum).toBe(all.get(key) ?? sum);
        all.set(key, sum);
      }),
      { numRuns: 60 },
    );
  });

  test('the song by section and by drum: a folder a section, as long as the section, together the whole song', () => {
    const out = made(LANTERN, { scope: 'sections', split: 'lanes', as: 'files', edges: 'hold' });
    const folders = [...new Set(out.files.map(({ folder }) => folder))];
    expect(folders).toEqual([
      '01-Intro',
      '02-Verse',
      '03-Chorus',
      '04-Verse',
      '05-Chorus',
      '06-Break',
      '07-Chorus',
      '08-Outro',
    ]);
    expect(new Set(out.files.map(pathOf)).size).toBe(out.files.length);
    const song = made(LANTERN, { scope: 'song' });
    expect(out.files.reduce((sum, { notes }) => sum + notes, 0)).toBe(song.files[0]!.notes);
    const list = listOf(out);
    expect(list).toContain('Bar 7, 0:15: Verse, 4/4');
    expect(list).toContain('02-Verse/Lantern-Walk-Verse-Kick.mid, 12 bars, 1 track');
  });

  test('tempo changes and sections are written where they are', () => {
    const out = made(LANTERN, { scope: 'song', countIn: true });
    const read = beatFromMidi(bytes(made(LANTERN, { scope: 'song' })), 'x', 'id', 1);
    expect(read.ok && read.value.beat.song.order.length).toBe(9);
    expect(readNotes(bytes(out)).end).toBe(77 * 3840);
  });

  test('an empty song, an empty tray, and what to know are said', () => {
    const blank = newBeat('b', 'Quay', 1);
    const fault = (scope: ExportHow['scope']) => {
      const out = exported(blank, { ...HOW_DEFAULTS, scope }, WHAT_DEFAULTS);
      return out.ok ? '' : out.error;
    };
    expect(fault('song')).toContain('The song is empty');
    expect(fault('tray')).toContain('The tray is empty');
    const doubled = {
      ...blank,
      lanes: blank.lanes.map((lane) => ({ ...lane, note: lane.note === 38 ? 36 : lane.note })),
    };
    expect(made(doubled, {}).warnings).toContain(
      'Kick and Snare share note 36: where they meet, the louder is written.',
    );
    // In sound both are heard.
    expect(made(doubled, { kind: 'audio' }).warnings).toEqual([]);
    const high = { ...blank, lanes: [{ ...blank.lanes[0]!, note: 100 }] };
    expect(made(high, {}).warnings[0]).toContain('Kick (100) has a note that “General MIDI” does not have');
    const rim = {
      ...blank,
      lanes: [{ ...blank.lanes[1]!, name: 'Rim', instrument: 'snare.rimshot' as const }],
    };
    expect(made(rim, { map: GENERAL_MIDI }).warnings).toEqual([
      'Rim is written as Second snare (40), the nearest that “General MIDI” has.',
    ]);
    const gone = { ...LANTERN, patterns: LANTERN.patterns.filter(({ id }) => id !== 'c') };
    expect(made(gone, { scope: 'song' }).warnings.join()).toContain('in section “Chorus” was deleted');
  });
});

describe('back in', () => {
  test('the demo song opens with its sections, and comes out again with the same notes at the same ticks', () => {
    const first = made(LANTERN, { scope: 'song', split: 'lanes' });
    const read = beatFromMidi(bytes(first), 'Lantern', 'id', 1);
    if (!read.ok) throw new Error(read.error);
    const { beat } = read.value;
    expect(beat.name).toBe('Lantern Walk');
    expect(beat.lanes.map(({ name }) => name)).toContain('Crate knock');
    const names = beat.song.order.map(({ sectionId }) =>
      beat.song.sections.find(({ id }) => id === sectionId)!.name.replace(/ \d+$/, ''),
    );
    expect(names).toEqual([
      'Intro',
      'Verse',
      'Chorus',
      'Verse',
      'Chorus',
      'Break',
      'Chorus',
      'Chorus',
      'Outro',
    ]);
    const again = made(beat, { scope: 'song', split: 'lanes' });
    expect(notesIn(again).map(told).sort()).toEqual(notesIn(first).map(told).sort());
    expect(readNotes(bytes(again)).end).toBe(readNotes(bytes(first)).end);
  });

  test('any pattern comes out again as it went in', () => {
    fc.assert(
      fc.property(beats, (beat) => {
        const first = made(beat, { passes: 2 });
        if (!first.files[0]!.notes) return;
        const read = beatFromMidi(bytes(first), 'x', 'id', 1);
        if (!read.ok) throw new Error(read.error);
        const scope = read.value.beat.song.order.length ? 'song' : 'pattern';
        const again = made(read.value.beat, { scope });
        // At a song's end, what lies within half a step of the last bar line may be put nearer to the step.
        const end = scope === 'song' ? readNotes(bytes(first)).end - 120 : Infinity;
        const before = (out: Exported) => notesIn(out).filter(({ tick }) => tick < end);
        expect(before(again).map(told).sort()).toEqual(before(first).map(told).sort());
        expect(notesIn(again)).toHaveLength(notesIn(first).length);
      }),
      { numRuns: 60 },
    );
  });

  test('what is no MIDI file, or has no notes, is said', () => {
    expect(beatFromMidi(new Uint8Array([1, 2, 3]), 'x', 'id', 1)).toMatchObject({ ok: false });
    expect(beatFromMidi(bytes(made(newBeat('b', 'B', 1), {})), 'x', 'id', 1)).toEqual({
      ok: false,
      error: 'It has no notes.',
    });
  });
});

type Xml = Record<string, unknown>;
const list = (value: unknown): Xml[] =>
  Array.isArray(value) ? (value as Xml[]) : value ? [value as Xml] : [];

describe('paper', () => {
  test.each(DEMO_BEATS)(
    'the part of $name is whole: each voice fills its bars, each hit has a note',
    (beat) => {
      const out = made(beat, { kind: 'paper', scope: beat.song.order.length ? 'song' : 'pattern' });
      const xml = text(out);
      expect(XMLValidator.validate(xml)).toBe(true);
      const score = new XMLParser({ ignoreAttributes: false }).parse(xml)['score-partwise'] as Xml;
      // The drums, and a part for each lane that plays pitches.
      const parts = list(score['part']).map((part) => list(part['measure']));
      const tuned = out.beat.lanes.filter(({ tuning }) => tuning).length;
      expect(parts).toHaveLength(1 + tuned);
      let full = 0;
      let heads = 0;
      for (const measure of parts.flat()) {
        const time = list(measure['attributes'])[0]?.['time'] as Xml | undefined;
        if (time) full = (Number(time['beats']) * 480 * 4) / Number(time['beat-type']);
        const voices = new Map<number, number>();
        for (const note of list(measure['note'])) {
          if (('unpitched' in note || 'pitch' in note) && !('grace' in note)) heads += 1;
          if ('chord' in note || 'grace' in note) continue;
          const voice = Number(note['voice']);
          voices.set(voice, (voices.get(voice) ?? 0) + Number(note['duration']));
        }
        for (const filled of voices.values()) expect(filled).toBe(full);
      }
      for (const measures of parts) expect(measures).toHaveLength(out.files[0]!.bars);
      const hits = new Set(
        hitsOf(out.pieces[0]!, out.beat).map(
          ({ lane, bar, beat: at }) => `${lane} ${bar} ${Math.round(at * 4)}`,
        ),
      );
      expect(heads).toBeGreaterThanOrEqual(hits.size * 0.9);
      expect(heads).toBeLessThanOrEqual(out.files[0]!.notes);
    },
  );

  test('a tab has hits on their steps: accents, ghosts, flams and rolls in their letters', () => {
    const beat: Beat = {
      ...newBeat('b', 'Quay', 1),
      patterns: [
        {
          id: 'a',
          name: 'A',
          meter: { beats: 4, unit: 4 },
          bars: 1,
          parts: {
            snare: {
              ...EMPTY_LANE_PATTERN,
              hits: [
                newHit(0, 120),
                newHit(3, 30),
                { ...newHit(8), grace: [{ before: 25, level: 0.5 }] },
                { ...newHit(12), roll: { curve: 0, levels: [1, 1, 1, 1] } },
              ],
            },
          },
        },
      ],
    };
    expect(text(made(beat, { kind: 'tab' }))).toContain('Snare |O--g----f---r---|');
    expect(text(made(beat, { kind: 'list' })).split('\n')[0]).toBe(
      'bar,beat,ms,tick,lane,instrument,note,channel,velocity,length,section',
    );
  });
});

describe('names and kept choices', () => {
  const parts = {
    beat: 'Rain / tarps',
    section: 'A · slow',
    lane: '',
    bpm: 92.5,
    meter: { beats: 6, unit: 8 } as const,
    bars: 4,
    number: null,
  };

  test.each([
    ['{beat}-{section}-{bpm}', {}, 'Rain-tarps-A-slow-92.5'],
    ['{meter} {bars}', {}, '6_8-4'],
    ['{section}', { lane: 'Kick' }, 'A-slow-Kick'],
    ['{lane}_{n}', { lane: 'Kick', number: 3 }, 'Kick_03'],
    ['{what}', {}, 'what'],
    ['   ', {}, 'Rain-tarps-A-slow'],
  ])('%s', (pattern, change, name) => {
    expect(namedBy(pattern, { ...parts, ...change })).toBe(name);
  });

  test('no two files are called the same', () => {
    expect(unlike(['a', 'A', 'b', 'a'])).toEqual(['a', 'A-2', 'b', 'a-3']);
  });

  test('a kept choice comes back as it was; what is not known in it is as at first', () => {
    fc.assert(
      fc.property(hows, (how) => {
        const choice = { ...HOW_DEFAULTS, ...how };
        expect(heldHow(JSON.parse(JSON.stringify(choice)) as object)).toEqual(choice);
      }),
    );
    expect(heldHow({ scope: 'all', ppq: 7, format: 2 as never })).toEqual(HOW_DEFAULTS);
  });
});
