import type { DrumGroup, Stage } from '../document/choices';
import type { LaneFeel, PlainFeel } from '../document/feelSchema';
import type { Grid } from '../document/grid';
import type { Ms, Ticks } from '../units';
import type { Bars } from './bars';
import type { PlacedBand, PlayedBy } from './bandAt';
import type { FeltStroke } from './struck';

/** 1/f noise by seed and lane; of a loop of so many sixteenths, or without end. */
export type Pinks = (seed: number, lane: number, loop: number | null) => (j: number) => number;

/** The lane that a feel is made ready for: one lane of a pattern, or one of a file. */
export interface FeltLane {
  id: string;
  /** The lane's id as a number, for what is drawn at random. */
  key: number;
  grid: Grid;
  /** The group of drums that it is of, for templates with curves of their own; null where that is not known. */
  group: DrumGroup | null;
  /** The version of what is drawn at random. */
  random: 1 | 2;
  bars: Bars;
  ticksPerMs: (position: Ticks) => number;
  /** The mean velocity of its hits. */
  mean: number;
  /** Makes 1/f noise, or gives that which another lane has. */
  pinks: Pinks;
  /** The length of a pass. */
  pass: Ticks;
  /** The most that `ticksPerMs` gives; left out, it is the same everywhere. */
  most?: number;
  /** The players of a feel, where its timing comes from players. */
  band?: (feel: PlainFeel) => PlacedBand | null;
  /** By how much the weaker hand holds a stroke back, in ms, and softens it, of an amount of 1; null where the stronger plays it. */
  weaker?: ((stroke: FeltStroke, leftHanded: boolean) => { late: Ms; share: number } | null) | null;
  /** By how many ms strokes lean at a position, beside what the feel says: before a section, in a fill. */
  leanAt?: ((feel: PlainFeel) => ((position: Ticks) => Ms) | null) | null;
  mostLean?: Ms;
  /** The song's change of the feel at a position: the swing of all lanes, and by what velocities are multiplied. */
  swingAt?: ((position: Ticks) => number) | null;
  levelAt?: ((position: Ticks) => number) | null;
}

/** The facts about a lane that humanize needs. */
export interface Humanizing {
  /** Standard deviations, scaled for the lane: in ms, and in steps of velocity. */
  timing: Ms;
  velocity: number;
  /** The share of the timing that hangs together, 0 to 1, and how much of that is the kit's: the rest is the lane's own. */
  drift: number;
  shares: number;
  own: ((j: number) => number) | null;
  /** How much looser soft strokes are than hard ones, 0 to 1. */
  soft: number;
  /** How much the weaker hand is later and softer, 0 to 1. */
  hands: number;
  weaker: ((stroke: FeltStroke) => { late: Ms; share: number } | null) | null;
  /** Who plays it, where the timing comes from players. */
  player: PlayedBy | null;
  /** Seed and lane, folded together. */
  key: number;
  pink: (j: number) => number;
  /** After this long it repeats itself; Infinity where each pass is drawn anew. */
  every: Ticks;
}

/** A stage made ready for one lane. What is left out it does not do. */
export interface ReadyStage {
  /** From a position that comes to the stage to where it leaves it. */
  moves?: (position: Ticks) => Ticks;
  /**
   * From how hard a stroke comes to the stage to how hard it leaves it.
   *
   * @param position where its main stroke stands as it comes to the stage: the strokes of one hit take the same factor
   */
  strength?: (force: number, position: Ticks) => number;
  /** It holds each stroke back by what was said of it before. */
  delays?: true;
  /** By how much it moves every stroke. */
  offset?: Ms;
  /** Draws at random once all strokes of the lane stand. */
  humanizing?: Humanizing;
  /** The farthest that it can move a stroke: the sum of both. */
  reach?: Ticks;
  reachMs?: Ms;
}

/** One stage of feel. A new one is a file with one of these, an entry in `stages/index.ts`, and its settings in the schema. */
export interface FeelStage {
  id: Stage;
  /** @param own what the lane has of its own @returns null where there is nothing to do */
  prepare: (feel: PlainFeel, own: LaneFeel, lane: FeltLane) => ReadyStage | null;
}
