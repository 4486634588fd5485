import type { Ms, Ticks } from '../units';

/** As far ahead of its beat as a player leans on purpose, and no farther. */
export const LEAN: Ms = 20;

/** How near to one another strokes are part of one figure: a roll or a run towards the line, and no early first beat. */
const FIGURE: Ms = 90;

/** The place of the stroke that is early for a line; null where there is none. @param after the first stroke at the line or later */
const earlyAt = (
  positions: readonly Ticks[],
  line: Ticks,
  ticksPerMs: number,
  after: number,
): number | null => {
  const near = FIGURE * ticksPerMs;
  // The last stroke before the line, if nothing else of its lane stands close to it or to the line.
  const at = after - 1;
  const [before, own, next] = [positions[at - 1], positions[at], positions[after]];
  if (own === undefined || line - own > LEAN * ticksPerMs + 1e-6) return null;
  if (before !== undefined && line - before <= near) return null;
  if (next !== undefined && next - line <= near) return null;
  return at;
};

/**
 * Which strokes of one lane just before a bar line are early first beats of the bar that begins there: within 20 ms of it, and
 * alone near the line. A stroke with others close before it ends a figure, and one that is followed by the beat itself is
 * something before it.
 *
 * @param positions of all strokes of the lane, in order of time
 * @param lines the bar lines, in order
 * @param ticksPerMs at the tempo in force at a position
 * @returns the places of those strokes in the list
 * @example [...earlyAtLines([3820], [3840], () => 1.92)] // [0]
 * @example [...earlyAtLines([3720, 3810], [3840], () => 1.92)] // []
 */
export const earlyAtLines = (
  positions: readonly Ticks[],
  lines: readonly Ticks[],
  ticksPerMs: (at: Ticks) => number,
): Set<number> => {
  const out = new Set<number>();
  let after = 0;
  for (const line of lines) {
    while (after < positions.length && positions[after]! < line - 1e-6) after += 1;
    const early = earlyAt(positions, line, ticksPerMs(line - 1e-3), after);
    if (early !== null) out.add(early);
  }
  return out;
};
