import { withLanePattern } from '../document/defaults';
import fc from 'fast-check';
import { beats } from '../arbitraries';
import { MOST } from '../document/choices';
import { newBeat, newHit, lanePatternOf, stepsOf } from '../document/defaults';
import { beatSchema, type Beat, type Pattern } from '../document/schema';
import { randomized, varied, MOST_TAKES } from '../make/chance';
import { editBeat, editPatterns, type PatternEdit } from './edits';
import { bringLanes, splitOff } from './lanes';
import { polymeterBars, polymeterText } from '../play/polymeter';
import { differences } from './seen';
import { LANE_PRESETS, PATTERN_PRESETS, presetPart } from './presets';
import { copyHits, moveHits, pasteHits } from './clip';
import { hitsOn, removeHits, spotsOf, type Spot } from './spots';
import { GRACES, PRESS_ROLL, sloped, withStrokes } from '../document/rolls';

const beat = newBeat('b', 'B', 3);
const lanes = beat.lanes.map(({ id }) => id);
const empty = beat.patterns[0]!;
const full = withLanePattern(empty, 'snare', {
  ...lanePatternOf(empty, 'snare'),
  hits: [
    { ...newHit(4, 100), nudge: 0.2, roll: PRESS_ROLL },
    { ...newHit(12, 60), chance: 0.5, grace: GRACES[0]!.grace },
  ],
});
const snare = (pattern: Pattern) => lanePatternOf(pattern, 'snare').hits;
const at = (...steps: number[]): Spot[] => steps.map((step) => ({ laneId: 'snare', step }));

describe('what is chosen', () => {
  test('copied into another lane it keeps nudge, rolls, chance and grace strokes', () => {
    const clip = copyHits(full, at(4, 12), lanes)!;
    const pasted = pasteHits(full, clip, { laneId: 'kick', step: 2 }, lanes);
    if (!pasted.ok) throw new Error(pasted.error);
    expect(lanePatternOf(pasted.pattern, 'kick').hits).toEqual(
      snare(full).map((hit) => ({ ...hit, step: hit.step - 2 })),
    );
    expect(pasted.spots).toEqual([
      { laneId: 'kick', step: 2 },
      { laneId: 'kick', step: 10 },
    ]);
  });

  test('where nothing fits it says why, and nothing changes', () => {
    const clip = copyHits(full, at(4, 12), lanes)!;
    expect(pasteHits(full, clip, { laneId: 'kick', step: 999 }, lanes)).toMatchObject({
      ok: false,
      error: expect.stringContaining('Nothing was pasted'),
    });
    expect(moveHits(full, at(4), -5 * 240, 0, lanes).ok).toBe(false);
    expect(copyHits(full, at(5), lanes)).toBeNull();
  });

  test('moved there and back it is as it was', () => {
    fc.assert(
      fc.property(fc.integer({ min: -4, max: 3 }), fc.integer({ min: -1, max: 5 }), (steps, down) => {
        const there = moveHits(full, at(4, 12), steps * 240, down, lanes);
        if (!there.ok) throw new Error(there.error);
        const back = moveHits(there.pattern, there.spots, -steps * 240, -down, lanes);
        expect(back.ok && snare(back.pattern)).toEqual(snare(full));
      }),
    );
  });

  test('velocities are ramped in time, scaled and compressed', () => {
    const edit = (one: PatternEdit) =>
      snare(editPatterns({ ...beat, patterns: [full] }, ['a'], one).patterns[0]!);
    const all = spotsOf(full, 'snare');
    const velocities = (one: PatternEdit) => edit(one).map(({ velocity }) => velocity);
    expect(velocities({ edit: 'rampVelocities', args: { spots: all, from: 20, to: 120 } })).toEqual([
      20, 120,
    ]);
    expect(velocities({ edit: 'scaleVelocities', args: { spots: all, factor: 1.5 } })).toEqual([127, 90]);
    expect(velocities({ edit: 'compressVelocities', args: { spots: all, ratio: 0.5 } })).toEqual([90, 70]);
    expect(edit({ edit: 'lengthsToNext', args: { spots: all } })[0]!.length).toBeCloseTo(7.8);
    expect(removeHits(full, all).parts['snare']!.hits).toEqual([]);
    expect(hitsOn(full, at(4))).toHaveLength(1);
  });
});

test('turning a lane round its loop is undone by turning it back; a reverse undoes itself', () => {
  fc.assert(
    fc.property(beats, fc.integer({ min: -30, max: 30 }), (one, by) => {
      const turn = (now: Beat, edit: PatternEdit) => editPatterns(now, ['a'], edit);
      const laneId = 'kick';
      const places = (now: Beat) => {
        const pattern = now.patterns[0]!;
        const part = lanePatternOf(pattern, laneId);
        return part.hits
          .filter(({ step }) => step < stepsOf(part, pattern))
          .map(({ step, nudge, velocity }) => `${step} ${nudge} ${velocity}`)
          .sort();
      };
      const turned = turn(turn(one, { edit: 'rotate', args: { laneIds: [laneId], by } }), {
        edit: 'rotate',
        args: { laneIds: [laneId], by: -by },
      });
      expect(places(turned)).toEqual(places(one));
      const twice = turn(turn(one, { edit: 'reverse', args: { laneIds: [laneId] } }), {
        edit: 'reverse',
        args: { laneIds: [laneId] },
      });
      expect(places(twice)).toEqual(places(one));
    }),
  );
});

test('a pattern made shorter and longer again has lost nothing', () => {
  const long = { ...beat, patterns: [{ ...full, bars: 4 }] };
  const set = (now: Beat, bars: number) => editPatterns(now, ['a'], { edit: 'setBars', args: { bars } });
  expect(set(set(long, 1), 4)).toEqual(long);
  expect(set(long, 99).patterns[0]!.bars).toBe(16);
});

describe('chance', () => {
  const hats = presetPart(LANE_PRESETS.find(({ name }) => name === 'Sixteenths')!);

  test('the same seed gives the same hits, another one others, and what is held stays', () => {
    const none = { count: false, places: false, velocities: false };
    const roll = (from: number, keep = none) => randomized(hats, 16, 'hat.closed', from, keep).hits;
    expect(roll(1)).toEqual(roll(1));
    expect(roll(1)).not.toEqual(roll(2));
    const places = roll(5, { ...none, places: true, count: true });
    expect(places.map(({ step }) => step)).toEqual(hats.hits.map(({ step }) => step));
    expect(places.map(({ velocity }) => velocity)).not.toEqual(hats.hits.map(({ velocity }) => velocity));
    expect(roll(9, { ...none, count: true })).toHaveLength(16);
  });

  test.each([0.1, 0.25, 0.5])('a variation by %s leaves the rest and takes accents last', (share) => {
    const out = varied(hats, 16, 'hat.closed', 11, share).hits;
    const kept = out.filter((hit) => hats.hits.includes(hit));
    expect(16 - kept.length).toBeLessThanOrEqual(Math.ceil(16 * share) + 1);
    expect(16 - kept.length).toBeGreaterThan(0);
    const accents = hats.hits.filter(({ velocity }) => velocity > 100);
    expect(accents.filter((hit) => !out.includes(hit))).toEqual([]);
  });

  test('every outcome is a take, also what was there before and what was changed by hand', () => {
    const laneIds = ['snare'];
    const keep = { count: false, places: false, velocities: false };
    let now: Beat = { ...beat, patterns: [full] };
    for (let roll = 0; roll < 5; roll++)
      now = editPatterns(now, ['a'], {
        edit: 'randomize',
        args: { laneIds, seed: roll, id: `t${roll}`, keep },
      });
    const takes = () => now.patterns[0]!.takes!;
    expect(takes().map(({ seed: from }) => from)).toEqual([0, 0, 1, 2, 3, 4]);
    now = editPatterns(now, ['a'], {
      edit: 'setVelocities',
      args: { spots: spotsOf(now.patterns[0]!, 'snare'), to: 9 },
    });
    const byHand = snare(now.patterns[0]!);
    now = editPatterns(now, ['a'], { edit: 'recall', args: { takeId: takes()[0]!.id, id: 'hand' } });
    expect(snare(now.patterns[0]!)).toEqual(snare(full));
    expect(takes().at(-1)!.parts['snare']!.hits).toEqual(byHand);
    for (let roll = 0; roll < MOST_TAKES + 20; roll++)
      now = editPatterns(now, ['a'], {
        edit: 'vary',
        args: { laneIds, seed: roll, id: `v${roll}`, share: 0.5 },
      });
    expect(takes()).toHaveLength(MOST_TAKES);
  });

  const none = { count: false, places: false, velocities: false };
  const roll = (now: Beat, seedOf: number, id: string): Beat => {
    const args = { laneIds: ['snare'], seed: seedOf, id, keep: none };
    return editPatterns(now, ['a'], { edit: 'randomize', args });
  };

  test('kept takes never give way, nor make the newest one do so', () => {
    let now: Beat = { ...beat, patterns: [full] };
    for (let at = 0; at < MOST_TAKES + 10; at++) {
      const takeId = `t${at}`;
      now = roll(now, at, takeId);
      expect(now.patterns[0]!.takes!.at(-1)!.id).toBe(takeId);
      now = editPatterns(now, ['a'], { edit: 'changeTake', args: { takeId, change: { kept: true } } });
    }
    expect(now.patterns[0]!.takes!.filter(({ kept }) => kept)).toHaveLength(MOST_TAKES + 10);
    expect(beatSchema.safeParse(now).success).toBe(true);
  });

  test('going back and forth between takes and changes by hand leaves a beat that can be read', () => {
    let now = roll({ ...beat, patterns: [full] }, 1, 'first');
    for (let round = 0; round < 40; round++) {
      const spots = spotsOf(now.patterns[0]!, 'snare');
      now = editPatterns(now, ['a'], { edit: 'setVelocities', args: { spots, to: 20 + round } });
      const takeId = now.patterns[0]!.takes!.at(-1)!.id;
      now = editPatterns(now, ['a'], { edit: 'recall', args: { takeId, id: `hand ${round}` } });
    }
    const ids = now.patterns[0]!.takes!.map(({ id }) => id);
    expect(ids.length).toBeGreaterThan(30);
    expect(new Set(ids).size).toBe(ids.length);
    expect(beatSchema.safeParse(now).success).toBe(true);
  });
});

test('a lane that is removed is gone from every pattern and every take', () => {
  const rolled = editPatterns(beat, [beat.patterns[0]!.id], {
    edit: 'randomize',
    args: {
      laneIds: ['kick', 'snare'],
      seed: 3,
      id: 'take',
      keep: { count: false, places: false, velocities: false },
    },
  });
  expect(rolled.patterns[0]!.takes!.some(({ parts }) => 'kick' in parts)).toBe(true);
  const without = editBeat(rolled, { edit: 'removeLane', args: { laneId: 'kick' } });
  for (const { parts, takes = [] } of without.patterns) {
    expect(Object.keys(parts)).not.toContain('kick');
    for (const take of takes) expect(Object.keys(take.parts)).not.toContain('kick');
  }
  expect(without.patterns[0]!.takes!.some(({ parts }) => 'snare' in parts)).toBe(true);
});

test('a lane moved within its group stays in it, one taken away from it leaves it', () => {
  const args = { id: 'g', name: 'Skins', laneIds: ['kick', 'snare'] };
  const grouped = editBeat(beat, { edit: 'groupLanes', args });
  const groups = (to: Beat) => to.lanes.filter(({ group }) => group === 'g').map(({ id }) => id);
  const move = (laneId: string, to: number) => editBeat(grouped, { edit: 'moveLane', args: { laneId, to } });
  expect(groups(move('snare', 0))).toEqual(['snare', 'kick']);
  expect(groups(move('snare', 5))).toEqual(['kick']);
  expect(beatSchema.safeParse(move('snare', 5)).success).toBe(true);
});

describe('strokes', () => {
  test('a slope rises or falls, and more strokes keep its shape', () => {
    expect(sloped(3, 1).levels).toEqual([0.2, 0.6, 1]);
    expect(sloped(3, -1).levels).toEqual([1, 0.6, 0.2]);
    expect(sloped(99, 0).levels).toHaveLength(16);
    expect(withStrokes(sloped(3, 1), 5).levels).toEqual([0.2, 0.4, 0.6, 0.8, 1]);
  });
});

describe('lanes that loop by themselves', () => {
  test.each([
    [{ steps: 12 }, 3],
    [{ steps: 5 }, 5],
    [{ steps: 16, rate: '2/3' as const }, 3],
    [{}, 1],
  ])('a lane with %j meets the others after %s bars', (change, bars) => {
    const pattern = withLanePattern(full, 'snare', { ...lanePatternOf(full, 'snare'), ...change });
    expect(polymeterBars(beat, pattern)).toBe(bars);
  });

  test('a lane counts before it has hits', () => {
    const empty = withLanePattern(full, 'snare', { ...lanePatternOf(full, 'snare'), steps: 12, hits: [] });
    expect(polymeterBars(beat, empty)).toBe(3);
  });

  test('and it is said in words', () => {
    expect(polymeterText(3, 1)).toBe('All lanes meet again after 3 bars.');
    expect(polymeterText(1, 1)).toContain('each time the pattern does');
    expect(polymeterText(null, 1)).toContain('10,000');
  });
});

describe('presets', () => {
  test('there are enough, no two of one name in a family, all written in the signs that are known', () => {
    expect(PATTERN_PRESETS.length).toBeGreaterThanOrEqual(12);
    expect(LANE_PRESETS.length).toBeGreaterThanOrEqual(40);
    expect(new Set(LANE_PRESETS.map(({ id }) => id)).size).toBe(LANE_PRESETS.length);
    const lines = [
      ...LANE_PRESETS.map(({ line }) => line),
      ...PATTERN_PRESETS.flatMap((one) => Object.values(one.lines)),
    ];
    expect(lines.filter((line) => !/^[xXo.]{1,64}$/.test(line))).toEqual([]);
  });

  test('a preset of a pattern brings the lanes that it needs', () => {
    const out = editBeat(beat, { edit: 'patternPreset', args: { patternId: 'a', presetId: 'hands-only' } });
    expect(out.lanes.map(({ instrument }) => instrument)).toEqual(
      expect.arrayContaining(['conga.open', 'conga.low']),
    );
    expect(Object.keys(out.patterns[0]!.parts)).toHaveLength(4);
  });
});

test('a full beat takes no more patterns, and stays one that can be read', () => {
  let now = beat;
  for (let at = 0; at < MOST.patterns + 20; at++)
    now = editBeat(now, { edit: 'addPattern', args: { id: `p${at}`, like: empty } });
  now = editBeat(now, { edit: 'duplicatePattern', args: { id: 'more', from: 'a' } });
  expect(now.patterns).toHaveLength(MOST.patterns);
  expect(beatSchema.safeParse(now).success).toBe(true);
});

test('a variation knows its parent, and where it differs', () => {
  const two = editBeat(
    { ...beat, patterns: [full] },
    { edit: 'duplicatePattern', args: { id: 'v', from: 'a' } },
  );
  const changed = editPatterns(two, ['v'], { edit: 'removeHits', args: { spots: at(12) } });
  const [parent, child] = changed.patterns;
  expect(child).toMatchObject({ parent: 'a', name: 'B of A' });
  expect([...differences(child!, parent!, 'snare')]).toEqual([12]);
  const alone = editBeat(changed, { edit: 'removePattern', args: { id: 'a' } });
  expect(alone.patterns[0]).not.toHaveProperty('parent');
});

test('one lane split off is a beat of its own, and comes back in under another id', () => {
  const alone = splitOff({ ...beat, patterns: [full] }, 'snare', 'new');
  expect(beatSchema.safeParse(alone).success).toBe(true);
  expect(alone.lanes.map(({ id }) => id)).toEqual(['snare']);
  const back = bringLanes(beat, 'a', alone, ['snare'], (id) => `${id}.2`);
  expect(beatSchema.safeParse(back).success).toBe(true);
  expect(back.patterns[0]!.parts['snare.2']).toEqual(lanePatternOf(full, 'snare'));
});
