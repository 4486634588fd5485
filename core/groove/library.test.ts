import { positionOf } from '../document/position';
import { beatSchema } from '../document/schema';
import { newBeat } from '../document/defaults';
import { gridTicks } from '../document/grid';
import { barTicks } from '../document/meter';
import { grooveTicks, type Groove } from './groove';
import { grooveToBeat } from './grooveToBeat';
import { builtInGrooves } from './library';
import { readGrooves } from './text';

const grooves = builtInGrooves();
const kits = grooves.filter(({ kind }) => kind !== 'percussion');
const families = [...new Set(kits.map(({ style }) => style))];
const FEET = ['kick', 'kick.second', 'hat.pedal'];

/** How many limbs of a kind strike on each step. */
const struck = ({ lanes }: Groove, feet: boolean): number[] => {
  const counts = new Map<number, number>();
  for (const { instrument, part } of lanes)
    if (FEET.includes(instrument) === feet)
      for (const { step } of part.hits) counts.set(step, (counts.get(step) ?? 0) + 1);
  return [...counts.values()];
};

describe('the library', () => {
  test('holds what it promises', () => {
    expect(kits.length).toBeGreaterThanOrEqual(160);
    expect(families.length).toBeGreaterThanOrEqual(16);
    expect(grooves.length - kits.length).toBeGreaterThanOrEqual(30);
    expect(new Set(grooves.map(({ id }) => id)).size).toBe(grooves.length);
    expect(new Set(grooves.map(({ name }) => name)).size).toBe(grooves.length);
  });

  test.each(families)('%s has a main groove, variations, two fills and an ending', (style) => {
    const own = kits.filter((groove) => groove.style === style);
    const count = (kind: string) => own.filter((groove) => groove.kind === kind).length;
    expect(count('ending')).toBe(1);
    // The main groove is there short, and in four and eight bars with a turn at their end.
    const mains = own.filter(({ kind }) => kind === 'main');
    expect(mains.map(({ bars }) => bars)).toEqual([expect.any(Number), 4, 8]);
    const endOf = ({ lanes, meter, bars }: Groove, at: number) =>
      lanes
        .flatMap(({ instrument, part }) =>
          part.hits
            .filter(({ step }) => Math.floor((step * gridTicks(part.grid)) / barTicks(meter)) === at)
            .map(({ step }) => `${instrument} ${step % (barTicks(meter) / gridTicks(part.grid))}`),
        )
        .sort()
        .join() + (at >= bars ? ' none' : '');
    for (const long of mains.slice(1))
      expect(endOf(long, long.bars - 1)).not.toBe(endOf(mains[0]!, (long.bars - 1) % mains[0]!.bars));
    expect(count('fill')).toBeGreaterThanOrEqual(2);
    const labels = own.map(({ tags }) => tags[tags.length - 1]);
    for (const label of ['ghost notes', 'open hats', 'half-time', 'busier', 'sparser', 'without kick'])
      expect(labels).toContain(label);
    expect(labels.some((label) => label === 'on the ride' || label === 'on the hat')).toBe(true);
  });

  test.each(grooves.map((groove) => [groove.id, groove] as const))('%s can be played', (_id, groove) => {
    const hands = groove.tags.includes('two-players') ? 4 : 2;
    expect(Math.max(0, ...struck(groove, false))).toBeLessThanOrEqual(hands);
    expect(Math.max(0, ...struck(groove, true))).toBeLessThanOrEqual(2);
    const [low, high] = groove.tempos;
    expect(low).toBeLessThanOrEqual(groove.bpm);
    expect(high).toBeGreaterThanOrEqual(groove.bpm);
    expect(grooveTicks(groove) % barTicks(groove.meter)).toBe(0);
    for (const { part } of groove.lanes) {
      expect(part.hits.length).toBeGreaterThan(0);
      for (const hit of part.hits) {
        const at = positionOf(hit, part.grid);
        expect(at).toBeGreaterThanOrEqual(0);
        expect(at).toBeLessThan(grooveTicks(groove) + gridTicks(part.grid) / 2);
      }
    }
    const beat = grooveToBeat(groove, newBeat('b', 'Beat', 1), {
      tempo: groove.bpm,
      kit: 'quay',
      once: false,
    });
    expect(beatSchema.safeParse(beat).error).toBeUndefined();
  });

  test('is played by hands: accents differ, few hits lie dead on the grid', () => {
    for (const style of families) {
      const [main] = kits.filter((groove) => groove.style === style && groove.kind === 'main');
      const hits = main!.lanes.flatMap(({ part }) => part.hits);
      expect(new Set(hits.map(({ velocity }) => velocity)).size).toBeGreaterThan(4);
      expect(hits.filter(({ nudge }) => Math.abs(nudge) > 1e-3).length).toBeGreaterThan(hits.length / 2);
    }
  });
});

test('kicks and backbeats rest near 100, accents stand above them, and nothing is at the end of the scale', () => {
  const velocities = grooves.flatMap(({ lanes }) =>
    lanes.flatMap(({ part }) => part.hits.map(({ velocity }) => velocity)),
  );
  expect(Math.max(...velocities)).toBeLessThanOrEqual(120);
  const kicks = grooves.flatMap(({ lanes }) =>
    lanes.filter(({ instrument }) => instrument === 'kick').flatMap(({ part }) => part.hits),
  );
  const loud = kicks.filter(({ velocity }) => velocity >= 96).map(({ velocity }) => velocity);
  const mean = loud.reduce((sum, velocity) => sum + velocity, 0) / loud.length;
  expect(mean).toBeGreaterThan(97);
  expect(mean).toBeLessThan(105);
  expect(velocities.filter((velocity) => velocity > 110).length).toBeGreaterThan(20);
});

test('a tumbao has its slap on 2 and its open tones on 4 and its off-beat', () => {
  const tumbao = grooves.find(({ name }) => name === 'Congas, tumbao')!;
  const loud = (instrument: string) =>
    tumbao.lanes
      .find((lane) => lane.instrument === instrument)!
      .part.hits.filter(({ velocity }) => velocity > 80)
      .map(({ step }) => step);
  expect(loud('conga.mute')).toEqual([4]);
  expect(loud('conga.open')).toEqual([12, 14]);
});

describe('a text of grooves', () => {
  const read = (text: string) => {
    const done = readGrooves(text);
    if (!done.ok) throw new Error(done.error);
    return done.value;
  };

  test('a groove takes from the one it comes from what it does not say anew', () => {
    const [main, other] = read(`
style Pier
place Pier
keeper hat.closed
hands 0
groove main
kick 9...|9...|9...|9...
hat.closed 5.5.|5.5.|5.5.|5.5.
groove other < main
drop kick
snare ....|9...|....|f...`);
    expect(main!.lanes.map(({ instrument }) => instrument)).toEqual(['kick', 'hat.closed']);
    expect(other!.lanes.map(({ instrument }) => instrument)).toEqual(['snare', 'hat.closed']);
    expect(other!.lanes[0]!.part.hits[1]!.grace).toHaveLength(1);
    expect(main!.lanes[0]!.part.hits.map(({ step, nudge }) => step + nudge)).toEqual([0, 4, 8, 12]);
  });

  test('swing, lag and triplets become where a hit lies', () => {
    const [swung] = read(
      'place P\nhands 0\ntempo 125 100-150\nswing 60 1/16\nlate snare 12\ngroove main\nsnare .9..|....|....|....',
    );
    // 60 % puts the second sixteenth at 288; 12 ms at 125 BPM are 24 ticks.
    expect(positionOf(swung!.lanes[0]!.part.hits[0]!, '1/16')).toBeCloseTo(312, 6);
    const [triplet] = read('place P\nhands 0\ngrid 1/8T\ngroove main\nride 9.9|9.9|9.9|9.9');
    expect([triplet!.bars, triplet!.feel.kind]).toEqual([1, 'triplet']);
  });

  test.each([
    ['groove main\nkick 9..', '3 steps'],
    ['groove main\nkick 9...|9...|9...|9...\nsnare 9..', 'do not go into'],
    ['groove main\nbathtub 9...', 'Line 2: there is no instrument “bathtub”.'],
    ['groove main\nkick 9..z', 'are no steps'],
    ['groove main < nothing', 'there is no groove “nothing” before it'],
    ['tempo fast', 'is to be a number'],
    ['meter 4', 'is no time signature'],
    ['groove main\ndrop kick', 'there is no “kick” to drop'],
  ])('%j is refused with a sentence', (text, why) => {
    const done = readGrooves(text);
    expect(done.ok).toBe(false);
    if (!done.ok) expect(done.error).toContain(why);
  });
});
