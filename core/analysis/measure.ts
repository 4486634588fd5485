import type { unplayable } from '../hands/sticking';
import { correlation, deviation, mean } from './statistics';
import { fromSwung, measureSwing, type MeasuredSwing } from './measureSwing';
import { gridTicks, type Grid } from '../document/grid';
import { SWING } from '../document/choices';
import { clamp, ticksPerMs, type Bpm, type Ms, type Ticks, type Velocity } from '../units';
import { barStart } from '../feel/bars';
import { bpmAt, byLane, mainNotes, msAt, type Performance, type Performed } from './performance';
import { swingBend } from '../feel/swing';
import { findGrid } from './extractTemplate';

export { measureSwing, type MeasuredSwing, type SwingReading } from './measureSwing';

/** How much of their timing lanes share: the correlation of their offsets, where they play together. */
export interface SharedTiming {
  correlation: number;
  /** The true value lies between these, nineteen times of twenty. */
  least: number;
  most: number;
}

/** The common ground that two performances need to be compared. */
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

/** The measures of how a performance is played. */
export interface FeelReport {
  /** The strokes beyond one drummer, and of how many strokes; left out where nobody looked. */
  hands?: ReturnType<typeof unplayable> & { strokes: number };
  /** How its players go by one another, in words. */
  players?: string[];
  notes: number;
  bars: number;
  /** The grid that notes are measured against: never a coarser grid than sixteenths or eighth triplets. */
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
  /** No lane moves but by what its base feel does each bar: it is programmed, and there is nothing to share. */
  programmed: boolean;
  velocity: Velocity;
  velocitySpread: number;
  /** The mean velocity on each step of the bar, null where nothing is played; and the strongest against the mean. */
  accents: (Velocity | null)[];
  accent: number;
}

const nearest = (at: Ticks, g: Ticks): Ticks => Math.floor(at / g + 0.5) * g;

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

/** A lane whose timing spreads less than this, in ms, is programmed: nobody played it. */
const PROGRAMMED: Ms = 0.5;

/** Offsets by slot without the mean of each slot of the bar: what a base feel, a template or an offset puts there. */
const withoutBase = (notes: Placed[], perBar: number): Map<number, Ms> => {
  const inBar = new Map<number, Ms[]>();
  for (const { slot, swung } of notes) inBar.set(slot % perBar, [...(inBar.get(slot % perBar) ?? []), swung]);
  const means = new Map([...inBar].map(([slot, all]) => [slot, mean(all)]));
  return new Map(notes.map(({ slot, swung }) => [slot, swung - means.get(slot % perBar)!]));
};

/** Whether some slot of the bar is played more than once: else nothing can be told from its mean. */
const comesAgain = (notes: Placed[], perBar: number): boolean =>
  new Set(notes.map(({ slot }) => slot % perBar)).size < notes.length;

const shared = (lanes: Placed[][], perBar: number): SharedTiming | null => {
  let [sum, weight, count] = [0, 0, 0];
  const slots = lanes
    .map((notes) => withoutBase(notes, perBar))
    .map((own) => (deviation([...own.values()]) < PROGRAMMED ? new Map<number, Ms>() : own));
  const taking = new Set<number>();
  for (let i = 0; i < slots.length; i++)
    for (let j = i + 1; j < slots.length; j++) {
      const pairs = [...slots[i]!].flatMap(([slot, x]): [number, number][] => {
        const y = slots[j]!.get(slot);
        return y === undefined ? [] : [[x, y]];
      });
      // What stands dead on the grid says nothing of anyone else.
      const moves = (at: 0 | 1) => deviation(pairs.map((pair) => pair[at])) > 1e-6;
      // Each slot's mean was taken off, which leaves so many fewer that are free.
      const places = new Set(
        [...slots[i]!.keys()].filter((slot) => slots[j]!.has(slot)).map((slot) => slot % perBar),
      );
      const free = pairs.length - places.size - 2;
      if (pairs.length < LEAST_SHARED || free < 1 || !moves(0) || !moves(1)) continue;
      sum += fisher(correlation(pairs)) * free;
      weight += free;
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
  const perBar = Math.max(1, Math.round(performance.bars.at(0).bar / gridTicks(grid)));
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
    together: shared([...placedByLane.values()], perBar),
    programmed:
      [...placedByLane.values()].some((notes) => comesAgain(notes, perBar)) &&
      [...placedByLane.values()].every(
        (notes) => deviation([...withoutBase(notes, perBar).values()]) < PROGRAMMED,
      ),
    velocity: mean(velocities),
    velocitySpread: deviation(velocities),
    accents,
    accent: velocities.length ? strongest / Math.max(1, mean(velocities)) : 0,
  };
};
