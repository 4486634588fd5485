import fc from 'fast-check';
import { beats } from '../arbitraries';
import { drumGroupOf } from '../document/drumGroups';
import { newBeat, newHit, withLanePattern, lanePatternOf } from '../document/defaults';
import type { Player } from '../document/playersSchema';
import { beatSchema, type Beat } from '../document/schema';
import { bandRun } from '../feel/band';
import { steadyBars } from '../feel/bars';
import { TEMPLATES } from '../feel/templates';
import { ticksPerMs } from '../units';
import { mean } from './statistics';
import { patternPerformance } from './patternPerformance';
import type { Performance } from './performance';
import { feelAsPlayed, playedFeel, surenessOf } from './playedFeel';

const RATE = ticksPerMs(120);
const GROUPS = { kick: 'kick', snare: 'snare', hat: 'hat' } as const;
const groupOf = (lane: string) => GROUPS[lane as keyof typeof GROUPS] ?? null;

/** What players would be heard to play, each on every so many sixteenths. */
const heard = (players: Player[], every: Record<string, number>, seed: number, bars: number): Performance => {
  const run = bandRun([{ from: 0, players, seed }]);
  return {
    notes: players.flatMap(({ id }) =>
      Array.from({ length: (bars * 16) / every[id]! }, (_, k) => k * every[id]!).map((j) => ({
        at: 240 * j + run.heard(id, j) * RATE,
        velocity: j % 4 ? 70 : 100,
        lane: id,
      })),
    ),
    bars: steadyBars({ beats: 4, unit: 4 }),
    meter: { beats: 4, unit: 4 },
    ticksPerMs: () => RATE,
    length: bars * 3840,
  };
};
const player = (id: string, change: Partial<Player>): Player => ({
  id,
  name: id,
  lanes: [],
  clock: 0.5,
  touch: 3,
  click: 0,
  follows: {},
  ...change,
});
const BAND = [player('kick', { click: 0.2 }), player('hat', { follows: { kick: 0.4 } })];

const written = (hits: Record<string, number[]>): Beat => {
  const beat = newBeat('b', 'Ferry', 7);
  return {
    ...beat,
    tempo: 120,
    patterns: [
      Object.entries(hits).reduce(
        (now, [lane, steps]) =>
          withLanePattern(now, lane, {
            ...lanePatternOf(now, lane),
            hits: steps.map((step) => newHit(step)),
          }),
        beat.patterns[0]!,
      ),
    ],
  };
};

test('players are found within what is said of the doubt, better where they play every sixteenth', () => {
  const doubts = [
    { kick: 1, hat: 1 },
    { kick: 1, hat: 2 },
    { kick: 4, hat: 2 },
  ].map((every) => {
    const played = playedFeel('Rain', heard(BAND, every, 5, 256), groupOf)!;
    const [kick, hat] = ['kick', 'hat'].map((group) => played.players!.find((one) => one.group === group)!);
    expect(Math.abs(kick!.click - 0.2)).toBeLessThan(Math.max(0.12, kick!.doubt));
    expect(Math.abs((hat!.follows.kick ?? 0) - 0.4)).toBeLessThan(Math.max(0.12, hat!.doubt));
    expect(Math.abs(kick!.touch / 3 - 1)).toBeLessThan(0.25);
    return hat!.doubt;
  });
  expect(doubts[2]!).toBeGreaterThan(doubts[0]!);
});

test('too little says nothing of players, and is said to be little', () => {
  const short = playedFeel('Rain', heard(BAND, { kick: 1, hat: 1 }, 5, 2), groupOf)!;
  expect(short.players).toBeNull();
  expect(surenessOf(short)).toEqual({ places: 'little', players: 'little' });
  expect(playedFeel('Rain', heard(BAND, { kick: 1, hat: 1 }, 5, 2), () => null)).toBeNull();
  const alone = playedFeel('Rain', heard([player('kick', {})], { kick: 1 }, 5, 64), groupOf)!;
  expect(alone.players).toBeNull();
});

test.each(
  TEMPLATES.filter(({ groups }) => groups)
    .map(({ name }) => name)
    .slice(0, 8),
)('a beat in “%s”, heard and taken over, puts another beat where it was, group by group', (name) => {
  const template = TEMPLATES.find((one) => one.name === name)!;
  const all = Array.from({ length: 16 }, (_, step) => step);
  const beat = written({ kick: all, snare: all, 'hat.closed': all });
  const lane = (id: string) => beat.lanes.find((one) => one.instrument === id)!.id;
  const there = written({ [lane('kick')]: all, [lane('snare')]: all, [lane('hat.closed')]: all });
  const model: Beat = {
    ...there,
    feel: { ...there.feel, base: 'template', template: { template, timing: 1, velocity: 1 } },
  };
  const performance = patternPerformance(model, model.patterns[0]!, 4);
  const group = (id: string) => drumGroupOf(model.lanes.find((one) => one.id === id)!.instrument);
  const played = playedFeel(name, performance, group)!;
  const copy: Beat = {
    ...there,
    feel: feelAsPlayed(there.feel, there.lanes, { ...played.shape, id: 't' }, played),
  };
  expect(beatSchema.safeParse(copy).error?.issues[0]).toBeUndefined();
  const places = (of: Beat) => patternPerformance(of, of.patterns[0]!, 1).notes;
  const [was, is] = [places(model), places(copy)];
  const off = was.map((note) => {
    const same = is.filter(({ lane: id }) => id === note.lane);
    return Math.min(...same.map(({ at }) => Math.abs(at - note.at))) / RATE;
  });
  expect(mean(off)).toBeLessThan(2);
});

test('whatever is played, what is taken from it is a feel that a beat may have', () => {
  fc.assert(
    fc.property(beats, (beat) => {
      const pattern = beat.patterns[0]!;
      const group = (id: string) => drumGroupOf(beat.lanes.find((one) => one.id === id)!.instrument);
      const played = playedFeel('Rain', patternPerformance(beat, pattern, 2), group);
      if (!played) return;
      const feel = feelAsPlayed(beat.feel, beat.lanes, { ...played.shape, id: 't' }, played);
      const result = beatSchema.safeParse({ ...beat, feel });
      expect(result.error?.issues[0]).toBeUndefined();
    }),
    { seed: 19, numRuns: 60 },
  );
});
