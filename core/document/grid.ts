import type { Ticks } from '../units';

const BASES = { '1/4': 960, '1/8': 480, '1/16': 240, '1/32': 120, '1/64': 60 } as const;
const BENDS = { '': 1, T: 2 / 3, D: 3 / 2, Q: 4 / 5 } as const;

type Base = keyof typeof BASES;
type Bend = keyof typeof BENDS;

/** The step of a lane: `1/16`, `1/16T` (triplet), `1/8D` (dotted), `1/16Q` (quintuplet). */
export type Grid = `${Base}${Bend}`;

/** All grids, from quarters to sixty-fourths, straight, triplet, dotted and quintuplet where they can be. */
export const GRIDS = (Object.keys(BASES) as Base[]).flatMap((base) =>
  (Object.keys(BENDS) as Bend[]).map((bend): Grid => `${base}${bend}`),
);

const split = (grid: Grid): [Base, Bend] => {
  const [, base, bend] = /^(1\/\d+)([TDQ]?)$/.exec(grid)!;
  return [base as Base, bend as Bend];
};

const TICKS = new Map(
  GRIDS.map((grid) => {
    const [base, bend] = split(grid);
    return [grid, BASES[base] * BENDS[bend]] as const;
  }),
);

/**
 * The length of a grid step in ticks.
 *
 * @example gridTicks('1/16')  // 240
 * @example gridTicks('1/8T')  // 320
 * @example gridTicks('1/16Q') // 192
 */
export const gridTicks = (grid: Grid): Ticks => TICKS.get(grid)!;

/**
 * Whether the grid halves the quarter note. Triplet, dotted and quintuplet lanes do not follow a swing.
 *
 * @example isStraight('1/8T') // false
 */
export const isStraight = (grid: Grid): boolean => split(grid)[1] === '';
