import type { Meter } from '../document/meter';
import { QUARTER, type Bpm, type Ms, type Ticks, type Velocity } from '../units';
import type { Bars } from '../feel/bars';
import { eachCluster } from '../feel/clusters';

/** One note of a performance: of a file, a pattern as it sounds, or a recording. */
export interface Performed {
  at: Ticks;
  velocity: Velocity;
  /** Which lane it belongs to: in a file, one channel and number. */
  lane: string;
}

/** Notes with what is needed to measure them. */
export interface Performance {
  notes: Performed[];
  bars: Bars;
  ticksPerMs: (position: Ticks) => number;
  /** A whole number of bars. */
  length: Ticks;
  /** The meter of the first bar. */
  meter: Meter;
}

/** The notes by lane, each in order of time. @example [...byLane(performance.notes).keys()].length // 1 */
export const byLane = (notes: Performed[]): Map<string, Performed[]> => {
  const lanes = new Map<string, Performed[]>();
  for (const note of notes) {
    const list = lanes.get(note.lane);
    if (list) list.push(note);
    else lanes.set(note.lane, [note]);
  }
  for (const list of lanes.values()) list.sort((a, b) => a.at - b.at);
  return lanes;
};

/**
 * One note for each flam, drag or ruff: the main one. All others stay.
 *
 * @example mainNotes(performance).length === performance.notes.length // true
 */
export const mainNotes = (performance: Performance): Performed[] =>
  [...byLane(performance.notes).values()].flatMap((list) => {
    const gone = new Set<number>();
    eachCluster(list, performance.ticksPerMs, (from, to, main) => {
      for (let i = from; i < to; i++) if (i !== main) gone.add(i);
    });
    return list.filter((_, at) => !gone.has(at));
  });

/** The tempo at a position. @example bpmAt(patternPerformance(beat, pattern), 0) // 120 */
export const bpmAt = ({ ticksPerMs }: Performance, position: Ticks): Bpm =>
  (ticksPerMs(position) * 60000) / QUARTER;

/** A distance in ticks at a position, in ms. @example msAt(patternPerformance(beat, pattern), 0, 192) // 100 */
export const msAt = ({ ticksPerMs }: Performance, position: Ticks, distance: Ticks): Ms =>
  distance / ticksPerMs(position);
