/** What makers and moves cost, and what whole beats are like. */
import { newBeat, newHit, EMPTY_LANE_PATTERN } from '../core/document/defaults';
import { positionOf } from '../core/document/position';
import type { Beat } from '../core/document/schema';
import { builtInGrooves } from '../core/groove/library';
import { alike, likenessOf } from '../core/groove/likeness';
import { isDrummable } from '../core/make/oneDrummer';
import { arrangements } from '../core/make/ring';
import { BEAT_DEFAULTS, beatModel, wholeBeat } from '../core/make/wholeBeat';
import { notesIn } from '../core/play/driver';
import { knownRoute } from '../core/play/moves/detours';
import { planPasses } from '../core/play/timelinePlan';
import { ticksPerMs } from '../core/units';
import { median, quantile, report } from './report';

const timed = (work: () => void): number => {
  const begun = performance.now();
  work();
  return performance.now() - begun;
};
const mean = (values: number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

const rings = (): void => {
  const first = timed(() => arrangements(16, 8));
  report('listing a ring of 16, for the first time', `${first.toFixed(1)} ms`, '20 ms', first < 20);
  const long = median([0, 1, 2].map(() => timed(() => arrangements(24, 12))));
  report('listing a ring of 24', `${long.toFixed(0)} ms`, '1000 ms', long < 1000);
};

const EACH = Number(process.env['BEATS'] ?? 1000);

/** So many whole beats of each style: playable, near to the style, each its own. */
const wholeBeats = (): void => {
  const library = builtInGrooves();
  const styles = [...new Set(library.map(({ style }) => style))].filter((style) =>
    library.some((groove) => groove.style === style && groove.kind === 'main'),
  );
  let [unplayable, same, count, under] = [0, 0, 0, 0];
  const taps: number[] = [];
  let worst = { style: '', apart: Infinity };
  for (const style of styles) {
    const grooves = library.filter((groove) => groove.style === style);
    const model = beatModel(grooves)!;
    const own = grooves.filter(({ kind }) => kind === 'main' || kind === 'variation').map(likenessOf);
    const among = own.flatMap((a, at) => own.slice(at + 1).map((b) => alike(a, b)));
    const near: number[] = [];
    const seen = new Set<string>();
    for (let seed = 1; seed <= EACH; seed++) {
      const begun = performance.now();
      const groove = wholeBeat(model, { ...BEAT_DEFAULTS, tempo: model.bpm }, seed);
      taps.push(performance.now() - begun);
      const strokes = groove.lanes.flatMap(({ instrument, part }) =>
        part.hits.map((hit) => ({
          instrument,
          velocity: hit.velocity,
          ms: positionOf(hit, part.grid) / ticksPerMs(model.bpm),
        })),
      );
      if (!isDrummable(strokes)) unplayable += 1;
      const key = groove.lanes
        .map(
          ({ instrument, part }) =>
            `${instrument}:${part.hits.map(({ step, velocity }) => `${step}.${velocity}`).join()}`,
        )
        .sort()
        .join(' ');
      if (seen.has(key)) same += 1;
      seen.add(key);
      near.push(mean(own.map((one) => alike(one, likenessOf(groove)))));
      count += 1;
    }
    if (!among.length) continue;
    const apart = mean(near) - mean(among);
    if (apart < 0) under += 1;
    if (apart < worst.apart) worst = { style, apart };
  }
  report(`whole beats that one drummer cannot play, of ${count}`, String(unplayable), '0', unplayable === 0);
  report('whole beats that are the same as another of their style', String(same), '0', same === 0);
  report(
    `likeness to the style, less that of its own grooves to one another; the furthest of ${styles.length} styles (${worst.style}), ${under} below 0`,
    worst.apart.toFixed(3),
    '0 or more',
    worst.apart >= 0,
  );
  const slow = quantile(taps, 0.95);
  report('a whole beat, 95 % of taps', `${slow.toFixed(2)} ms`, '50 ms', slow < 50);
};

const NOTES = 100_000;

/** Sixteenths on four lanes, with every move or none. */
const moved = (on: boolean): Beat => {
  const beat = { ...newBeat('b', 'Rain', 1), tempo: 120 };
  const [pattern] = beat.patterns;
  const steps = Array.from({ length: 16 }, (_, step) => newHit(step, 90));
  const part = { ...EMPTY_LANE_PATTERN, hits: steps };
  const lanes = ['kick', 'snare', 'clap', 'hat.closed'];
  const parts = Object.fromEntries(lanes.map((id) => [id, part]));
  if (!on) return { ...beat, patterns: [{ ...pattern!, parts }] };
  return {
    ...beat,
    feel: {
      ...beat.feel,
      stagger: { lanes: null, by: { count: 4, each: 3 }, unit: 'ms', random: 2, randomFirst: false },
    },
    patterns: [
      {
        ...pattern!,
        detour: { over: 'bar', route: knownRoute('odds then evens', 8), chance: 0.7, lanes: null },
        parts: {
          ...parts,
          kick: {
            ...part,
            echoes: { count: 3, rate: { grid: '1/16T' }, slope: 0.8, interval: 0, withoutHit: false },
          },
          snare: {
            ...part,
            sparks: [
              { to: 'ride', of: 'first', gap: '1/8', chance: 0.8, factor: 0.8, delay: { ms: 20 }, pitch: 0 },
            ],
          },
        },
      },
    ],
  };
};

const perNote = (beat: Beat): number => {
  const pattern = beat.patterns[0]!;
  const one = notesIn(planPasses(beat, pattern, 8), 0, 8 * 3840).length / 8;
  const passes = Math.ceil(NOTES / one);
  return median(
    [0, 1, 2, 3, 4, 5, 6].map(() => {
      let count = 0;
      const ms = timed(() => (count = notesIn(planPasses(beat, pattern, passes), 0, passes * 3840).length));
      return (ms * 1000) / count;
    }),
  );
};

const moves = (): void => {
  const [off, on] = [perNote(moved(false)), perNote(moved(true))];
  report(
    'a note with every move on against none, of 100,000',
    `${(on / off).toFixed(2)} (${off.toFixed(2)} and ${on.toFixed(2)} µs)`,
    '1.5',
    on / off <= 1.5,
  );
};

// First of all: what the rings leave behind would be tidied up at its expense.
moves();
rings();
if (EACH) wholeBeats();
