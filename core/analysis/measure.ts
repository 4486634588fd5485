import type { unplayable } from '../hands/sticking';
import { correlation, deviation, mean, median } from './statistics';
import { gridTicks, type Grid } from '../document/grid';
import { SWING } from '../document/choices';
import type { Swing } from '../document/feelSchema';
import { clamp, ticksPerMs, type Bpm, type Ms, type Ticks, type Velocity } from '../units';
import { barStart } from '../feel/bars';
import { bpmAt, byLane, mainNotes, msAt, type Performance, type Performed } from './performance';
import { swingBend } from '../feel/swing';
import { findGrid } from './extractTemplate';

/** How much a performance is swung, and how sure that is. */
export interface MeasuredSwing extends Swing {
  /** The true value lies within so many percent points, nineteen times of twenty. */
  within: number;
  /** How many notes on the second of a pair it was measured by. */
  notes: number;
  /** It cannot be told from 50: the notes are not swung. */
  straight: boolean;
}

/** How much of their timing lanes share: the correlation of their offsets, where they play together. */
export interface SharedTiming {
  correlation: number;
  /** The true value lies between these, nineteen times of twenty. */
  least: number;
  most: number;
}

/** What two performances are to have in common to be compared. */
export interface Terms {
  grid: Grid;
  /** The tempo at which distances are told in ms. */
  bpm: Bpm;
}

export interface LaneReport {
  lane: string;
  notes: number;
  /** From the straight grid: negative is ahead of it. */
  mean: Ms;
  spread: Ms;
  /** The same from where the swing puts the grid. */
  meanSwung: Ms;
  spreadSwung: Ms;
  velocity: Velocity;
  velocitySpread: number;
}

/** What can be said about how a performance is played. */
export interface FeelReport {
  /** What of its drums is beyond one drummer, and of how many strokes; left out where nobody looked. */
  hands?: ReturnType<typeof unplayable> & { strokes: number };
  /** How its players go by one another, in words. */
  players?: string[];
  notes: number;
  bars: number;
  /** What notes are measured against: never a coarser grid than sixteenths or eighth triplets. */
  grid: Grid;
  /** The tempo at its start. */
  bpm: Bpm;
  swing: MeasuredSwing | null;
  lanes: LaneReport[];
  /** Of all notes, from where the swing puts the grid. */
  mean: Ms;
  spread: Ms;
  /** How much of the timing the lanes share, null where none play together often enough. */
  together: SharedTiming | null;
  velocity: Velocity;
  velocitySpread: number;
  /** The mean velocity on each step of the bar, null where nothing is played; and the strongest against the mean. */
  accents: (Velocity | null)[];
  accent: number;
}

/** At the least so many notes on the second of a pair. */
const LEAST = 4;
/** How far from the start of a pair, in pairs, a note is looked for to tell where a lane stands. */
const SHIFT_WINDOW = 0.15;
const ON = 0.1;
const OFF = { least: 0.38, most: 0.8 };
const BETWEEN = { least: 0.12, most: 0.38 };
/** No lane is trusted further than this, in pairs: machines and files round too. */
const LEAST_ERROR = 0.002;
/** Within so many percent points of 50 a swing is none. */
const STRAIGHT = 1;

/** The places of notes in their pairs, from -0.5 to 0.5 of a pair. */
const phases = (notes: Performed[], performance: Performance, g: Ticks): number[] =>
  notes.map(({ at }) => {
    const inside = at - barStart(performance.bars.at(at), at);
    const phase = (inside % (2 * g)) / (2 * g);
    return phase >= 0.5 ? phase - 1 : phase;
  });

/** The variance of the mean of some values. */
const errorOf = (values: number[]): number => {
  const n = values.length;
  return n > 1 ? (deviation(values) ** 2 * n) / (n - 1) / n : 0;
};

interface LaneSwing {
  /** The distance from the first of a pair to the second, in pairs, and how uncertain that is. */
  distance: number;
  variance: number;
}

/** What one lane says of a swing: it is measured against where the lane itself stands, ahead or behind. */
const laneSwing = (list: number[]): { off: number; between: number; swing: LaneSwing | null } => {
  const near = list.filter((x) => Math.abs(x) <= SHIFT_WINDOW);
  const shift = near.length ? median(near) : 0;
  // Against the lane's own start of the pair, from -0.2 on: what stands at 0.8 of a pair is before the next one.
  const against = list.map((x) => (x - shift < -0.2 ? x - shift + 1 : x - shift));
  const on = against.filter((x) => Math.abs(x) <= ON);
  const off = against.filter((x) => x >= OFF.least && x <= OFF.most);
  const between = against.filter((x) => x > BETWEEN.least && x < BETWEEN.most).length;
  const enough = on.length >= 2 && off.length >= 2;
  return {
    off: off.length,
    between,
    swing: enough
      ? {
          distance: mean(off) - mean(on),
          variance: Math.max(LEAST_ERROR ** 2, errorOf(on) + errorOf(off)),
        }
      : null,
  };
};

/** Lanes together, each by how certain it is; where they disagree more than that lets expect, all are less certain. */
const combined = (lanes: LaneSwing[]): LaneSwing => {
  const weight = lanes.reduce((sum, { variance }) => sum + 1 / variance, 0);
  const distance = lanes.reduce((sum, one) => sum + one.distance / one.variance, 0) / weight;
  const chi = lanes.reduce((sum, one) => sum + (one.distance - distance) ** 2 / one.variance, 0);
  const grown = lanes.length > 1 ? Math.max(1, chi / (lanes.length - 1)) : 1;
  return { distance, variance: grown / weight };
};

/**
 * The swing of a performance: for sixteenths, then eighths, lane by lane, the mean place of the second of a pair less that of
 * the first, in percent of the pair, with twice its standard error; null where there are too few of them or too much stands
 * between.
 *
 * @example measureSwing(patternPerformance(beat, pattern)) // null
 */
export const measureSwing = (performance: Performance): MeasuredSwing | null => {
  const notes = [...byLane(mainNotes(performance)).values()];
  for (const grid of ['1/16', '1/8'] as const) {
    const lanes = notes.map((lane) => laneSwing(phases(lane, performance, gridTicks(grid))));
    const off = lanes.reduce((sum, lane) => sum + lane.off, 0);
    const between = lanes.reduce((sum, lane) => sum + lane.between, 0);
    const told = lanes.flatMap(({ swing }) => swing ?? []);
    if (off < LEAST || between * 4 >= off || !told.length) continue;
    const { distance, variance } = combined(told);
    const percent = 100 * distance;
    const within = 200 * Math.sqrt(variance);
    const straight = Math.abs(percent - 50) <= Math.max(STRAIGHT, within);
    return { grid, percent, within, notes: off, straight };
  }
  return null;
};

const nearest = (at: Ticks, g: Ticks): Ticks => Math.floor(at / g + 0.5) * g;

/** The distance from where the swing puts the nearest grid point, whichever is nearest then. */
const fromSwung = (bend: (position: Ticks) => Ticks, at: Ticks, g: Ticks): Ticks => {
  const k = Math.floor(at / g);
  const distances = [k - 1, k, k + 1].map((point) => at - bend(point * g));
  return distances.reduce((best, one) => (Math.abs(one) < Math.abs(best) ? one : best));
};

interface Placed extends Performed {
  slot: number;
  straight: Ms;
  swung: Ms;
}

const placed = (performance: Performance, grid: Grid, swing: MeasuredSwing | null): Placed[] => {
  const g = gridTicks(grid);
  const percent = swing && !swing.straight ? clamp(swing.percent, SWING.least, SWING.most) : 50;
  const bend = swingBend(performance.bars, { percent, grid: swing?.grid ?? '1/16' });
  return mainNotes(performance).map((note) => ({
    ...note,
    slot: Math.floor(note.at / g + 0.5),
    straight: msAt(performance, note.at, note.at - nearest(note.at, g)),
    swung: msAt(performance, note.at, fromSwung(bend, note.at, g)),
  }));
};

const laneReport = (lane: string, notes: Placed[], all: Performed[]): LaneReport => ({
  lane,
  notes: all.length,
  mean: mean(notes.map(({ straight }) => straight)),
  spread: deviation(notes.map(({ straight }) => straight)),
  meanSwung: mean(notes.map(({ swung }) => swung)),
  spreadSwung: deviation(notes.map(({ swung }) => swung)),
  velocity: mean(all.map(({ velocity }) => velocity)),
  velocitySpread: deviation(all.map(({ velocity }) => velocity)),
});

/** Lanes that share fewer slots than this tell nothing of one another. */
const LEAST_SHARED = 4;

/** R. A. Fisher's transformation, under which a correlation's error is 1 / sqrt(n - 3). */
const MOST_CORRELATION = 0.999999;
const fisher = (r: number): number => Math.atanh(Math.max(-MOST_CORRELATION, Math.min(MOST_CORRELATION, r)));

const shared = (lanes: Placed[][]): SharedTiming | null => {
  let [sum, weight, count] = [0, 0, 0];
  const slots = lanes.map((notes) => new Map(notes.map(({ slot, swung }) => [slot, swung])));
  const taking = new Set<number>();
  for (let i = 0; i < slots.length; i++)
    for (let j = i + 1; j < slots.length; j++) {
      const pairs = [...slots[i]!].flatMap(([slot, x]): [number, number][] => {
        const y = slots[j]!.get(slot);
        return y === undefined ? [] : [[x, y]];
      });
      // What stands dead on the grid says nothing of anyone else.
      const moves = (at: 0 | 1) => deviation(pairs.map((pair) => pair[at])) > 1e-6;
      if (pairs.length < LEAST_SHARED || !moves(0) || !moves(1)) continue;
      sum += fisher(correlation(pairs)) * (pairs.length - 3);
      weight += pairs.length - 3;
      count += 1;
      taking.add(i).add(j);
    }
  if (!weight) return null;
  // Three lanes make three pairs, of which the third follows from the other two.
  const error = 1.96 / Math.sqrt((weight * (taking.size - 1)) / count);
  const z = sum / weight;
  return { correlation: Math.tanh(z), least: Math.tanh(z - error), most: Math.tanh(z + error) };
};

/** A grid on which to measure: of what is played in eighths and quarters, sixteenths all the same. */
const measuringGrid = (found: Grid): Grid => (found === '1/8' ? '1/16' : found);

const accentShape = (performance: Performance, notes: Performed[], g: Ticks): (Velocity | null)[] => {
  const { bar } = performance.bars.at(0);
  const sums = Array.from({ length: Math.max(1, Math.round(bar / g)) }, () => ({ sum: 0, count: 0 }));
  for (const { at, velocity } of notes) {
    const inside = at - barStart(performance.bars.at(at), at);
    const slot = sums[Math.floor(inside / g + 0.5) % sums.length]!;
    slot.sum += velocity;
    slot.count += 1;
  }
  return sums.map(({ sum, count }) => (count ? sum / count : null));
};

/**
 * Measures how a performance is played: its swing, how far each lane stands ahead or behind, how tight it is, how much
 * the lanes move together, and its accents.
 *
 * @param terms those of another report that this one is to be compared with; left out, its own grid and tempo
 * @example reportFeel(patternPerformance(beat, pattern)).notes // 6
 */
export const reportFeel = (own: Performance, terms?: Terms): FeelReport => {
  const performance = terms ? { ...own, ticksPerMs: () => ticksPerMs(terms.bpm) } : own;
  const grid = terms?.grid ?? measuringGrid(findGrid(performance));
  const swing = measureSwing(performance);
  const all = placed(performance, grid, swing);
  const lanes = byLane(performance.notes);
  const placedByLane = new Map([...lanes.keys()].map((lane) => [lane, [] as Placed[]]));
  for (const note of all) placedByLane.get(note.lane)!.push(note);
  for (const list of placedByLane.values()) list.sort((a, b) => a.at - b.at);
  const velocities = performance.notes.map(({ velocity }) => velocity);
  const accents = accentShape(performance, performance.notes, gridTicks(grid));
  const strongest = Math.max(0, ...accents.flatMap((one) => one ?? []));
  return {
    notes: performance.notes.length,
    bars: Math.round(performance.length / performance.bars.at(0).bar),
    grid,
    bpm: bpmAt(performance, 0),
    swing,
    lanes: [...lanes].map(([lane, notes]) => laneReport(lane, placedByLane.get(lane)!, notes)),
    mean: mean(all.map(({ swung }) => swung)),
    spread: deviation(all.map(({ swung }) => swung)),
    together: shared([...placedByLane.values()]),
    velocity: mean(velocities),
    velocitySpread: deviation(velocities),
    accents,
    accent: velocities.length ? strongest / Math.max(1, mean(velocities)) : 0,
  };
};
