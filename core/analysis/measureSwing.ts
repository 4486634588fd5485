import { gridTicks } from '../document/grid';
import { SWING } from '../document/choices';
import type { Swing } from '../document/feelSchema';
import { barStart } from '../feel/bars';
import { swingBend } from '../feel/swing';
import { clamp, QUARTER, type Ms, type Ticks } from '../units';
import { byLane, mainNotes, msAt, type Performance, type Performed } from './performance';
import { deviation, mean, median } from './statistics';

/** One way to read how a performance is swung, and how sure that is. */
export interface SwingReading extends Pick<Swing, 'percent' | 'grid'> {
  /** The true value lies within so many percent points, nineteen times of twenty. */
  within: number;
  /** How many notes on the second of a pair it was measured by. */
  notes: number;
  /** It is straight: within 1 of 50, or within its doubt of 50 with a doubt below 3. */
  straight: boolean;
  /** Its doubt is below 3 percent points. */
  clear: boolean;
  /** How likely this reading is beside the other, 0.01 to 0.99; 1 where there is no other. */
  likelihood: number;
}

/** The likelier reading, and the other one where there are two. */
export interface MeasuredSwing extends SwingReading {
  other: SwingReading | null;
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
/** Within so many percent points of 50 a swing is none; so large a doubt is not clear. */
const STRAIGHT = 1;
const UNCLEAR = 3;
/** Notes that only sixteenths have are a quarter as many as those on the fourth, or more. */
const ONLY_SIXTEENTHS = 4;
/** A lane of sixteenths in a reading of eighths, and what all others say then. */
const FOURTH = { at: 0.75, room: 0.04, others: 0.7 };
/** So swung and so tight, eighths are straight sixteenths with their third left out. */
const DOTTED = { least: 74, most: 76, leftOver: 3 as Ms };
/** How likely straight sixteenths are then: both leave the same over, and few swing so far. */
const LIKELY_STRAIGHT = 0.75;
const LIKELIHOOD = { least: 0.01, most: 0.99 };
/** The least that is left over, in ms²: a file has its ticks. */
const LEAST_LEFT = 0.01;

/** A note by its place in a pair, and which pair of its group it is in. */
interface Phase {
  /** From -0.5 to 0.5 of a pair. */
  phase: number;
  pair: number;
}

/** Pairs are counted anew from each bar line, in 6/8, 9/8 and 12/8 from each dotted quarter; a single step left over counts for nothing. */
const phases = (notes: Performed[], performance: Performance, g: Ticks): Phase[] =>
  notes.flatMap(({ at }) => {
    const { bar, compound } = performance.bars.at(at);
    const inBar = at - barStart(performance.bars.at(at), at);
    const group = compound ? 1.5 * QUARTER : bar;
    const inside = inBar % group;
    const end = Math.floor(group / (2 * g) + 1e-9) * 2 * g;
    // A little before the next group it is early for that.
    const early = (inside - group) / (2 * g);
    if (early >= -SHIFT_WINDOW) return [{ phase: early, pair: 0 }];
    if (inside >= end - 1e-6) return [];
    const pair = Math.floor(inside / (2 * g));
    const phase = (inside % (2 * g)) / (2 * g);
    return [phase >= 0.5 ? { phase: phase - 1, pair: pair + 1 } : { phase, pair }];
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

interface LaneReading {
  off: number;
  between: number;
  /** In sixteenths: notes on the second and third of a beat, and those on the fourth. */
  only: number;
  fourth: number;
  swing: LaneSwing | null;
}

/** The swing of one lane: it is measured against where the lane itself stands, ahead or behind. */
const laneReading = (list: Phase[]): LaneReading => {
  const near = list.map(({ phase }) => phase).filter((x) => Math.abs(x) <= SHIFT_WINDOW);
  const shift = near.length ? median(near) : 0;
  // Against the lane's own start of the pair, from -0.2 on: what stands at 0.8 of a pair is before the next one.
  const against = list.map(({ phase, pair }) => {
    const x = phase - shift;
    return x < -0.2 ? { x: x + 1, pair: pair - 1 } : { x, pair };
  });
  const on = against.filter(({ x }) => Math.abs(x) <= ON);
  const off = against.filter(({ x }) => x >= OFF.least && x <= OFF.most);
  const between = against.filter(({ x }) => x > BETWEEN.least && x < BETWEEN.most).length;
  const second = ({ pair }: { pair: number }) => Math.abs(pair % 2) === 1;
  const [ons, offs] = [on.map(({ x }) => x), off.map(({ x }) => x)];
  const enough = on.length >= 2 && off.length >= 2;
  return {
    off: off.length,
    between,
    only: on.filter(second).length + off.filter((one) => !second(one)).length,
    fourth: off.filter(second).length,
    swing: enough
      ? {
          distance: mean(offs) - mean(ons),
          variance: Math.max(LEAST_ERROR ** 2, errorOf(ons) + errorOf(offs)),
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

/** Without lanes that play sixteenths where all others play swung eighths. */
const eighthsAlone = (lanes: LaneSwing[]): LaneSwing[] => {
  const isFourth = ({ distance }: LaneSwing) => Math.abs(distance - FOURTH.at) <= FOURTH.room;
  const others = lanes.filter((lane) => !isFourth(lane));
  return others.length && combined(others).distance < FOURTH.others ? others : lanes;
};

interface Read {
  reading: SwingReading;
  /** Enough notes stand where only sixteenths have any. */
  sixteenths: boolean;
}

const readIn = (lanes: Performed[][], performance: Performance, grid: '1/8' | '1/16'): Read | null => {
  const all = lanes.map((lane) => laneReading(phases(lane, performance, gridTicks(grid))));
  const sum = (of: keyof Omit<LaneReading, 'swing'>) => all.reduce((total, lane) => total + lane[of], 0);
  const told = all.flatMap(({ swing }) => swing ?? []);
  if (sum('off') < LEAST || sum('between') * 4 >= sum('off') || !told.length) return null;
  const { distance, variance } = combined(grid === '1/8' ? eighthsAlone(told) : told);
  const percent = 100 * distance;
  const within = 200 * Math.sqrt(variance);
  const off = Math.abs(percent - 50);
  const clear = within < UNCLEAR;
  const straight = off <= STRAIGHT || (off <= within && clear);
  return {
    reading: { grid, percent, within, notes: sum('off'), straight, clear, likelihood: 1 },
    sixteenths: sum('only') * ONLY_SIXTEENTHS >= sum('fourth'),
  };
};

/** The distance from where the swing puts the nearest grid point, whichever is nearest then. */
export const fromSwung = (bend: (position: Ticks) => Ticks, at: Ticks, g: Ticks): Ticks => {
  const k = Math.floor(at / g);
  const distances = [k - 1, k, k + 1].map((point) => at - bend(point * g));
  return distances.reduce((best, one) => (Math.abs(one) < Math.abs(best) ? one : best));
};

/** The remainder of a reading: the mean square of all notes' distances from the sixteenths that it bends, in ms². */
const leftOver = (performance: Performance, { percent, grid }: Pick<Swing, 'percent' | 'grid'>): number => {
  const bend = swingBend(performance.bars, { percent: clamp(percent, SWING.least, SWING.most), grid });
  const squares = mainNotes(performance).map(
    ({ at }) => msAt(performance, at, fromSwung(bend, at, gridTicks('1/16'))) ** 2,
  );
  return Math.max(LEAST_LEFT, mean(squares));
};

/**
 * The swing of a performance, read in sixteenths and in eighths, each lane by lane: the mean place of the second of a pair less
 * that of the first, in percent of the pair, with twice its standard error. Both readings that exist are told, the likelier
 * first, by what they leave over.
 *
 * @returns null where there are too few notes on the second of a pair, or too much stands between
 * @example measureSwing(patternPerformance(beat, pattern)) // null
 */
export const measureSwing = (performance: Performance): MeasuredSwing | null => {
  const lanes = [...byLane(mainNotes(performance)).values()];
  const [sixteenths, eighths] = [readIn(lanes, performance, '1/16'), readIn(lanes, performance, '1/8')];
  const fine = sixteenths?.reading ?? null;
  const wide = eighths?.reading ?? null;
  const wideLeft = wide ? leftOver(performance, wide) : 0;
  if (
    wide &&
    wide.percent >= DOTTED.least &&
    wide.percent <= DOTTED.most &&
    Math.sqrt(wideLeft) < DOTTED.leftOver
  ) {
    const straight: SwingReading = fine?.straight
      ? fine
      : {
          grid: '1/16',
          percent: 50,
          within: wide.within,
          notes: wide.notes,
          straight: true,
          clear: true,
          likelihood: 1,
        };
    return { ...straight, likelihood: LIKELY_STRAIGHT, other: { ...wide, likelihood: 1 - LIKELY_STRAIGHT } };
  }
  const own = fine && sixteenths!.sixteenths ? fine : null;
  if (!own || !wide) {
    const only = own ?? wide;
    return only && { ...only, other: null };
  }
  const n = mainNotes(performance).length;
  const apart = -0.5 * n * (Math.log(leftOver(performance, own)) - Math.log(wideLeft));
  const likely = clamp(1 / (1 + Math.exp(-apart)), LIKELIHOOD.least, LIKELIHOOD.most);
  const read = [
    { ...own, likelihood: likely },
    { ...wide, likelihood: 1 - likely },
  ].sort((a, b) => b.likelihood - a.likelihood);
  return { ...read[0]!, other: read[1]! };
};
