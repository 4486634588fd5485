import { planLane } from '../play/plan';
import { notesIn } from '../play/driver';
import { planLive } from '../play/timelinePlan';
import { withLanePattern } from '../document/defaults';
import fc from 'fast-check';
import { beats } from '../arbitraries';
import { newBeat, newHit, lanePatternOf } from '../document/defaults';
import type { Beat, Hit, LanePattern, Pattern } from '../document/schema';
import { pulsesOf } from '../document/pulses';
import { boxAround, copyHits, moveHits, pasteHits, type Pasted } from './clip';
import { editBeat, editPatterns, type PatternEdit } from './edits';
import { setStep } from './hits';
import { hiddenHits } from './seen';
import { LANE_PRESETS } from './presets';
import { hitsOn, sameSpot, spotsOf, spotsWithin, type Spot } from './spots';

const beat = newBeat('b', 'B', 3);
const lanes = beat.lanes.map(({ id }) => id);
const empty = beat.patterns[0]!;
const with1 = (pattern: Pattern, laneId: string, hits: Hit[], change: Partial<LanePattern> = {}): Pattern =>
  withLanePattern(pattern, laneId, { ...lanePatternOf(pattern, laneId), hits, ...change });
const edited = (pattern: Pattern, edit: PatternEdit, of: Beat = beat): Pattern =>
  editPatterns({ ...of, patterns: [pattern] }, ['a'], edit).patterns[0]!;
const kick = (pattern: Pattern) => lanePatternOf(pattern, 'kick').hits;
const good = (pasted: Pasted) => {
  if (!pasted.ok) throw new Error(pasted.error);
  return pasted;
};

describe('one of several hits of a step', () => {
  const two = with1(empty, 'kick', [
    { ...newHit(4, 40), nudge: -0.2 },
    { ...newHit(4, 110), nudge: 0.3 },
    newHit(8, 70),
  ]);
  test('is selected and changed by itself', () => {
    const spots: Spot[] = [{ laneId: 'kick', step: 4, place: 1 }];
    expect(hitsOn(two, spots).map(({ hit }) => hit.velocity)).toEqual([110]);
    const out = edited(two, { edit: 'setVelocities', args: { spots, to: 90 } });
    expect(kick(out).map(({ velocity }) => velocity)).toEqual([40, 90, 70]);
    expect(hitsOn(two, [...spots, { laneId: 'kick', step: 4 }])).toHaveLength(2);
    expect(sameSpot(spots[0]!, { laneId: 'kick', step: 4 })).toBe(false);
  });
});

describe('many at once', () => {
  test('velocities and nudges change by the same amount, whatever is asked: differences stay, nothing leaves its range', () => {
    fc.assert(
      fc.property(beats, fc.integer({ min: -200, max: 200 }), (one, by) => {
        const [pattern] = one.patterns;
        const spots = ['kick', 'snare', 'clap'].flatMap((laneId) => spotsOf(pattern!, laneId));
        const before = hitsOn(pattern!, spots);
        const run = (edit: PatternEdit) => hitsOn(editPatterns(one, ['a'], edit).patterns[0]!, spots);
        const louder = run({ edit: 'shiftVelocities', args: { spots, by } });
        const moved = louder.map(({ hit }, at) => hit.velocity - before[at]!.hit.velocity);
        expect(new Set(moved).size).toBeLessThanOrEqual(1);
        expect(louder.every(({ hit }) => hit.velocity >= 1 && hit.velocity <= 127)).toBe(true);
      }),
    );
  });

  test('1 ms is 1 ms in every lane, whatever its grid and rate', () => {
    const mixed = [
      ['kick', '1/16', '1'],
      ['snare', '1/8T', '1'],
      ['clap', '1/32', '3/2'],
    ] as const;
    const pattern = mixed.reduce(
      (now, [id, grid, rate]) => with1(now, id, [newHit(2)], { grid, rate }),
      empty,
    );
    const spots = mixed.map(([laneId]) => ({ laneId, step: 2 }));
    const ticks = (of: Pattern) =>
      notesIn(planLive({ ...beat, patterns: [of] }, of), 0, 3840)
        .filter(({ cycle }) => cycle === 0)
        .map(({ lane, tick }) => [lane, tick] as const);
    const before = new Map(ticks(pattern));
    const after = ticks(edited(pattern, { edit: 'nudgeByMs', args: { spots, ms: 1 } }));
    for (const [lane, tick] of after) expect(tick - before.get(lane)!).toBeCloseTo(1.6, 9);
  });
});

describe('copying', () => {
  const pattern = with1(with1(empty, 'kick', [newHit(1, 80), newHit(6)]), 'snare', [newHit(1)], {
    grid: '1/8T',
  });
  const bar = { laneIds: ['kick', 'snare'], from: 0, to: 3840 };

  test('keeps the box with its empty edges, and pastes one box later into bars that come with it', () => {
    const spots = spotsWithin(pattern, bar.laneIds, 0, 3840);
    const clip = copyHits(pattern, spots, lanes, bar)!;
    expect(clip.length).toBe(3840);
    const pasted = good(pasteHits(pattern, clip, { laneId: 'kick', step: 16 }, lanes));
    expect(pasted.told).toEqual(['The pattern is 2 bars long now.']);
    expect(kick(pasted.pattern).map(({ step }) => step)).toEqual([1, 6, 17, 22]);
    expect(lanePatternOf(pasted.pattern, 'snare').hits.map(({ step }) => step)).toEqual([1, 13]);
    const tight = copyHits(pattern, spots, lanes)!;
    expect(tight.length).toBeLessThan(3840);
  });

  test('what lies beyond a lane’s own end is left out and told', () => {
    const own = with1(pattern, 'kick', [newHit(0), newHit(3)], { steps: 8 });
    const clip = copyHits(own, spotsOf(own, 'kick'), lanes)!;
    const pasted = good(pasteHits(own, clip, { laneId: 'kick', step: 6 }, lanes));
    expect(pasted.told).toEqual(['1 hit beyond the end of a lane was left out.']);
    expect(pasted.pattern.bars).toBe(1);
  });

  test('lanes of other grids keep in time', () => {
    const clip = copyHits(pattern, [{ laneId: 'snare', step: 1 }], lanes)!;
    const pasted = good(pasteHits(pattern, clip, { laneId: 'kick', step: 0 }, lanes));
    expect(pasted.spots).toEqual([{ laneId: 'kick', step: 0 }]);
    const both = copyHits(pattern, spotsWithin(pattern, bar.laneIds, 0, 3840), lanes, bar)!;
    const later = good(pasteHits(pattern, both, { laneId: 'kick', step: 2 }, lanes));
    const [first] = lanePatternOf(later.pattern, 'snare').hits.filter(({ step }) => step > 1);
    expect((first!.step + first!.nudge) * 320).toBeCloseTo(320 + 480, 9);
  });

  test('a length keeps its time from one grid to another, and its steps within its own', () => {
    const long = with1(empty, 'kick', [{ ...newHit(4), length: 3 }]);
    const eighths = with1(with1(long, 'snare', [], { grid: '1/8' }), 'clap', [], { grid: '1/8T' });
    const clip = copyHits(eighths, spotsOf(eighths, 'kick'), lanes)!;
    const onto = (laneId: string) => {
      const { pattern: there } = good(pasteHits(eighths, clip, { laneId, step: 0 }, lanes));
      return lanePatternOf(there, laneId).hits.find(({ step }) => step === 0)!.length!;
    };
    // 3 sixteenths are 720 ticks: 1.5 eighths of 480, 2.25 triplets of 320.
    expect([onto('kick'), onto('snare'), onto('clap')]).toEqual([3, 1.5, 2.25]);
  });

  test('no hit is lost past the last lane: a move stays where it was, a paste tells what found no lane', () => {
    const [above, last] = lanes.slice(-2) as [string, string];
    const low = with1(with1(empty, above, [newHit(2, 71)]), last, [newHit(3, 82)]);
    const spots = [...spotsOf(low, above), ...spotsOf(low, last)];
    expect(moveHits(low, spots, 0, 1, lanes)).toEqual({
      ok: false,
      error: 'Nothing was moved: some hit would leave the pattern.',
    });
    const up = good(moveHits(low, spots, 0, -1, lanes));
    expect(up.spots).toHaveLength(2);
    const clip = copyHits(low, spots, lanes)!;
    const pasted = good(pasteHits(low, clip, { laneId: last, step: 8 }, lanes));
    expect(lanePatternOf(pasted.pattern, last).hits.map(({ velocity }) => velocity)).toEqual([82, 71]);
    expect(pasted.told).toEqual(['1 lane of the copy found no lane below.']);
  });

  test('moving onto another hit keeps both, and says where they become one', () => {
    const near = with1(empty, 'kick', [newHit(0, 50), { ...newHit(1, 90), nudge: 0.2 }, newHit(4, 60)]);
    const moved = good(moveHits(near, [{ laneId: 'kick', step: 0 }], 240, 0, lanes));
    expect(kick(moved.pattern).map(({ velocity }) => velocity)).toEqual([50, 90, 60]);
    expect(moved.told).toEqual([]);
    const onto = good(moveHits(near, [{ laneId: 'kick', step: 0 }], 960, 0, lanes));
    expect(kick(onto.pattern)).toHaveLength(3);
    expect(onto.told[0]).toContain('1 hit came onto the very place of another');
    expect(boxAround(near, [], lanes)).toBeNull();
  });
});

test('a hit that is taken off and put back has all it had', () => {
  const rich: Hit = { ...newHit(4, 61), nudge: 0.2, chance: 0.4, grace: [{ before: 20, level: 0.5 }] };
  const pattern = with1(empty, 'kick', [rich]);
  const off = setStep(pattern, 'kick', 4, false);
  expect(setStep(off, 'kick', 4, true, undefined, [rich])).toEqual(pattern);
  expect(kick(setStep(off, 'kick', 4, true, 90, [rich]))).toEqual([newHit(4, 90)]);
  expect(kick(setStep(off, 'kick', 5, true, undefined, [rich]))).toEqual([newHit(5)]);
});

describe('takes', () => {
  const keep = { count: false, places: false, velocities: false };
  const roll = (pattern: Pattern, laneIds: string[], id: string) =>
    edited(pattern, { edit: 'randomize', args: { laneIds, seed: 7, id, keep } });
  const both = with1(with1(empty, 'kick', [newHit(0)]), 'snare', [newHit(4)]);

  test('of a lane bring back that lane, takes of all bring back all', () => {
    const one = roll(both, ['kick'], 't1');
    const hand = edited(one, { edit: 'removeHits', args: { spots: [{ laneId: 'snare', step: 4 }] } });
    const back = edited(hand, { edit: 'recall', args: { takeId: 't1.before', id: 'h' } });
    expect([kick(back), lanePatternOf(back, 'snare').hits]).toEqual([[newHit(0)], []]);
    const all = roll(both, lanes, 't2');
    const changed = edited(all, { edit: 'clearLanes', args: { laneIds: lanes } });
    const again = edited(changed, { edit: 'recall', args: { takeId: 't2.before', id: 'h' } });
    expect([kick(again), lanePatternOf(again, 'snare').hits]).toEqual([[newHit(0)], [newHit(4)]]);
  });

  test('no name is given twice, whatever is dropped', () => {
    let now = roll(both, ['kick'], 'a');
    const names = new Set(now.takes!.map(({ name }) => name));
    for (let at = 0; at < 6; at++) {
      now = edited(now, { edit: 'dropTake', args: { takeId: now.takes!.at(-1)!.id } });
      now = roll(now, ['kick'], `n${at}`);
      expect(names.has(now.takes!.at(-1)!.name)).toBe(false);
      names.add(now.takes!.at(-1)!.name);
    }
  });
});

describe('whole lanes', () => {
  const line = (pattern: Pattern) => kick(pattern).map(({ step }) => step);
  const eighths = with1(empty, 'kick', [newHit(0), newHit(4), newHit(6), newHit(20, 33)]);

  test('half time takes twice as long, double time plays twice as often; hidden hits are in no one’s way', () => {
    const run = (factor: number) => edited(eighths, { edit: 'stretch', args: { laneIds: ['kick'], factor } });
    expect(line(run(2))).toEqual([0, 8, 12, 20]);
    expect(line(run(0.5))).toEqual([0, 2, 3, 8, 10, 11, 20]);
    const cleared = edited(eighths, { edit: 'clearLanes', args: { laneIds: ['kick'] } });
    expect([line(cleared), hiddenHits(cleared, 'kick')]).toEqual([[], 0]);
  });

  const run = (pattern: Pattern, ...all: PatternEdit[]) =>
    all.reduce((now, one) => edited(now, one), pattern);
  const laneIds = ['kick'];
  const step = (by: number): PatternEdit => ({ edit: 'shift', args: { laneIds, by } });

  test('moved by steps and back nothing is lost, whichever way and however far', () => {
    fc.assert(
      fc.property(
        beats,
        fc.array(fc.integer({ min: -20, max: 20 }), { minLength: 1, maxLength: 5 }),
        (one, by) => {
          const [pattern] = one.patterns as [Pattern];
          const there = run(pattern, ...by.map(step));
          expect(kick(there)).toHaveLength(kick(pattern).length);
          const back = run(there, ...by.map((each) => step(-each)));
          const told = (hits: Hit[]) => hits.map((hit) => JSON.stringify(hit)).sort();
          expect(told(kick(back))).toEqual(told(kick(pattern)));
        },
      ),
      { numRuns: 60 },
    );
    const left = run(eighths, step(-1));
    expect(line(left)).toEqual([3, 5, 19, 4095]);
    expect(line(run(left, step(1)))).toEqual([0, 4, 6, 20]);
  });

  test('doubled and halved a lane is as it was, its length going with the pattern and what is out of sight too', () => {
    const double: PatternEdit = { edit: 'double', args: { laneIds } };
    const halve: PatternEdit = { edit: 'halve', args: { laneIds } };
    expect(run(eighths, double, halve)).toEqual(eighths);
    const doubled = lanePatternOf(run(eighths, double), 'kick');
    expect([doubled.steps, doubled.hits.map((hit) => hit.step)]).toEqual([32, [0, 4, 6, 16, 20, 22, 36]]);
    const own = with1(empty, 'kick', [newHit(0), newHit(3)], { steps: 5 });
    expect(run(own, double, halve)).toEqual(own);
    // A second half that is its own is kept.
    const changed = run(
      eighths,
      double,
      { edit: 'removeHits', args: { spots: [{ laneId: 'kick', step: 20 }] } },
      halve,
    );
    expect([lanePatternOf(changed, 'kick').steps, line(changed)]).toEqual([16, [0, 4, 6, 16, 22, 36]]);
    const bars = run(eighths, { edit: 'repeatBars', args: {} });
    expect([bars.bars, line(bars)]).toEqual([2, [0, 4, 6, 16, 20, 22, 36]]);
  });

  test('double time keeps the last half step, half time keeps what no longer fits out of sight', () => {
    const all = with1(
      empty,
      'kick',
      Array.from({ length: 16 }, (_, at) => newHit(at)),
    );
    const fast = run(all, { edit: 'stretch', args: { laneIds, factor: 0.5 } });
    expect(kick(fast)).toHaveLength(32);
    expect(kick(fast).map(({ step: at, nudge }) => at + nudge)).toEqual(
      Array.from({ length: 32 }, (_, at) => at / 2),
    );
    const slow = run(all, { edit: 'stretch', args: { laneIds, factor: 2 } });
    expect([kick(slow).length, hiddenHits(slow, 'kick')]).toEqual([16, 8]);
  });

  test('another grid leaves every hit where it sounds', () => {
    fc.assert(
      fc.property(beats, fc.constantFrom('1/8' as const, '1/16T' as const, '1/32' as const), (one, grid) => {
        const [pattern] = one.patterns;
        const out = editPatterns(one, ['a'], { edit: 'regrid', args: { laneIds: ['kick'], grid } });
        const inside = (of: Pattern) => {
          const part = lanePatternOf(of, 'kick');
          const { step: g, steps } = planLane({ ...one, patterns: [of] }, of, one.lanes[0]!);
          return { g, loop: steps * g, hits: part.hits, all: part.hits.filter((hit) => hit.step < steps) };
        };
        const [before, after] = [inside(pattern!), inside(out.patterns[0]!)];
        expect(after.hits).toHaveLength(before.hits.length);
        // A loop that is no whole number of the new steps has another length: its hits have no same place in it.
        if (Math.abs(before.loop - after.loop) > 1e-6) return;
        // What the last step does not reach is early for the first one; more than half a step early nothing can be.
        const places = ({ all, g, loop }: typeof before) =>
          all
            .map((hit) => Math.round((((hit.step + hit.nudge) * g + loop) % loop) * 1e4) / 1e4)
            .sort((a, b) => a - b);
        const early = before.all.filter((hit) => hit.step + hit.nudge < 0).length;
        const [a, b] = [places(before), places(after)];
        expect(b).toHaveLength(a.length);
        expect(
          a.filter((place) => !b.some((other) => Math.abs(other - place) < 1e-3)).length,
        ).toBeLessThanOrEqual(early);
      }),
      { numRuns: 60 },
    );
  });

  test('off-beats are those of the grid that is chosen', () => {
    const every = with1(
      empty,
      'kick',
      Array.from({ length: 16 }, (_, step) => newHit(step)),
      { offbeat: 0.25 },
    );
    const late = (change: Partial<LanePattern>) => {
      const pattern = with1(every, 'kick', kick(every), change);
      return notesIn(planLive({ ...beat, patterns: [pattern] }, pattern), 0, 3840)
        .filter(({ tick, gridTick }) => tick > gridTick)
        .map(({ step }) => step);
    };
    expect(late({ offbeatGrid: '1/4' })).toEqual([2, 6, 10, 14]);
    expect(late({ offbeatGrid: '1/8' })).toEqual([1, 3, 5, 7, 9, 11, 13, 15]);
    expect(late({})).toEqual([1, 3, 5, 7, 9, 11, 13, 15]);
  });

  test('a bar is copied, in the place of another or after the last; a pattern under a name of its own', () => {
    const two = { ...with1(empty, 'kick', [newHit(0), { ...newHit(16, 40), nudge: -0.2 }]), bars: 2 };
    const onto = edited(two, { edit: 'copyBar', args: { from: 0, to: 1 } });
    expect(kick(onto)).toEqual([newHit(0), newHit(16)]);
    const after = edited(two, { edit: 'copyBar', args: { from: 1, to: 2 } });
    expect(after.bars).toBe(3);
    expect(kick(after).map(({ step, nudge }) => step + nudge)).toEqual([0, 15.8, 31.8]);
    expect(edited(two, { edit: 'copyBar', args: { from: 5, to: 0 } })).toBe(two);
    const copied = editBeat(beat, { edit: 'copyPattern', args: { id: 'c', pattern: two } });
    expect(copied.patterns.map(({ name }) => name)).toEqual(['A', 'A 2']);
  });
});

describe('presets know the meter', () => {
  const backbeat = LANE_PRESETS.find(({ name }) => name === 'Backbeat')!;
  const placed = (beatsOf: number, unit: 4 | 8, change: Partial<LanePattern> = {}, id = backbeat.id) => {
    const pattern = with1({ ...empty, meter: { beats: beatsOf, unit } }, 'snare', [newHit(0)], change);
    const out = edited(pattern, { edit: 'lanePreset', args: { laneId: 'snare', presetId: id } });
    return lanePatternOf(out, 'snare');
  };
  const sixteenths = ({ hits }: LanePattern) => hits.map(({ step, nudge }) => step + nudge);

  test.each([
    [4, 4, [4, 12]],
    [3, 4, [4, 8]],
    [7, 8, [4, 8]],
    [12, 8, [6, 18]],
    [6, 8, [6]],
    [5, 4, [4, 16]],
  ] as const)('a backbeat in %i/%i stands on its pulses', (beatsOf, unit, steps) => {
    const part = placed(beatsOf, unit);
    expect(sixteenths(part)).toEqual(steps);
    const pulses = pulsesOf({ beats: beatsOf, unit }).map(({ from }) => from / 240);
    expect(steps.every((step) => pulses.includes(step))).toBe(true);
  });

  test('grid, length and direction of the lane stay, unless they are asked for', () => {
    const own = placed(4, 4, { grid: '1/8', steps: 6, direction: 'backward' });
    expect(own).toMatchObject({ grid: '1/8', steps: 6, direction: 'backward' });
    expect(own.hits.map(({ step }) => step)).toEqual([2]);
    const loop = LANE_PRESETS.find(({ name }) => name === 'Every third step')!;
    expect(placed(4, 4, {}, loop.id)).toMatchObject({ steps: null });
    const args = { laneId: 'snare', presetId: loop.id, asWritten: true };
    expect(lanePatternOf(edited(empty, { edit: 'lanePreset', args }), 'snare').steps).toBe(3);
  });
});
