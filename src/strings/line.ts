/** A point that a finger was at. */
export interface LinePoint {
  x: number;
  y: number;
}

/** A step that a line passes: how high the finger was where it came nearest to its bead, and how near that was, in points. */
export interface Passed {
  step: number;
  y: number;
  away: number;
}

/** A finger that stands still over a bead trembles by no more. */
const TREMBLE = 1;

/**
 * The steps that a finger passes from one point to the next, each where it comes nearest to the middle of the step's bead.
 *
 * @param steps with the middles of their beads, in the order in which they are passed
 * @param before what was passed last: of that step only what is no farther from its bead counts
 * @example passed([{ step: 0, x: 10 }], { x: 0, y: 0 }, { x: 20, y: 40 }, null) // [{ step: 0, y: 20, away: 0 }]
 */
export const passed = (
  steps: readonly { step: number; x: number }[],
  from: LinePoint,
  to: LinePoint,
  before: Passed | null,
): Passed[] =>
  steps.flatMap(({ step, x }) => {
    const near = Math.min(Math.max(x, Math.min(from.x, to.x)), Math.max(from.x, to.x));
    const away = Math.abs(near - x);
    if (before?.step === step && away > before.away + TREMBLE) return [];
    const share = to.x === from.x ? 1 : (near - from.x) / (to.x - from.x);
    return [{ step, y: from.y + share * (to.y - from.y), away }];
  });
