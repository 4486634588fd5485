import { allNotes } from '../play/driver';
import { planSong } from '../play/timelinePlan';
import fc from 'fast-check';
import { SONG } from '../document/choices';
import { EMPTY_LANE_PATTERN, newBeat, newHit, newPattern } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import { beatSchema, type Beat } from '../document/schema';
import { builtInGrooves } from '../groove/library';
import { editBeat, type BeatEdit } from './edits';
import { removePattern } from './patterns';
import {
  addSection,
  changeSection,
  fromTray,
  grooveToTray,
  moveEntry,
  moveInTray,
  movePlace,
  newEntry,
  removeEntry,
  removePlace,
  renameInTray,
  repeatPlace,
  toTray,
} from './song';
import { colourOf, freeSectionName } from '../document/sectionNames';
import { fillsFor } from './fills';
import { atHand, FORMS, songOf } from './forms';
import { songTimeline } from '../play/timeline';
import { plainSection as section } from '../play/section.mock';
import { takeFill } from './takeFill';

const GROOVES = builtInGrooves();

const part = (steps: number[], velocity = 96) => ({
  ...EMPTY_LANE_PATTERN,
  hits: steps.map((step) => newHit(step, velocity)),
});

/** Two patterns, two sections, the first at two places. */
const song = (): Beat => {
  const blank = newBeat('b', 'Ferry', 7);
  const beat: Beat = {
    ...blank,
    patterns: [
      {
        ...blank.patterns[0]!,
        parts: {
          kick: part([0, 8]),
          snare: part([4, 12]),
          'hat.closed': part([0, 2, 4, 6, 8, 10, 12, 14], 70),
        },
      },
      { ...newPattern('b', 'B'), parts: { clap: part([4, 12]) } },
    ],
  };
  const one = addSection(beat, section('verse'), 'p1', null);
  const two = addSection(one, section('chorus'), 'p2', null);
  return {
    ...two,
    song: { ...two.song, order: [...two.song.order, { id: 'p3', sectionId: 'verse', times: 1 }] },
  };
};

const placeId = fc.constantFrom('p1', 'p2', 'p3', 'gone');
const sectionId = fc.constantFrom('verse', 'chorus', 'gone');
const patternId = fc.constantFrom('a', 'b', 'gone');
const entryId = fc.constantFrom('verse-1', 'chorus-1', 'gone');
const place = fc.integer({ min: -2, max: 9 });
const number = fc.double({ min: -300, max: 900, noNaN: true });

const args: { [K in BeatEdit['edit']]?: fc.Arbitrary<unknown> } = {
  toTray: fc.record({ id: fc.uuid(), name: fc.constant('Stalls'), patternId }),
  grooveToTray: fc.record({
    groove: fc.constantFrom(...GROOVES.slice(0, 20)),
    patternId: fc.uuid(),
    id: fc.uuid(),
  }),
  fromTray: fc.record({ id: fc.constant('t') }),
  renameInTray: fc.record({ id: fc.constant('t'), name: fc.constantFrom('Lamps', '  ') }),
  moveInTray: fc.record({ id: fc.constant('t'), to: place }),
  addSection: fc.record({
    section: fc.uuid().map((id) => section(id)),
    placeId: fc.uuid(),
    at: fc.option(place),
  }),
  changeSection: fc.record({
    id: sectionId,
    change: fc.oneof(
      fc.record({ tempo: fc.option(number) }),
      fc.record({ level: fc.option(number) }),
      fc.record({ name: fc.constantFrom('Bridge', '   ') }),
      fc.record({ change: fc.constantFrom(null, {}, { tempo: 140, swing: 60 }) }),
      fc.record({ fill: fc.constantFrom(null, { patternId: 'b', over: 'beat' }) }),
      fc.record({ feel: fc.constantFrom(null, newFeel({ percent: 60, grid: '1/16' })) }),
      fc.record({ silent: fc.constantFrom([], ['kick']) }),
    ),
  }),
  addEntry: fc.record({
    sectionId,
    entry: fc.tuple(fc.uuid(), patternId).map(([id, of]) => newEntry(id, of)),
  }),
  changeEntry: fc.record({
    sectionId,
    entryId,
    change: fc.oneof(
      fc.record({ times: number }),
      fc.record({ bars: fc.option(number) }),
      fc.record({ patternId }),
    ),
  }),
  removeEntry: fc.record({ sectionId, entryId }),
  moveEntry: fc.record({ sectionId, entryId, to: place }),
  linkSection: fc.record({
    place: fc.tuple(fc.uuid(), sectionId).map(([id, of]) => ({ id, sectionId: of, times: 1 })),
    at: fc.option(place),
  }),
  duplicateSection: fc.record({ placeId, sectionId: fc.uuid(), newPlaceId: fc.uuid() }),
  ownSection: fc.record({ placeId, sectionId: fc.uuid() }),
  movePlace: fc.record({ placeId, to: place }),
  repeatPlace: fc.record({ placeId, times: number }),
  removePlace: fc.record({ placeId }),
  removePattern: fc.record({ id: patternId }),
};

const edits = fc.oneof(
  ...Object.entries(args).map(([edit, of]) => of.map((made) => ({ edit, args: made }) as BeatEdit)),
);

describe('edits of tray and song', () => {
  test('any of them, in any order, leave a beat that a file may hold, and a song that can be laid out', () => {
    fc.assert(
      fc.property(fc.array(edits, { maxLength: 14 }), (list) => {
        const beat = list.reduce(editBeat, toTray(song(), { id: 't', name: 'A', patternId: 'a' }));
        const read = beatSchema.safeParse(beat);
        expect(read.success ? [] : read.error.issues).toEqual([]);
        const layout = songTimeline(beat);
        const sum = layout.spans.reduce((total, { length }) => total + length, 0);
        expect(layout.length).toBeCloseTo(sum);
        layout.spans.forEach((span, at) => {
          const before = layout.spans[at - 1];
          expect(span.from).toBeCloseTo(before ? before.from + before.length : 0);
        });
        const covered = layout.regions.reduce((total, { length }) => total + length, 0);
        expect(covered).toBeCloseTo(layout.length);
      }),
      { numRuns: 150 },
    );
  });

  test('what cannot be done changes nothing', () => {
    const beat = song();
    expect(toTray(beat, { id: 'x', name: 'X', patternId: 'gone' })).toBe(beat);
    expect(removePlace(beat, 'gone').song).toEqual(beat.song);
    expect(movePlace(beat, 'gone', 2).song.order).toEqual(beat.song.order);
    expect(changeSection(beat, 'gone', { tempo: 100 }).song).toEqual(beat.song);
    const full: Beat = {
      ...beat,
      song: {
        ...beat.song,
        order: Array.from({ length: SONG.places }, (_, at) => ({
          id: `o${at}`,
          sectionId: 'verse',
          times: 1,
        })),
      },
    };
    expect(addSection(full, section('more'), 'p9', null)).toBe(full);
  });
});

describe('the tray', () => {
  const tray = () =>
    ['a', 'b', 'a'].reduce(
      (beat, patternId, at) => toTray(beat, { id: `t${at}`, name: `${patternId} ${at}`, patternId }),
      song(),
    );
  const names = (beat: Beat) => beat.tray.map(({ name }) => name);

  test('patterns are set aside in order, moved, renamed and taken off', () => {
    expect(names(tray())).toEqual(['a 0', 'b 1', 'a 2']);
    expect(names(moveInTray(tray(), 't2', 0))).toEqual(['a 2', 'a 0', 'b 1']);
    expect(names(renameInTray(tray(), 't1', ' Lamps '))).toEqual(['a 0', 'Lamps', 'a 2']);
    expect(names(renameInTray(tray(), 't1', '  '))).toEqual(names(tray()));
    expect(names(fromTray(tray(), 't0'))).toEqual(['b 1', 'a 2']);
  });

  test('a groove becomes a pattern of the beat and sounds as it was played', () => {
    const groove = GROOVES.find(({ kind }) => kind === 'main')!;
    const beat = grooveToTray(song(), groove, 'g', 't');
    expect(beat.tray).toEqual([{ id: 't', name: groove.name, patternId: 'g' }]);
    const pattern = beat.patterns.find(({ id }) => id === 'g')!;
    expect(pattern).toMatchObject({ name: groove.name, meter: groove.meter, bars: groove.bars });
    const hits = Object.values(pattern.parts).reduce((sum, { hits: own }) => sum + own.length, 0);
    expect(hits).toBe(groove.lanes.reduce((sum, lane) => sum + lane.part.hits.length, 0));
  });
});

describe('sections', () => {
  test('names are counted on, and suggest a colour', () => {
    expect(freeSectionName({ sections: [] }, 'Verse')).toBe('Verse');
    expect(freeSectionName({ sections: [section('Verse'), section('Verse 2')] }, 'Verse')).toBe('Verse 3');
    expect([colourOf('Verse 2'), colourOf('Chorus'), colourOf('Anything')]).toEqual([
      'lichen',
      'weld',
      'walnut',
    ]);
  });

  test('entries are moved and taken out, a tempo out of range is held, and null gives back to the beat', () => {
    const two = {
      ...song(),
      song: {
        ...song().song,
        sections: [section('verse', { entries: [newEntry('x', 'a'), newEntry('y', 'b')] })],
      },
    };
    const ids = (beat: Beat) => beat.song.sections[0]!.entries.map(({ id }) => id);
    expect(ids(moveEntry(two, 'verse', 'y', 0))).toEqual(['y', 'x']);
    expect(ids(removeEntry(two, 'verse', 'x'))).toEqual(['y']);
    const fast = changeSection(two, 'verse', { tempo: 900 });
    expect(fast.song.sections[0]!.tempo).toBe(300);
    expect(changeSection(fast, 'verse', { tempo: null }).song.sections[0]).not.toHaveProperty('tempo');
  });

  test('a section that has no place any more goes, one that has another stays', () => {
    const beat = song();
    expect(removePlace(beat, 'p2').song.sections.map(({ id }) => id)).toEqual(['verse']);
    expect(removePlace(beat, 'p1').song.sections.map(({ id }) => id)).toEqual(['verse', 'chorus']);
    expect(repeatPlace(beat, 'p2', 900).song.order[1]!.times).toBe(SONG.times);
  });
});

describe('fills', () => {
  const beat = song();
  const verse = beat.song.sections[0]!;
  const offers = fillsFor(beat, verse, GROOVES);

  test('are made of the section’s own pattern and found in the library, the best agreeing first', () => {
    expect(offers.filter(({ source }) => source.kind === 'own').map(({ name }) => name)).toContain(
      'Snare run',
    );
    const found = offers.filter(({ source }) => source.kind === 'groove');
    expect(found.length).toBeGreaterThan(2);
    const agrees = found.map((one) => one.agrees);
    expect(agrees).toEqual([...agrees].sort((a, b) => b - a));
    for (const { source } of found)
      if (source.kind === 'groove')
        expect(source.groove).toMatchObject({ kind: 'fill', meter: { beats: 4, unit: 4 } });
  });

  test('a section without a pattern gets none', () => {
    expect(fillsFor(beat, { ...verse, entries: [] }, GROOVES)).toEqual([]);
    expect(fillsFor(removePattern(beat, 'a'), { ...verse, entries: [newEntry('e', 'a')] }, GROOVES)).toEqual(
      [],
    );
  });

  test.each(['bar', 'beat'] as const)(
    'any that is taken plays over the last %s, and nothing before it changes',
    (over) => {
      const long = {
        ...beat,
        song: { ...beat.song, sections: [section('verse', { entries: [newEntry('e', 'a', 4)] })] },
      };
      const alone = { ...long, song: { ...long.song, order: [{ id: 'p', sectionId: 'verse', times: 1 }] } };
      const before = allNotes(planSong(alone), 'hold');
      const from = 4 * 3840 - (over === 'bar' ? 3840 : 960);
      for (const offer of offers) {
        const taken = takeFill(alone, 'verse', offer, 'new', over);
        expect(taken.patterns).toHaveLength(alone.patterns.length + 1);
        expect(beatSchema.safeParse(taken).success).toBe(true);
        const now = allNotes(planSong(taken), 'hold');
        const told = (notes: typeof now) =>
          notes
            .filter(({ gridTick }) => gridTick < from - 1e-6)
            .map(({ tick, note, velocity }) => `${tick} ${note} ${velocity}`);
        expect(told(now)).toEqual(told(before));
        expect(songTimeline(taken).length).toBe(songTimeline(alone).length);
      }
    },
  );
});

describe('forms', () => {
  let count = 0;
  const newId = () => `n${(count += 1)}`;

  test('are filled from the tray in its order, the last of it as the fill; without a tray from the patterns', () => {
    expect(atHand(song())).toEqual(['a', 'b']);
    const tray = ['b', 'a'].reduce(
      (beat, patternId) => toTray(beat, { id: `t-${patternId}`, name: patternId, patternId }),
      song(),
    );
    expect(atHand(tray)).toEqual(['b', 'a']);
    const made = songOf(tray, FORMS[0]!, newId);
    expect(made.sections[0]!.entries[0]!.patternId).toBe('b');
    expect(made.sections.find(({ fill }) => fill)!.fill!.patternId).toBe('a');
  });

  test('with a single pattern there is no fill, and every section plays it', () => {
    const one = { ...song(), patterns: song().patterns.slice(0, 1) };
    const made = songOf(one, FORMS[1]!, newId);
    expect(made.sections.every(({ fill }) => !fill)).toBe(true);
    expect(new Set(made.sections.flatMap(({ entries }) => entries.map((entry) => entry.patternId)))).toEqual(
      new Set(['a']),
    );
  });
});
