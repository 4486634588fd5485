import { gridTicks, type Grid } from '../beat/grid';
import type { Swing } from '../beat/feelSchema';
import type { Ms, Ticks, Velocity } from '../units';
import { barStart } from './bars';
import {
  byLane,
  correlation,
  deviation,
  mainNotes,
  mean,
  msAt,
  type Performance,
  type Performed,
} from './performance';
import { swingBend } from './swing';
import { findGrid } from './takeTemplate';

/** How much a performance is swung, and how sure that is. */
export interface MeasuredSwing extends Swing {
  /** The true value lies within so many percent points, nineteen times of twenty. */
  within: number;
  /** How many notes on the second of a pair it was measured by. */
  notes: number;
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
  notes: number;
  bars: number;
  grid: Grid;
  swing: MeasuredSwing | null;
  lanes: LaneReport[];
  /** Of all notes, from where the swing puts the grid. */
  mean: Ms;
  spread: Ms;
  /** How much of the timing the lanes share: mean correlation of lanes that play together, null where none do. */
  together: number | null;
  velocity: Velocity;
  velocitySpread: number;
  /** The mean velocity on each step of the bar, null where nothing is played; and the strongest against the mean. */
  accents: (Velocity | null)[];
  accent: number;
}

/** At the least so many notes on the second of a pair. */
const LEAST = 4;

const phases = (notes: Performed[], performance: Performance, g: Ticks): number[] =>
  notes.map(({ at }) => {
    const inside = at - barStart(performance.bars.at(at), at);
    return (inside % (2 * g)) / (2 * g);
  });

const errorOf = (values: number[]): number =>
  values.length > 1 ? deviation(values) ** 2 / (values.length - 1) : 0;

/**
 * The swing of a performance: for sixteenths, then eighths, the mean place of the second of a pair less that of the
 * first, in percent of the pair; null where there are too few of them or too much stands between.
 */
export const measureSwing = (performance: Performance): MeasuredSwing | null => {
  const notes = mainNotes(performance);
  for (const grid of ['1/16', '1/8'] as const) {
    const all = phases(notes, performance, gridTicks(grid));
    const on = all.filter((x) => x <= 0.1 || x >= 0.9).map((x) => (x >= 0.9 ? x - 1 : x));
    const off = all.filter((x) => x >= 0.45 && x <= 0.8);
    const between = all.filter((x) => x > 0.15 && x < 0.45).length;
    if (off.length < LEAST || between * 4 >= off.length) continue;
    const percent = 100 * (mean(off) - mean(on));
    const within = 196 * Math.sqrt(errorOf(on) + errorOf(off));
    return { grid, percent, within, notes: off.length };
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

const placed = (performance: Performance, grid: Grid, swing: Swing | null): Placed[] => {
  const g = gridTicks(grid);
  const percent = swing ? Math.min(75, Math.max(50, swing.percent)) : 50;
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

const shared = (lanes: Placed[][]): number | null => {
  let [sum, weight] = [0, 0];
  const slots = lanes.map((notes) => new Map(notes.map(({ slot, swung }) => [slot, swung])));
  for (let i = 0; i < slots.length; i++)
    for (let j = i + 1; j < slots.length; j++) {
      const pairs = [...slots[i]!].flatMap(([slot, x]): [number, number][] => {
        const y = slots[j]!.get(slot);
        return y === undefined ? [] : [[x, y]];
      });
      if (pairs.length < LEAST_SHARED) continue;
      sum += correlation(pairs) * pairs.length;
      weight += pairs.length;
    }
  return weight ? sum / weight : null;
};

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
 */
export const reportFeel = (performance: Performance): FeelReport => {
  const grid = findGrid(performance);
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
