import { mean } from './statistics';
import { modulo } from '../numbers';
import type { DrumGroup } from '../document/choices';
import { gridTicks, type Grid } from '../document/grid';
import type { Shape, Slot } from '../document/feelSchema';
import { clamp, type Ticks } from '../units';
import { slotsFor } from '../feel/templateBend';
import { byLane, mainNotes, type Performance, type Performed } from './performance';

/** Grids that are looked for, the coarsest first. */
const SOUGHT: Grid[] = ['1/8', '1/8T', '1/16', '1/16T', '1/32'];
/** The straight grid of which a triplet grid divides a pair into three. */
const PAIR: Partial<Record<Grid, Ticks>> = { '1/8T': 960, '1/16T': 480 };

const slotOf = (at: Ticks, g: Ticks): number => Math.floor(at / g + 0.5);

/** The share of occupied slots that hold one note for each lane. */
const oneEach = (notes: Performed[], g: Ticks): number => {
  const counts = new Map<string, number>();
  for (const { lane, at } of notes) {
    const key = `${lane} ${slotOf(at, g)}`;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const single = [...counts.values()].filter((count) => count === 1).length;
  return counts.size ? single / counts.size : 0;
};

/** How near the first third of a pair counts as on it: a sixteenth of it stands at a quarter. */
const NEAR = 0.06;

const onThirds = (notes: Performed[], pair: Ticks): number =>
  notes.filter(({ at }) => Math.abs(modulo(at, pair) / pair - 1 / 3) < NEAR).length / notes.length;

/**
 * The grid that a performance is played on: the coarsest at which at least 95 % of the occupied slots hold one note for
 * each lane (a flam counting as one), a triplet grid only where at least a tenth of the notes stand near the first third
 * of a pair.
 *
 * @example findGrid(performance) // "1/8"
 */
export const findGrid = (performance: Performance): Grid => {
  const notes = mainNotes(performance);
  const fits = (grid: Grid): boolean => {
    const pair = PAIR[grid];
    return oneEach(notes, gridTicks(grid)) >= 0.95 && (!pair || onThirds(notes, pair) >= 0.1);
  };
  return SOUGHT.find(fits) ?? '1/32';
};

/** Where a template's slot came from: one note's distance from its slot. */
export interface Dot {
  slot: number;
  /** Fraction of a step. */
  offset: number;
  velocity: number;
  lane: string;
  /** Which note of the performance, from 0. */
  note: number;
}

export interface TakeOptions {
  grid: Grid;
  /** How long the template is; a multiple of the grid, as near as can be. */
  length: Ticks;
  /** Only these lanes; left out, all together. */
  lanes?: ReadonlySet<string>;
}

/**
 * The notes of a performance as distances from the slots that they belong to.
 *
 * @example dotsOf(performance, { grid: '1/16', length: 480, lanes: null }).length // 2
 */
export const dotsOf = (performance: Performance, { grid, length, lanes }: TakeOptions): Dot[] => {
  const g = gridTicks(grid);
  const n = Math.max(1, Math.round(length / g));
  const means = new Map(
    [...byLane(performance.notes)].map(([lane, list]) => [lane, mean(list.map(({ velocity }) => velocity))]),
  );
  const places = new Map(performance.notes.map((note, at) => [note, at]));
  const notes = mainNotes(performance).filter(({ lane }) => !lanes || lanes.has(lane));
  const all = mean(notes.map(({ velocity }) => velocity));
  return notes.map((note) => {
    const k = slotOf(note.at, g);
    return {
      slot: modulo(k, n),
      offset: note.at / g - k,
      velocity: clamp(((note.velocity / means.get(note.lane)!) * all) / 127, 0, 1),
      lane: note.lane,
      note: places.get(note)!,
    };
  });
};

const sameMeter = (a: Shape['meter'], b: Shape['meter']): boolean =>
  a?.beats === b?.beats && a?.unit === b?.unit;

const slotFrom = (dots: Dot[], weights: number[]): Slot => {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  if (!dots.length || total <= 0) return null;
  const offset = dots.reduce((sum, dot, at) => sum + dot.offset * weights[at]!, 0) / total;
  return {
    offset: clamp(offset, -0.5, 0.5),
    velocity: clamp(mean(dots.map(({ velocity }) => velocity)), 0, 1),
  };
};

/**
 * A template from dots: a slot's offset is the mean of its notes' offsets weighted by velocity, its velocity the mean of
 * each note's against its lane's, times the mean of all. A slot without notes stays open.
 */
export const shapeFrom = (
  name: string,
  performance: Performance,
  options: TakeOptions,
  dots: Dot[],
): Shape => {
  const n = Math.max(1, Math.round(options.length / gridTicks(options.grid)));
  const slots = Array.from({ length: n }, (_, slot): Slot => {
    const here = dots.filter((dot) => dot.slot === slot);
    return slotFrom(
      here,
      here.map(({ note }) => performance.notes[note]!.velocity),
    );
  });
  return { name, grid: options.grid, slots, meter: performance.meter };
};

/**
 * A curve for each group of drums, from the dots of a template; where a group does not play, it goes by what all do.
 *
 * @param groupOf the group of drums that a lane belongs to; null is left to the common slots
 * @example Object.keys(groupCurves(shape, performance, { grid: '1/16', length: 480 }, [], () => 'snare')) // []
 */
export const groupCurves = (
  shape: Shape,
  performance: Performance,
  options: TakeOptions,
  dots: Dot[],
  groupOf: (lane: string) => DrumGroup | null,
): NonNullable<Shape['groups']> => {
  const groups = [...new Set(dots.flatMap(({ lane }) => groupOf(lane) ?? []))];
  return Object.fromEntries(
    groups.map((group) => {
      const own = dots.filter(({ lane }) => groupOf(lane) === group);
      const { slots } = shapeFrom(shape.name, performance, options, own);
      return [group, slots.map((slot, at) => slot ?? shape.slots[at] ?? null)];
    }),
  );
};

/**
 * A template taken from a performance, nothing left out. Null where there is no note to take it from.
 *
 * @example
 * extractTemplate('Late', performance, { grid: '1/16', length: 480, lanes: null })!.slots[1]!.offset.toFixed(3)
 * // "0.100"
 */
export const extractTemplate = (
  name: string,
  performance: Performance,
  options: TakeOptions,
): Shape | null => {
  const dots = dotsOf(performance, options);
  return dots.length ? shapeFrom(name, performance, options, dots) : null;
};

/**
 * Dots far from the others of their slot, by more than three times the usual distance: to be dropped if one likes.
 *
 * @example outliers(dotsOf(performance, { grid: '1/16', length: 480, lanes: null })) // []
 */
export const outliers = (dots: Dot[]): Dot[] => {
  const middles = new Map<number, number>();
  for (const { slot } of dots)
    if (!middles.has(slot)) {
      const offsets = dots.filter((dot) => dot.slot === slot).map(({ offset }) => offset);
      middles.set(slot, offsets.sort((a, b) => a - b)[Math.floor(offsets.length / 2)]!);
    }
  const distances = dots.map((dot) => Math.abs(dot.offset - middles.get(dot.slot)!));
  const usual = Math.max(0.02, mean(distances));
  return dots.filter((_, at) => distances[at]! > 3 * usual);
};

/**
 * Several performances' templates averaged into one, slot by slot; those of another grid or length than the first are
 * left out.
 *
 * @example
 * averaged('Mean', [shape, shape])!.slots
 * // [{ offset: 0, velocity: 0.9 }, { offset: 0.1, velocity: 0.45 }]
 */
export const averaged = (name: string, shapes: Shape[]): Shape | null => {
  const [first] = shapes;
  if (!first) return null;
  const alike = shapes.filter(
    ({ grid, slots }) => grid === first.grid && slots.length === first.slots.length,
  );
  const blended = (lines: (readonly Slot[])[]) =>
    first.slots.map((_, at): Slot => {
      const here = lines.flatMap((slots) => slots[at] ?? []);
      if (!here.length) return null;
      return {
        offset: mean(here.map(({ offset }) => offset)),
        velocity: mean(here.map(({ velocity }) => velocity)),
      };
    });
  const slots = blended(alike.map((shape) => shape.slots));
  // Of a group that only some have a curve for, the others' common one counts.
  const groups = [...new Set(alike.flatMap((shape) => Object.keys(shape.groups ?? {}) as DrumGroup[]))].map(
    (group) => [group, blended(alike.map((shape) => slotsFor(shape, group)))] as const,
  );
  const meter = alike.every((shape) => sameMeter(shape.meter, first.meter)) ? first.meter : undefined;
  return {
    name,
    grid: first.grid,
    slots,
    ...(groups.length && { groups: Object.fromEntries(groups) }),
    ...(meter && { meter }),
  };
};
