import type { MidiNote, Ticks, Velocity } from '../../core/units';

/** Where things stand on the strings, in points. The style sheet keeps to the same figures. */
export const LANE_HEIGHT = 48;
/** Where there is room, a lane grows up to this. */
export const TALLEST = 64;
export const OPEN_HEIGHT = 136;
/** Points of height for one step of velocity in the open string. */
export const VELOCITY_POINTS = 0.86;
const OPEN_TOP = 14;

/** The first rule stands half a sixteenth from the strings' beginning. */
export const INSET: Ticks = 120;
/** What a page shows beyond its ticks. */
export const AROUND: Ticks = 40;

/**
 * The height of a closed lane, so that all of them fill what they have.
 *
 * @param room what is left for the lanes, in points
 * @param lanes how many there are
 * @returns from 48 to 64 points
 * @example tallOf(560, 10) // 56
 */
export const tallOf = (room: number, lanes: number): number =>
  Math.max(LANE_HEIGHT, Math.min(TALLEST, Math.floor(room / Math.max(1, lanes))));

/** How high a lane is painted, in points. @example heightOf({ open: false, tall: 56 }) // 56 */
export const heightOf = ({ open, tall }: { open: boolean; tall: number }): number =>
  open ? OPEN_HEIGHT : tall;

/** Where a bead's middle stands below the top of its string. @example beadTop(127, true) // 14 */
export const beadTop = (velocity: Velocity, open: boolean, tall = LANE_HEIGHT): number =>
  open ? OPEN_TOP + (127 - velocity) * VELOCITY_POINTS : tall / 2;

/** The velocity that stands so far below the top of an open string; it may lie beyond 1 to 127. @example velocityAt(14) // 127 */
export const velocityAtHeight = (top: number): number => 127 - (top - OPEN_TOP) / VELOCITY_POINTS;

/** The lowest and the highest note that an open string shows. */
export interface NoteSpan {
  low: MidiNote;
  high: MidiNote;
}

/**
 * How high a note stands in an open string whose height is pitch, as the velocity that would stand there: 0 for the lowest, 127
 * for the highest.
 *
 * @example noteHeight(60, { low: 48, high: 72 }) // 63.5
 */
export const noteHeight = (note: MidiNote, { low, high }: NoteSpan): number =>
  high === low ? 63.5 : Math.max(-6, Math.min(133, (127 * (note - low)) / (high - low)));

/** The diameter of a bead: its velocity. @example beadSize(127) // 22.002 */
export const beadSize = (velocity: Velocity): number => 6 + velocity * 0.126;

/** The width of the column of names. */
export const namesWidth = (mixing: boolean): number => (mixing ? 182 : 92);
