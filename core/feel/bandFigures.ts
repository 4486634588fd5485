import type { Player } from '../document/playersSchema';
import type { Ms } from '../units';
import { bandRun } from './band';

/** Measures of a band that no setting tells by itself. */
export interface BandFigures {
  /** The spread between any two, by their places: the standard deviation of how far they are apart, in ms. */
  apart: Ms[][];
  /** The mean of those of all pairs; of one alone, its own spread from one sixteenth to the next. */
  spread: Ms;
  /** How far each is from the click: the root of the mean square, in ms. */
  fromClick: Ms[];
  /** How far from the click the band is after so many sixteenths: the root of the mean square over what may come out. */
  drift: Ms;
}

/** So many takes are looked at, each for so many sixteenths: 16 bars of four quarters. */
const TAKES = 8;
export const FIGURE_SIXTEENTHS = 256;

const root = (squares: number, count: number): number => (count ? Math.sqrt(squares / count) : 0);

/**
 * Measures of players, over several takes of 16 bars.
 *
 * @example bandFigures([{ id: 'a', name: 'Kick', lanes: [], clock: 0, touch: 0, click: 1, follows: {} }], 7).drift // 0
 */
export const bandFigures = (players: readonly Player[], seed: number): BandFigures => {
  const there = KNOWN.get(players);
  if (there?.seed === seed) return there.figures;
  const figures = worked(players, seed);
  KNOWN.set(players, { seed, figures });
  return figures;
};

/** Measures of the same players are kept: they are asked for wherever those are told of. */
const KNOWN = new WeakMap<readonly Player[], { seed: number; figures: BandFigures }>();

const worked = (players: readonly Player[], seed: number): BandFigures => {
  const n = players.length;
  const sums = players.map(() => new Float64Array(n));
  const squares = players.map(() => new Float64Array(n));
  const far = new Float64Array(n);
  let [ends, steps, count] = [0, 0, 0];
  for (let take = 0; take < TAKES; take++) {
    const run = bandRun([{ from: 0, players, seed: (seed + take * 7919) >>> 0 }]);
    const before = new Float64Array(n);
    for (let j = 0; j < FIGURE_SIXTEENTHS; j++) {
      count += 1;
      const at = players.map(({ id }) => run.heard(id, j));
      for (let i = 0; i < n; i++) {
        far[i]! += at[i]! ** 2;
        if (j && !i) steps += (at[0]! - before[0]!) ** 2;
        before[i] = at[i]!;
        for (let k = 0; k < i; k++) {
          sums[i]![k]! += at[i]! - at[k]!;
          squares[i]![k]! += (at[i]! - at[k]!) ** 2;
        }
      }
    }
    ends += run.mean(FIGURE_SIXTEENTHS) ** 2;
  }
  const apart = players.map(() => new Array<Ms>(n).fill(0));
  let [all, pairs] = [0, 0];
  for (let i = 0; i < n; i++)
    for (let k = 0; k < i; k++) {
      const value = Math.sqrt(Math.max(0, squares[i]![k]! / count - (sums[i]![k]! / count) ** 2));
      apart[i]![k] = value;
      apart[k]![i] = value;
      all += value;
      pairs += 1;
    }
  return {
    apart,
    spread: pairs ? all / pairs : root(steps, count) / Math.SQRT2,
    fromClick: [...far].map((sum) => root(sum, count)),
    drift: root(ends, TAKES),
  };
};

/** How a spread between two players is heard: some 3 to 10 ms is tight to relaxed, above some 20 ms sloppy. */
export const TIGHTNESS = ['one', 'tight', 'relaxed', 'loose', 'sloppy'] as const;
export type Tightness = (typeof TIGHTNESS)[number];

/** @example tightnessOf(4) // "tight" */
export const tightnessOf = (spread: Ms): Tightness => {
  if (spread < 3) return 'one';
  if (spread < 6) return 'tight';
  if (spread < 10) return 'relaxed';
  return spread <= 20 ? 'loose' : 'sloppy';
};

/** Whom a player goes by most, the click included; null where it goes by nobody. */
export const followsMost = ({ click, follows }: Player): { id: string | null; share: number } | null => {
  const [id, share] = Object.entries(follows).reduce<[string | null, number]>(
    (most, [other, amount]) => (amount > most[1] ? [other, amount] : most),
    [null, click],
  );
  return share > 0 ? { id, share } : null;
};
