import { allNotes } from '../play/driver';
import { planPasses } from '../play/timelinePlan';
import { placed, positionOf } from '../document/position';
import fc from 'fast-check';
import { newBeat, newHit, lanePatternOf } from '../document/defaults';
import { beatSchema, type Beat } from '../document/schema';
import { barTicks } from '../document/meter';
import { gridTicks } from '../document/grid';
import { bringIn } from '../bring/bring';
import { atSpeed, finerGrid, fitGroove, tempoNote, TIMES, timesOf, type Times } from './fit';
import { feelWords, grooveTicks, hitCount, type Groove } from './groove';
import { besideBeat, grooveBar, grooveToBeat } from './grooveToBeat';
import { builtInGrooves } from './library';
import { articulationsOf, revoiced } from './revoice';
import { PLAIN_VOICING } from './voicing';
import { keepTimeOn } from './timekeeper';

const library = builtInGrooves();
const named = (name: string): Groove => library.find((groove) => groove.name === name)!;
const anyGroove = fc.constantFrom(...library);
const instruments = (groove: Groove) => groove.lanes.map(({ instrument }) => instrument);
const laneOf = (groove: Groove, id: string) => groove.lanes.find(({ instrument }) => instrument === id);
const beatAt = (tempo: number): Beat => ({ ...newBeat('b', 'Beat', 3), tempo });

const played = (beat: Beat, patternId: string) => {
  const pattern = beat.patterns.find(({ id }) => id === patternId)!;
  return allNotes(planPasses(beat, pattern, 1), 'wrap').map(({ lane, tick, velocity }) => ({
    lane: beat.lanes[lane]!.instrument,
    tick: Math.round(tick * 1000) / 1000,
    velocity,
  }));
};
const byTime = <T extends { tick: number; lane: string }>(notes: T[]) =>
  [...notes].sort((a, b) => a.tick - b.tick || a.lane.localeCompare(b.lane));

describe('speed and length', () => {
  test('always ends on a bar line, and every hit lies before it', () => {
    const bars = fc.option(fc.integer({ min: 1, max: 16 }));
    fc.assert(
      fc.property(anyGroove, fc.constantFrom(...TIMES), bars, (groove, times: Times, wanted) => {
        const fitted = fitGroove(groove, { times, bars: wanted });
        if (wanted !== null) expect(fitted.bars).toBe(wanted);
        else expect(fitted.bars).toBe(Math.max(1, Math.ceil(groove.bars / timesOf(times) - 1e-9)));
        const length = fitted.bars * barTicks(groove.meter);
        for (const { part } of fitted.lanes)
          for (const hit of part.hits) expect(positionOf(hit, part.grid)).toBeLessThan(length);
      }),
    );
  });

  test('as it is, it is the same; at double time it is heard twice as fast, then again', () => {
    const groove = named('Ferry deck');
    expect(fitGroove(groove, { times: '1', bars: null })).toBe(groove);
    const fast = fitGroove(groove, { times: '2', bars: 1 });
    expect(laneOf(fast, 'kick')!.part.hits).toHaveLength(8);
    const slow = fitGroove(groove, { times: '1/2', bars: null });
    expect([slow.bars, hitCount(slow)]).toEqual([2, hitCount(groove)]);
  });

  const strokesOf = (groove: Groove, like: Beat = beatAt(100)) => {
    const beat = grooveToBeat(groove, like, { tempo: groove.bpm, kit: 'quay', once: false });
    return allNotes(planPasses(beat, beat.patterns[0]!, 1), 'wrap')
      .filter(({ kind }) => kind !== 'grace')
      .map(({ lane, tick, velocity }) => ({ lane, tick, velocity }));
  };

  test('every stroke of every groove at every speed stands at its time divided by it, and no other', () => {
    const wrong: string[] = [];
    for (const groove of library) {
      const as = strokesOf(groove);
      for (const times of TIMES) {
        const speed = timesOf(times);
        const fast = fitGroove(groove, { times, bars: null });
        const [length, period] = [grooveTicks(fast), grooveTicks(groove) / speed];
        // By hand: each stroke at its time over the speed, again after each round, until the last whole bar is full.
        const wanted = Array.from({ length: Math.ceil(length / period - 1e-9) }, (_, round) =>
          as.map((one) => ({ ...one, tick: one.tick / speed + round * period })),
        )
          .flat()
          .filter(({ tick }) => tick < length - 1e-3);
        const sort = (notes: typeof wanted) => [...notes].sort((a, b) => a.lane - b.lane || a.tick - b.tick);
        const [a, b] = [sort(wanted), sort(strokesOf(fast))];
        const same =
          a.length === b.length &&
          a.every(
            ({ lane, tick, velocity }, at) =>
              lane === b[at]!.lane && Math.abs(tick - b[at]!.tick) < 1 && velocity === b[at]!.velocity,
          );
        if (!same) wrong.push(`${groove.name} ${times}`);
      }
    }
    expect(wrong).toEqual([]);
  });

  test('a last stroke half a step before the end keeps its time, on finer steps, and this is told', () => {
    const [first] = library;
    const kick = { ...laneOf(named('Ferry deck'), 'kick')! };
    const late = { ...newHit(15), nudge: 0.45 };
    const groove: Groove = { ...first!, bars: 1, lanes: [{ ...kick, part: { ...kick.part, hits: [late] } }] };
    const double = fitGroove(groove, { times: '2', bars: 1 });
    // 15.45 steps of 240 ticks: 3708, and at double time 1854 and 1920 more.
    expect(double.lanes[0]!.part.hits.map((hit) => positionOf(hit, double.lanes[0]!.part.grid))).toEqual([
      1854, 3774,
    ]);
    expect(double.lanes[0]!.part.grid).toBe('1/32');
    expect([finerGrid(groove, double), finerGrid(groove, groove)]).toEqual(['1/32', null]);
    expect(strokesOf(double).map(({ tick }) => Math.round(tick))).toEqual([1854, 3774]);
  });

  test('a roll ends where it ended, and one that is cut loses only what begins after the cut', () => {
    const kick = laneOf(named('Ferry deck'), 'kick')!;
    const roll = { curve: 0, levels: [1, 0.8, 0.6, 0.4] };
    const hits = [newHit(2), { ...newHit(12, 100), length: 8, roll }];
    const groove: Groove = { ...library[0]!, bars: 1, lanes: [{ ...kick, part: { ...kick.part, hits } }] };
    // The roll ends with the bar: 4 strokes in 4 steps. At 4 : 3, 2160 and each 180 later; then again from 2880 on.
    const played = strokesOf(fitGroove(groove, { times: '4/3', bars: null }));
    expect(played.map(({ tick }) => Math.round(tick))).toEqual([360, 2160, 2340, 2520, 2700, 3240]);
    // In 15/16 of the time the roll is cut in its last stroke: three of four are left of one that begins at 3600.
    const cut = strokesOf(atSpeed(groove, 0.8, 1));
    expect(cut.map(({ tick }) => Math.round(tick))).toEqual([600, 3600]);
    const half = strokesOf(
      atSpeed({ ...groove, lanes: [{ ...kick, part: { ...kick.part, hits: [hits[1]!] } }] }, 0.9, 1),
    );
    expect(half.map(({ tick, velocity }) => [Math.round(tick), velocity])).toEqual([
      [3200, 100],
      [3467, 80],
      [3733, 60],
    ]);
  });

  test('says when a tempo is far from what it was made for', () => {
    const made = { bpm: 90, tempos: [80, 100] as [number, number] };
    expect(tempoNote(made, 95)).toBeNull();
    expect(tempoNote(made, 170)).toBe(
      'Made for 80 to 100 BPM; at 170 it runs fast. Half time would give 85.',
    );
    expect(tempoNote(made, 45)).toBe('Made for 80 to 100 BPM; at 45 it drags. Double time would give 90.');
    expect(tempoNote(made, 130)).toContain('which is outside it too');
  });
});

describe('other voices', () => {
  test('time moves from the hat to the ride, its opens to the bell, and back again', () => {
    const groove = named('Spice scoop, open hats');
    const onRide = keepTimeOn(groove, 'ride');
    expect(onRide.timekeeper).toBe('ride');
    expect(laneOf(onRide, 'ride')!.part.hits).toEqual(laneOf(groove, 'hat.closed')!.part.hits);
    expect(laneOf(onRide, 'ride.bell')!.part.hits).toEqual(laneOf(groove, 'hat.open')!.part.hits);
    expect(instruments(onRide)).not.toContain('hat.open');
    const back = keepTimeOn(onRide, 'hat.closed');
    expect(laneOf(back, 'hat.closed')!.part.hits).toEqual(laneOf(groove, 'hat.closed')!.part.hits);
    expect(laneOf(back, 'hat.open')!.part.hits).toEqual(laneOf(groove, 'hat.open')!.part.hits);
  });

  test('on the floor tom, what rang is struck harder, and nothing is left out', () => {
    const groove = named('Spice scoop, open hats');
    const tom = keepTimeOn(groove, 'tom.floor');
    const open = laneOf(groove, 'hat.open')!.part.hits[0]!;
    const there = laneOf(tom, 'tom.floor')!.part.hits.find(({ step }) => step === open.step)!;
    expect(there.velocity).toBeGreaterThan(open.velocity);
    expect(hitCount(tom)).toBe(hitCount(groove));
  });

  test('without a timekeeper, or where time is kept there already, nothing changes', () => {
    const groove = { ...named('Noodle queue'), timekeeper: null };
    expect(keepTimeOn(groove, 'ride')).toBe(groove);
    expect(keepTimeOn(named('Noodle queue'), 'hat.closed')).toBe(named('Noodle queue'));
  });

  test('articulations and levels; the original stays, and no hit is lost', () => {
    const groove = named('Noodle queue');
    const before = JSON.stringify(groove);
    const other = revoiced(groove, {
      voices: { snare: 'snare.rimshot' },
      levels: { snare: 0.5 },
      timekeeper: null,
    });
    expect(JSON.stringify(groove)).toBe(before);
    expect(laneOf(other, 'snare.rimshot')!.part.hits[0]!.velocity).toBe(
      Math.round(laneOf(groove, 'snare')!.part.hits[0]!.velocity * 0.5),
    );
    expect(laneOf(other, 'snare.rimshot')!.note).toBe(40);
    const onto = revoiced(named('Noodle queue, open hats'), {
      ...PLAIN_VOICING,
      voices: { 'hat.open': 'hat.closed' },
    });
    expect(hitCount(onto)).toBe(hitCount(named('Noodle queue, open hats')));
    expect(instruments(onto).filter((id) => id === 'hat.closed')).toHaveLength(1);
    expect(articulationsOf('ride')).toContain('ride.bell');
    expect(articulationsOf('vibraslap')).toEqual(['vibraslap']);
  });
});

describe('brought in', () => {
  const swung = (): Beat => {
    const beat = beatAt(96);
    const pattern = {
      ...beat.patterns[0]!,
      parts: { kick: { ...lanePatternOf(beat.patterns[0]!, 'kick'), hits: [newHit(1)] } },
    };
    return {
      ...beat,
      patterns: [pattern],
      feel: { ...beat.feel, base: 'swing', swing: { percent: 66, grid: '1/16' } },
    };
  };

  test('any groove becomes a pattern that is whole and sounds as it was heard, whatever feel the beat has', () => {
    fc.assert(
      fc.property(anyGroove, (groove) => {
        const beat = swung();
        const { beat: done, told } = bringIn(beat, groove, { how: 'new', id: 'new', name: groove.name });
        expect(told).toEqual([]);
        expect(beatSchema.safeParse(done).error).toBeUndefined();
        const alone = grooveToBeat(groove, beat, { tempo: 96, kit: 'quay', once: false });
        expect(byTime(played(done, 'new'))).toEqual(byTime(played(alone, alone.patterns[0]!.id)));
        expect(done.patterns[0]).toEqual(beat.patterns[0]);
      }),
      { numRuns: 60 },
    );
  });

  test('laid over a pattern, what was there keeps its feel, and the groove keeps its own', () => {
    const beat = swung();
    const groove = named('Congas, tumbao');
    const { beat: done } = bringIn(beat, groove, {
      how: 'over',
      patternId: 'a',
      instruments: ['conga.open'],
    });
    const [pattern] = done.patterns;
    expect(Object.keys(pattern!.parts).sort()).toEqual(['conga.open', 'kick']);
    const before = played(beat, 'a').filter(({ lane }) => lane === 'kick');
    const after = played(done, 'a');
    expect(after.filter(({ lane }) => lane === 'kick')).toEqual(before);
    const own = laneOf(groove, 'conga.open')!.part;
    expect(after.filter(({ lane }) => lane === 'conga.open').map(({ tick }) => tick)).toEqual(
      own.hits.map((hit) => Math.round(positionOf(hit, own.grid) * 1000) / 1000),
    );
  });

  test('a longer pattern is filled, whatever the bars of the groove are; a full beat says what is left', () => {
    const beat = beatAt(100);
    const four = { ...beat, patterns: [{ ...beat.patterns[0]!, bars: 2 }] };
    const { beat: done } = bringIn(four, named('Seven gulls'), {
      how: 'over',
      patternId: 'a',
      instruments: ['hat.closed'],
    });
    const hits = lanePatternOf(done.patterns[0]!, 'hat.closed').hits;
    expect(Math.max(...hits.map(({ step }) => step))).toBeGreaterThan(28);
    expect(hits.every(({ step, nudge }) => (step + nudge) * gridTicks('1/16') < 2 * 3840)).toBe(true);
    const lanes = Array.from({ length: 64 }, (_, at) => ({ ...beat.lanes[0]!, id: `l${at}` }));
    const full = bringIn({ ...beat, lanes }, named('Noodle queue'), { how: 'replace', patternId: 'a' });
    expect(full.told).toEqual(['No lane was free for Snare and Closed hat: a beat holds 64.']);
  });

  test('a lane with another number takes the hits: no wrong drum sounds', () => {
    const beat = beatAt(100);
    const lanes = beat.lanes.map((lane) => (lane.id === 'kick' ? { ...lane, note: 60 } : lane));
    const { beat: done } = bringIn({ ...beat, lanes }, named('Noodle queue'), {
      how: 'replace',
      patternId: 'a',
    });
    expect(done.lanes).toEqual(lanes);
    expect(lanePatternOf(done.patterns[0]!, 'kick').hits.length).toBeGreaterThan(0);
  });
});

describe('heard beside the beat', () => {
  test('its bars fall on the bars of the pattern, however long either is; what is silenced is not heard', () => {
    const beat = { ...beatAt(120) };
    const kick = { ...lanePatternOf(beat.patterns[0]!, 'kick'), hits: [newHit(0), newHit(8)] };
    const pattern = { ...beat.patterns[0]!, parts: { kick } };
    const groove = fitGroove(named('Ferry deck'), { times: '1', bars: 2 });
    const both = besideBeat({ ...beat, patterns: [pattern] }, pattern, groove, []);
    const passes = allNotes(planPasses(both, both.patterns[0]!, 4), 'wrap').filter(
      ({ lane }) => lane >= beat.lanes.length,
    );
    const alone = grooveToBeat(groove, beat, { tempo: 120, kit: 'quay', once: false });
    const once = allNotes(planPasses(alone, alone.patterns[0]!, 2), 'wrap');
    expect(passes.map(({ tick }) => Math.round(tick)).sort((a, b) => a - b)).toEqual(
      once.map(({ tick }) => Math.round(tick)).sort((a, b) => a - b),
    );
    const silent = besideBeat({ ...beat, patterns: [pattern] }, pattern, groove, ['kick']);
    expect(silent.lanes[0]!.mute).toBe(true);
  });

  test('heard once, a silent bar follows; bars are counted', () => {
    const groove = named('Ferry deck');
    const once = grooveToBeat(groove, beatAt(120), { tempo: 120, kit: 'quay', once: true });
    const notes = allNotes(planPasses(once, once.patterns[0]!, 1), 'wrap');
    expect(once.patterns[0]!.bars).toBe(groove.bars + 1);
    expect(Math.max(...notes.map(({ tick }) => tick))).toBeLessThan(grooveTicks(groove));
    expect(grooveBar({ ...groove, bars: 2 }, 4000)).toBe(1);
  });
});

test('places and words', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 1e5, noNaN: true }),
      fc.constantFrom('1/16', '1/8T', '1/32' as const),
      (at, grid) => {
        expect(positionOf(placed(at, grid), grid)).toBeCloseTo(at, 6);
      },
    ),
  );
  expect(feelWords({ kind: 'swung', percent: 57.4 })).toBe('Swung 57 %');
});
