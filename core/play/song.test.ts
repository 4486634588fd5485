import { notesIn, allNotes } from './driver';
import { planLive, planPasses, planSong } from './timelinePlan';
import { playable } from './playable';
import fc from 'fast-check';
import { beats } from '../arbitraries';
import { EMPTY_LANE_PATTERN, newBeat, newHit, newPattern } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import type { Beat, Section, Song } from '../document/schema';
import { removePattern } from '../edit/patterns';
import { addSection, changeEntry, duplicateSection, linkSection, newEntry, ownSection } from '../edit/song';
import { FORMS, songOf } from '../edit/forms';
import { songTimeline, songFaults } from './timeline';
import { recordedSong } from '../edit/recorded';
import { plainSection as section } from './section.mock';
import { secondsAt, tempoMap, tickAtSeconds } from './tempoMap';

const songWith = (beat: Beat, sections: Section[], order: [string, number][]): Beat => ({
  ...beat,
  song: {
    sections,
    order: order.map(([sectionId, times], at) => ({ id: `p${at}`, sectionId, times })),
  },
});

let count = 0;
const newId = () => `id ${(count += 1)}`;

/** Kick on every beat; in B a snare on every beat. */
const twoPatterns = (): Beat => {
  const beat = { ...newBeat('b', 'Ferry', 7), tempo: 120 };
  const every = { ...EMPTY_LANE_PATTERN, grid: '1/4' as const };
  const hits = [0, 1, 2, 3].map((step) => newHit(step));
  const [a] = beat.patterns;
  return {
    ...beat,
    patterns: [
      { ...a!, parts: { kick: { ...every, hits } } },
      { ...newPattern('b', 'B'), parts: { snare: { ...every, hits } } },
    ],
  };
};

const sections: fc.Arbitrary<Song> = fc
  .tuple(
    fc.array(
      fc.record({
        times: fc.integer({ min: 1, max: 3 }),
        bars: fc.option(fc.integer({ min: 1, max: 3 }), { nil: undefined }),
        tempo: fc.option(fc.integer({ min: 30, max: 250 }), { nil: undefined }),
        to: fc.option(fc.integer({ min: 30, max: 250 }), { nil: undefined }),
        level: fc.option(fc.double({ min: 0.2, max: 2, noNaN: true }), { nil: undefined }),
        swing: fc.option(fc.integer({ min: 50, max: 75 }), { nil: undefined }),
        fill: fc.boolean(),
        silent: fc.subarray(['kick', 'snare']),
      }),
      { minLength: 1, maxLength: 3 },
    ),
    fc.array(fc.tuple(fc.nat({ max: 2 }), fc.integer({ min: 1, max: 2 })), { minLength: 1, maxLength: 4 }),
  )
  .map(([made, order]) => ({
    sections: made.map(({ times, bars, tempo, to, level, swing, fill, silent }, at): Section => ({
      id: `s${at}`,
      name: `S ${at}`,
      pigment: 'weld',
      entries: [{ id: 'e', patternId: 'a', times, ...(bars && { bars }) }],
      silent,
      ...(tempo && { tempo }),
      ...(level && { level }),
      ...(fill && { fill: { patternId: 'a', over: 'beat' as const } }),
      ...((to || swing) && { change: { ...(to && { tempo: to }), ...(swing && { swing }) } }),
    })),
    order: order.map(([which, times], at) => ({
      id: `p${at}`,
      sectionId: `s${which % made.length}`,
      times,
    })),
  }));

const songs = fc.tuple(beats, sections).map(([beat, song]): Beat => ({ ...beat, song }));

describe('the song', () => {
  test('a window of any size equals the same part of the whole', () => {
    fc.assert(
      fc.property(
        songs,
        fc.array(fc.integer({ min: 1, max: 6000 }), { minLength: 1, maxLength: 8 }),
        (beat, cuts) => {
          const plan = planSong(beat);
          let from = 0;
          const pieces = cuts.flatMap((cut) => {
            const notes = notesIn(plan, from, from + cut);
            from += cut;
            return notes;
          });
          expect(pieces).toEqual(notesIn(plan, 0, from));
        },
      ),
      { numRuns: 50 },
    );
  });

  test('a song of one section is its pattern, note for note', () => {
    fc.assert(
      fc.property(beats, (beat) => {
        const song = songWith(beat, [section('s')], [['s', 1]]);
        const { length } = planSong(song).timeline;
        const early = (tick: number) => tick < length / 2;
        const fields = ({
          tick,
          velocity,
          lane,
          moved,
        }: {
          tick: number;
          velocity: number;
          lane: number;
          moved: boolean;
        }) => [Math.round(tick * 1000), velocity, lane, moved] as const;
        expect(
          notesIn(planSong(song), 0, length / 2)
            .filter(({ tick }) => early(tick))
            .map(fields),
        ).toEqual(notesIn(planLive(beat, beat.patterns[0]!), 0, length / 2).map(fields));
      }),
      { numRuns: 60 },
    );
  });

  test('time and position are told from one another, through every tempo', () => {
    fc.assert(
      fc.property(songs, fc.double({ min: 0, max: 1, noNaN: true }), (beat, share) => {
        const { tempos, length } = planSong(beat).timeline;
        const tick = share * length;
        expect(tickAtSeconds(tempos, secondsAt(tempos, tick))).toBeCloseTo(tick, 5);
      }),
    );
    expect(
      tempoMap([
        { at: 0, bpm: 120 },
        { at: 960, bpm: 60 },
        { at: 1920, bpm: 60 },
      ]).seconds,
    ).toEqual([0, 0.5]);
  });

  test('sections stand one after the other, repeated, cut and filled', () => {
    const beat = songWith(
      twoPatterns(),
      [
        section('verse', { entries: [newEntry('e', 'a', 2)], fill: { patternId: 'b', over: 'beat' } }),
        section('end', { entries: [{ ...newEntry('e', 'b'), bars: 3 }] }),
      ],
      [
        ['verse', 2],
        ['end', 1],
      ],
    );
    const plan = planSong(beat);
    expect(plan.timeline.bars).toHaveLength(7);
    expect(plan.timeline.length).toBe(7 * 3840);
    const notes = allNotes(plan, 'hold');
    expect(notes).toHaveLength(28);
    const snares = notes.filter(({ note }) => note === 38).map(({ tick }) => tick / 960);
    expect(snares.slice(0, 3)).toEqual([7, 15, 16]);
  });

  test('what is silent in a section, its own tempo, level and swing, and what changes across it', () => {
    const beat = songWith(
      twoPatterns(),
      [
        section('quiet', { silent: ['kick'] }),
        section('soft', { level: 0.5, tempo: 60 }),
        section('rise', { change: { level: 2, tempo: 180 }, entries: [newEntry('e', 'a', 4)] }),
      ],
      [
        ['quiet', 1],
        ['soft', 1],
        ['rise', 1],
      ],
    );
    const plan = planSong(beat);
    const notes = allNotes(plan, 'hold');
    expect(notes).toHaveLength(20);
    expect(notes.slice(0, 4).map(({ velocity }) => velocity)).toEqual([48, 48, 48, 48]);
    const rise = notes.slice(4).map(({ velocity }) => velocity);
    expect(rise[0]).toBe(96);
    expect(rise).toEqual([...rise].sort((a, b) => a - b));
    expect(rise.at(-1)).toBe(127);
    // Two seconds at 120, four at 60, and sixteen beats from 120 to 180 in between 5.3 and 8 seconds.
    const seconds = secondsAt(plan.timeline.tempos, plan.timeline.length);
    expect(seconds).toBeGreaterThan(6 + 16 / 3);
    expect(seconds).toBeLessThan(6 + 8);
  });

  test('swing that grows across a section moves the off-steps later and later', () => {
    const beat = twoPatterns();
    const kick = { ...EMPTY_LANE_PATTERN, hits: [1, 5, 9, 13].map((step) => newHit(step)) };
    const swung = { ...beat, patterns: [{ ...beat.patterns[0]!, parts: { kick } }] };
    const song = songWith(swung, [section('s', { change: { swing: 70 } })], [['s', 1]]);
    const late = allNotes(planSong(song), 'hold').map(({ tick, gridTick }) => tick - gridTick);
    expect(late[0]).toBeCloseTo(0);
    expect(late).toEqual([...late].sort((a, b) => a - b));
    expect(late[3]).toBeCloseTo(480 * 0.15, 0);
  });

  test('an early note of a section sounds at the end of the one before it, only the first of all is held', () => {
    const ahead = { ...newFeel(), lanes: { kick: { offset: -10 } } };
    const beat = songWith({ ...twoPatterns(), feel: ahead }, [section('s')], [['s', 2]]);
    const ticks = notesIn(planSong(beat), 0, 8000).map(({ tick, moved }) => [Math.round(tick), moved]);
    expect(ticks[0]).toEqual([0, true]);
    expect(ticks[4]).toEqual([3840 - 19, false]);
  });

  test('each time a section comes its chance is drawn anew, and the same when asked again', () => {
    const beat = twoPatterns();
    const hits = Array.from({ length: 16 }, (_, step) => ({ ...newHit(step), chance: 0.5 }));
    const kick = { ...EMPTY_LANE_PATTERN, hits };
    const random = { ...beat, patterns: [{ ...beat.patterns[0]!, parts: { kick } }] };
    const song = songWith(random, [section('s')], [['s', 3]]);
    const bars = [0, 1, 2].map((bar) =>
      allNotes(planSong(song), 'hold')
        .filter(({ gridTick }) => Math.floor(gridTick / 3840) === bar)
        .map(({ step }) => step)
        .join(),
    );
    expect(new Set(bars).size).toBe(3);
    expect(bars[0]).toBe(
      allNotes(planPasses(random, random.patterns[0]!, 1), 'hold')
        .map(({ step }) => step)
        .join(),
    );
  });

  test('a part that is repeated has in every turn what it has in the first, early notes included', () => {
    const ahead = { ...newFeel(), lanes: { snare: { offset: -10 } } };
    const beat = songWith(
      { ...twoPatterns(), feel: ahead },
      [section('a'), section('b', { entries: [newEntry('e', 'b')] })],
      [
        ['a', 1],
        ['b', 1],
      ],
    );
    const played = playable(planSong(beat), { start: 3840, loop: { from: 3840, to: 7680 } });
    const turn = (k: number) =>
      played.notes(3840 * k + 480, 3840 * (k + 1) + 480).map(({ tick }) => Math.round(tick - 3840 * k));
    expect(turn(1)).toEqual([941, 1901, 2861, 3821].map((tick) => tick + 0));
    expect(turn(2)).toEqual(turn(1));
    expect(played.secondsAt(3840 * 3)).toBeCloseTo(6);
    expect(played.placeOf(3840 * 3 + 5)).toBe(3845);
    expect(played.tickAt(6.5)).toBeCloseTo(3840 * 3 + 960);
    expect(played.beats(7680, 11520).map(({ first }) => first)).toEqual([true, false, false, false]);
  });
});

describe('edits of the song', () => {
  const base = () => addSection(twoPatterns(), section('verse'), 'p', null);

  test('a linked section is changed in both places, one of its own is not', () => {
    const linked = linkSection(base(), { id: 'q', sectionId: 'verse', times: 1 }, null);
    const changed = changeEntry(linked, 'verse', 'verse-1', { times: 4 });
    expect(songTimeline(changed).bars).toHaveLength(8);
    const parted = ownSection(linked, 'q', 'verse-own');
    expect(parted.song.sections.map(({ name }) => name)).toEqual(['verse', 'verse 2']);
    expect(songTimeline(changeEntry(parted, 'verse', 'verse-1', { times: 4 })).bars).toHaveLength(5);
    expect(duplicateSection(linked, 'p', 'copy', 'r').song.order.map(({ sectionId }) => sectionId)).toEqual([
      'verse',
      'copy',
      'verse',
    ]);
  });

  test('a pattern that is deleted leaves its length and its name in the song', () => {
    const beat = addSection(twoPatterns(), section('s', { entries: [newEntry('e', 'b', 2)] }), 'p', null);
    const without = removePattern(beat, 'b');
    expect(songTimeline(without).bars).toHaveLength(2);
    expect(allNotes(planSong(without), 'hold')).toEqual([]);
    expect(songFaults(without)).toEqual(['Pattern “B” in section “s” was deleted: it plays silence there.']);
  });

  test.each(FORMS)('the form $name gives a song in which every section plays', (form) => {
    const beat = { ...twoPatterns(), song: songOf(twoPatterns(), form, newId) };
    const layout = songTimeline(beat);
    expect(layout.spans).toHaveLength(form.order.length);
    const bars = form.order.reduce((sum, at) => sum + form.sections[at]!.bars, 0);
    expect(layout.bars).toHaveLength(bars);
    expect(songFaults(beat)).toEqual([]);
  });

  test('switches that were played become sections of whole bars, linked where they came again', () => {
    const beat = twoPatterns();
    const song = recordedSong(
      beat,
      [
        { patternId: 'a', at: 10, tempo: 120 },
        { patternId: 'b', at: 14, tempo: 120 },
        { patternId: 'a', at: 16, tempo: 120 },
      ],
      20.3,
      newId,
    );
    expect(song.sections.map(({ entries }) => entries[0]!.bars)).toEqual([2, 1]);
    expect(song.order.map(({ sectionId }) => sectionId)).toEqual(
      [0, 1, 0].map((at) => song.sections[at]!.id),
    );
  });
});
