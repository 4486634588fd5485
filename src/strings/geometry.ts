import type { Ticks, Velocity } from '../../core/units';

/** Where things stand on the strings, in points. The style sheet keeps to the same figures. */
export const LANE_HEIGHT = 48;
export const OPEN_HEIGHT = 136;
/** Points of height for one step of velocity in the open string. */
export const VELOCITY_POINTS = 0.86;
const OPEN_TOP = 14;

/** The first rule stands half a sixteenth from the strings' beginning. */
export const INSET: Ticks = 120;
/** What a page shows beyond its ticks. */
export const AROUND: Ticks = 40;

/** Where a bead's middle stands below the top of its string. @example beadTop(127, true) // 14 */
export const beadTop = (velocity: Velocity, open: boolean): number =>
  open ? OPEN_TOP + (127 - velocity) * VELOCITY_POINTS : LANE_HEIGHT / 2;

/** The diameter of a bead: its velocity. @example beadSize(127) // 22.002 */
export const beadSize = (velocity: Velocity): number => 6 + velocity * 0.126;

/** The width of the column of names. */
export const namesWidth = (mixing: boolean): number => (mixing ? 182 : 92);
