import fc from 'fast-check';
import { bands } from '../arbitraries';
import type { Player } from '../document/playersSchema';
import { newBeat, newHit } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import type { Beat } from '../document/schema';
import { allNotes, notesIn } from '../play/driver';
import { planLive, planPasses, planSong } from '../play/timelinePlan';
import { secondsAt } from '../play/tempoMap';
import { plainSection } from '../play/section.mock';
import { bandRun, between, circularRun } from './band';

const player = (id: string, change: Partial<Player> = {}): Player => ({
  id,
  name: id,
  lanes: [],
  clock: 0,
  touch: 0,
  click: 0,
  follows: {},
  ...change,
});
const run = (players: Player[], seed = 7) => bandRun([{ from: 0, players, seed }]);

const LONG = 8192;
const series = (count: number, of: (j: number) => number): number[] =>
  Array.from({ length: count }, (_, j) => of(j));
const mean = (all: number[]) => all.reduce((sum, x) => sum + x, 0) / all.length;
const deviation = (all: number[]) => Math.sqrt(mean(all.map((x) => (x - mean(all)) ** 2)));
const nextTo = (all: number[]): number => {
  const m = mean(all);
  let [top, bottom] = [0, 0];
  all.forEach((x, j) => {
    bottom += (x - m) ** 2;
    if (j) top += (x - m) * (all[j - 1]! - m);
  });
  return top / bottom;
};

describe('the closed figures, over 8,192 sixteenths', () => {
  test.each([0.1, 0.25, 0.5])('each of two follows the other by %f', (w) => {
    for (const seed of [7, 8, 9]) {
      const two = run(
        [player('a', { touch: 1, follows: { b: w } }), player('b', { touch: 1, follows: { a: w } })],
        seed,
      );
      const apart = series(LONG, (j) => two.heard('a', j) - two.heard('b', j));
      expect(deviation(apart) / Math.sqrt(2 / (1 - w))).toBeCloseTo(1, 1);
      expect(Math.abs(deviation(apart) / Math.sqrt(2 / (1 - w)) - 1)).toBeLessThan(0.06);
      expect(Math.abs(nextTo(apart) + w)).toBeLessThan(0.05);
    }
  });

  test('one leads, one follows', () => {
    for (const w of [0.25, 0.5]) {
      const two = run([player('a', { touch: 1 }), player('b', { touch: 1, follows: { a: w } })]);
      const apart = series(LONG, (j) => two.heard('a', j) - two.heard('b', j));
      const wanted = Math.sqrt(2 + (2 * w * w) / (1 - (1 - w) ** 2));
      expect(Math.abs(deviation(apart) / wanted - 1)).toBeLessThan(0.06);
      // The leader goes nowhere but for its touch.
      expect(Math.abs(deviation(series(LONG, (j) => two.heard('a', j))) - 1)).toBeLessThan(0.06);
    }
  });

  test('one alone goes by the click', () => {
    for (const p of [0.3, 0.6]) {
      const one = run([player('a', { touch: 1, click: p })]);
      const wanted = Math.sqrt(1 + (p * p) / (1 - (1 - p) ** 2));
      expect(Math.abs(deviation(series(LONG, (j) => one.heard('a', j))) / wanted - 1)).toBeLessThan(0.06);
    }
  });

  test('by the clock alone, the spectrum of the intervals falls as 1/f over two decades', () => {
    const wave = series(LONG, (j) => Math.cos((2 * Math.PI * j) / LONG));
    const slopes = [1, 2, 3, 4].map((seed) => {
      const one = run([player('a', { clock: 1 })], seed);
      const intervals = series(LONG, (j) => one.heard('a', j + 1) - one.heard('a', j));
      const points: [number, number][] = [];
      // Power in bands of half an octave, from 1/512 up to 1/4 of a cycle a sixteenth.
      for (let low = 1 / 512; low < 0.25; low *= Math.SQRT2) {
        let [power, count] = [0, 0];
        for (
          let k = Math.ceil(low * LONG);
          k < low * Math.SQRT2 * LONG;
          k += Math.max(1, Math.floor(low * 40))
        ) {
          let [re, im] = [0, 0];
          intervals.forEach((x, j) => {
            re += x * wave[(k * j) % LONG]!;
            im += x * wave[(k * j + LONG / 4) % LONG]!;
          });
          power += re * re + im * im;
          count += 1;
        }
        if (count) points.push([Math.log(low * 2 ** 0.25), Math.log(power / count)]);
      }
      const [mx, my] = [mean(points.map(([x]) => x)), mean(points.map(([, y]) => y))];
      return (
        points.reduce((sum, [x, y]) => sum + (x - mx) * (y - my), 0) /
        points.reduce((sum, [x]) => sum + (x - mx) ** 2, 0)
      );
    });
    expect(Math.abs(mean(slopes) + 1)).toBeLessThan(0.2);
  });
});

describe('a run', () => {
  test('is the same however it is asked for, and of the seed alone', () => {
    fc.assert(
      fc.property(
        bands,
        fc.nat(),
        fc.array(fc.nat(2000), { minLength: 1, maxLength: 20 }),
        (band, seed, asked) => {
          const [one, other] = [run(band.players, seed), run(band.players, seed)];
          other.heard(band.players[0]!.id, 2500);
          for (const j of asked)
            for (const { id } of band.players) {
              expect(one.heard(id, j)).toBe(other.heard(id, j));
              expect(Math.abs(one.heard(id, j))).toBeLessThanOrEqual(one.most(j) + 1e-9);
              expect(Math.abs(one.heard(id, j) - one.mean(j))).toBeLessThanOrEqual(one.mostApart(j) + 1e-9);
            }
        },
      ),
      { numRuns: 40 },
    );
  });

  test('players who do not follow one another change nothing for one another', () => {
    const [a, b] = [player('a', { touch: 3, clock: 1, click: 0.1 }), player('b', { touch: 5, clock: 2 })];
    const [alone, both] = [run([a]), run([a, b])];
    expect(series(300, (j) => both.heard('a', j))).toEqual(series(300, (j) => alone.heard('a', j)));
  });

  test('a band that changes goes on from where it is; one that pauses begins anew', () => {
    const tight = [player('a', { clock: 1 })];
    const loose = [player('a', { clock: 0, touch: 0 })];
    const changed = bandRun([
      { from: 0, players: tight, seed: 7 },
      { from: 100, players: loose, seed: 7 },
      { from: 200, players: null, seed: 0 },
      { from: 300, players: loose, seed: 7 },
    ]);
    expect(changed.heard('a', 99)).toBe(run(tight).heard('a', 99));
    expect(changed.heard('a', 100)).not.toBe(0);
    expect(changed.heard('a', 199)).toBe(changed.heard('a', 100));
    expect(changed.heard('a', 300)).toBe(0);
  });

  test('that comes round is the same on every pass', () => {
    const round = circularRun(run([player('a', { touch: 2, clock: 1 })]), 16);
    expect(round.heard('a', 35)).toBe(round.heard('a', 3));
    expect(round.heard('a', -1)).toBe(round.heard('a', 15));
    expect(between((j) => j * j, 2.5)).toBe(6.5);
  });
});

/** Hats on every sixteenth and kicks on every quarter, played by two. */
const beatOf = (change: Partial<Beat['feel']['humanize']['band'] & object> = {}, anew = true): Beat => {
  const beat = newBeat('b', 'Quay', 3);
  const [pattern] = beat.patterns;
  const hits = (every: number) => ({
    grid: '1/16' as const,
    steps: null,
    rate: '1' as const,
    direction: 'forward' as const,
    hits: Array.from({ length: 16 / every }, (_, at) => newHit(at * every)),
  });
  const hats = beat.lanes.find(({ instrument }) => instrument === 'hat.closed')!;
  const feel = newFeel();
  return {
    ...beat,
    tempo: 120,
    feel: {
      ...feel,
      humanize: {
        ...feel.humanize,
        anew,
        seed: 11,
        band: {
          on: true,
          tempo: false,
          players: [
            player('drums', { lanes: ['kick'], touch: 3, clock: 1 }),
            player('shaker', { lanes: [hats.id], touch: 5, clock: 1, follows: { drums: 0.3 } }),
          ],
          ...change,
        },
      },
    },
    patterns: [{ ...pattern!, parts: { kick: hits(4), [hats.id]: hits(1) } }],
  };
};
const passesOf = (beat: Beat, passes: number) => planPasses(beat, beat.patterns[0]!, passes);

describe('in a beat', () => {
  test('a stroke is where its player is, between two sixteenths too; a lane that nobody is given plays with the first', () => {
    const beat = beatOf();
    const { players } = beat.feel.humanize.band!;
    const band = run(players, 11);
    const notes = allNotes(passesOf(beat, 8), 'hold').filter(({ moved }) => !moved);
    for (const { tick, gridTick, lane } of notes) {
      const who = beat.lanes[lane]!.id === 'kick' ? 'drums' : 'shaker';
      expect(tick - gridTick).toBeCloseTo(band.heard(who, gridTick / 240) * 1.92, 6);
    }
    const less = { ...beat.feel.humanize.band!, players: [{ ...players[0]!, lanes: [] }, players[1]!] };
    const without = { ...beat, feel: { ...beat.feel, humanize: { ...beat.feel.humanize, band: less } } };
    expect(allNotes(passesOf(without, 8), 'hold')).toEqual(allNotes(passesOf(beat, 8), 'hold'));
  });

  test('another lane changes nothing but through who follows it', () => {
    const beat = beatOf();
    const [pattern] = beat.patterns;
    const { kick, ...others } = pattern!.parts;
    const bare = { ...beat, patterns: [{ ...pattern!, parts: others }] };
    const hats = (one: Beat) =>
      allNotes(passesOf(one, 4), 'hold')
        .filter(({ lane }) => beat.lanes[lane]!.id !== 'kick')
        .map(({ tick }) => tick);
    expect(kick).toBeDefined();
    expect(hats(bare)).toEqual(hats(beat));
  });

  test('the same for every pass, or running on; a window equals the whole', () => {
    const round = beatOf({}, false);
    const notes = allNotes(passesOf(round, 2), 'hold').filter(({ moved }) => !moved);
    const late = new Map<string, number>();
    let compared = 0;
    for (const { tick, gridTick, lane } of notes) {
      const place = `${lane} ${gridTick % 3840}`;
      const before = late.get(place);
      if (before !== undefined) {
        expect(tick - gridTick).toBeCloseTo(before, 6);
        compared += 1;
      }
      late.set(place, tick - gridTick);
    }
    expect(compared).toBeGreaterThan(15);
    const live = planLive(beatOf(), beatOf().patterns[0]!);
    const whole = notesIn(live, 0, 40 * 3840);
    const pieces = Array.from({ length: 40 }, (_, at) => notesIn(live, at * 3840, (at + 1) * 3840)).flat();
    expect(pieces).toEqual(whole);
    // Far from the click a window still finds its strokes: alone they have drifted by more than a beat.
    const last = whole.at(-1)!;
    expect(Math.abs(last.tick - last.gridTick)).toBeGreaterThan(10);
  });

  test('however loose the hands, strokes keep their order, and come no nearer than a tenth of their distance', () => {
    const wild = beatOf({
      players: [player('drums', { touch: 40, clock: 10 })],
    });
    const notes = notesIn(planLive(wild, wild.patterns[0]!), 0, 64 * 3840).filter(
      ({ lane, moved }) => wild.lanes[lane]!.id !== 'kick' && !moved,
    );
    const steps = notes.map(({ gridTick }) => gridTick);
    expect(steps).toEqual([...steps].sort((a, b) => a - b));
    notes.forEach((note, at) => {
      const before = notes[at - 1];
      if (before && note.gridTick - before.gridTick === 240)
        expect(note.tick - before.tick).toBeGreaterThanOrEqual(24 - 1e-6);
    });
  });

  test('a tempo that follows them lets all sound when it did; only what it is counted by moves', () => {
    for (const anew of [true, false]) {
      const [still, led] = [beatOf({ tempo: false }, anew), beatOf({ tempo: true }, anew)];
      const [a, b] = [passesOf(still, 16), passesOf(led, 16)];
      const seconds = (plan: typeof a) =>
        new Map(
          allNotes(plan, 'hold')
            .filter(({ moved }) => !moved)
            .map(({ tick, lane, gridTick }) => [
              `${lane} ${gridTick}`,
              secondsAt(plan.timeline.tempos, tick),
            ]),
        );
      const [first, second] = [seconds(a), seconds(b)];
      const both = [...second].filter(([place]) => first.has(place));
      expect(both.length).toBeGreaterThan(300);
      for (const [place, time] of both) expect(Math.abs(time - first.get(place)!)).toBeLessThan(1e-6);
      expect(b.timeline.tempos.micros.length).toBeGreaterThan(50);
      const far = (plan: typeof a) =>
        allNotes(plan, 'hold').reduce(
          (most, { tick, gridTick }) => Math.max(most, Math.abs(tick - gridTick)),
          0,
        );
      if (anew) expect(far(b)).toBeLessThan(far(a));
    }
  });

  test('a section may have players of its own; the band goes on from where it is', () => {
    const beat = beatOf();
    const tight = {
      ...beat.feel,
      humanize: {
        ...beat.feel.humanize,
        band: { ...beat.feel.humanize.band!, players: [player('drums'), player('shaker')] },
      },
    };
    const song: Beat = {
      ...beat,
      song: {
        sections: [plainSection('verse'), plainSection('chorus', { feel: tight })],
        order: [
          { id: '1', sectionId: 'verse', times: 4 },
          { id: '2', sectionId: 'chorus', times: 2 },
        ],
      },
    };
    const plan = planSong(song);
    const notes = allNotes(plan, 'hold');
    const chorus = notes.filter(({ gridTick }) => gridTick >= 4 * 3840);
    const late = chorus.map(({ tick, gridTick }) => tick - gridTick);
    // Without errors of their own they stay as late as the verse left them.
    expect(new Set(late.map((x) => x.toFixed(6))).size).toBeLessThanOrEqual(2);
    expect(Math.abs(late[0]!)).toBeGreaterThan(0.01);
    const pieces = Array.from({ length: 12 }, (_, at) => notesIn(plan, at * 1920, (at + 1) * 1920)).flat();
    const whole = notesIn(plan, 0, 12 * 1920);
    expect(pieces).toEqual(whole);
  });
});
