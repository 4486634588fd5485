import type { Ticks } from '../units';

/** Notes of one lane nearer than this to the one before belong together, in ms. */
export const FLAM_MS = 35;
/** A longer run is a roll, each note by itself. */
const MOST = 4;

interface Placed {
  at: Ticks;
  velocity: number;
}

/** The loudest, the last one where several are equally loud. */
const mainOf = (run: Placed[], from: number, to: number): number => {
  let main = from;
  for (let i = from; i < to; i++) if (run[i]!.velocity >= run[main]!.velocity) main = i;
  return main;
};

/**
 * Finds flams, drags and ruffs: runs of two to four notes, each within 35 ms of the one before.
 *
 * @param notes of one lane, in order of position
 * @param ticksPerMs at a position
 * @param give gets the places of each cluster: its first, one past its last, and its main note
 */
export const eachCluster = (
  notes: Placed[],
  ticksPerMs: (position: Ticks) => number,
  give: (from: number, to: number, main: number) => void,
): void => {
  let from = 0;
  for (let i = 1; i <= notes.length; i++) {
    const goesOn =
      i < notes.length && notes[i]!.at - notes[i - 1]!.at <= FLAM_MS * ticksPerMs(notes[i - 1]!.at) + 1e-9;
    if (goesOn) continue;
    if (i - from >= 2 && i - from <= MOST) give(from, i, mainOf(notes, from, i));
    from = i;
  }
};
