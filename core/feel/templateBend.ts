import { modulo } from '../numbers';
import type { DrumGroup } from '../document/choices';
import { gridTicks } from '../document/grid';
import type { Shape, Slot } from '../document/feelSchema';
import { clamp, type Ticks } from '../units';
import { barStart, type Bars, type MeterSpan } from './bars';

/** A slot's offset is never carried past this part of a step. */
const MOST = 0.48;

/**
 * The offsets of all slots: an open one takes its by linear interpolation, around the loop, between its neighbours.
 *
 * @example
 * slotOffsets({ slots: [{ offset: 0, velocity: 1 }, null, { offset: 0.2, velocity: 1 }, null] })
 * // [0, 0.1, 0.2, 0.1]
 */
export const slotOffsets = ({ slots }: Pick<Shape, 'slots'>): number[] => {
  const n = slots.length;
  const known = slots.flatMap((slot, at) => (slot ? [at] : []));
  if (!known.length) return slots.map(() => 0);
  return slots.map((slot, at) => {
    if (slot) return slot.offset;
    const after = known.find((one) => one > at) ?? known[0]! + n;
    const before = known.findLast((one) => one < at) ?? known.at(-1)! - n;
    const share = (at - before) / (after - before);
    const offset = (place: number) => slots[modulo(place, n)]!.offset;
    return offset(before) * (1 - share) + offset(after) * share;
  });
};

/**
 * The slots that a group of drums follows: its own curve, or the common one.
 *
 * @example slotsFor(shape, 'snare').length // 2
 */
export const slotsFor = (shape: Pick<Shape, 'slots' | 'groups'>, group: DrumGroup | null): Slot[] =>
  (group && shape.groups?.[group]) || shape.slots;

/** Where the slots of a template are counted from. */
export interface SlotCount {
  bars: Bars;
  /** The length of a pass; Infinity in a file. */
  pass: Ticks;
  /** Counted from where play began, whatever the bars are. */
  runsOn?: boolean;
}

/** Finds the slot before a position, how far it is towards the next, and which one that is: told until it is asked again. */
export type BendFinder = (position: Ticks) => { slot: number; next: number; along: number };

/** Whether one length goes into another. */
const goesInto = (length: Ticks, whole: Ticks): boolean =>
  Math.abs(whole / length - Math.round(whole / length)) < 1e-9 && whole >= length - 1e-9;

/**
 * Slots are counted anew from each bar line, unless the template is a whole number of bars long: then they run on from the
 * start of the pass. The slot after the last one of a bar is the first of the next.
 */
const finder = (g: Ticks, n: number, { bars, pass, runsOn }: SlotCount): BendFinder => {
  const length = n * g;
  const passStart = (position: Ticks) => (pass === Infinity ? 0 : Math.floor(position / pass) * pass);
  const found = { slot: 0, next: 0, along: 0.5 };
  const tell = (k: number, ends: boolean, along: number) => {
    // What a division leaves costs many times as much for numbers that may be fractions.
    found.slot = k - Math.floor(k / n) * n;
    found.next = ends || found.slot + 1 === n ? 0 : found.slot + 1;
    found.along = along;
    return found;
  };
  let [lastSpan, fits, moved]: [MeterSpan | null, boolean, boolean] = [null, false, false];
  let asked = NaN;
  return (position) => {
    // A stroke's time and its strength are asked for one after the other.
    if (position === asked) return found;
    asked = position;
    const span = bars.at(position);
    if (span !== lastSpan) {
      fits = !!runsOn || goesInto(span.bar, length);
      // After a meter of another length the bar lines stand elsewhere, and slots are counted from there.
      moved = span.from > 0 && !goesInto(span.bar, span.from);
      lastSpan = span;
    }
    if (fits) {
      const start = runsOn ? 0 : moved ? span.from : passStart(position);
      const inside = (position - start) / g;
      const k = Math.floor(inside);
      return tell(k, !runsOn && pass !== Infinity && (k + 1) * g >= pass - 1e-6, inside - k);
    }
    const start = barStart(span, position);
    const end = Math.min(start + span.bar, span.to);
    const inside = (position - start) / g;
    // What stands a rounding error before the bar line is in the bar's last slot still.
    const k = Math.min(Math.floor(inside), Math.ceil((end - start) / g - 1e-9) - 1);
    const last = start + (k + 1) * g >= end - 1e-6;
    // A last slot that the bar line cuts short is shorter than a step: the next one is nearer.
    return tell(
      k,
      last,
      last ? (position - start - k * g) / Math.max(1e-9, end - start - k * g) : inside - k,
    );
  };
};

/**
 * Finds the slots of a template that a group of drums follows: its timing and its strength go by the same.
 *
 * @example templateSlots(shape, { bars: steadyBars({ beats: 4, unit: 4 }), pass: Infinity })(240).slot // 1
 */
export const templateSlots = (shape: Shape, count: SlotCount, group: DrumGroup | null = null): BendFinder =>
  finder(gridTicks(shape.grid), slotsFor(shape, group).length, count);

/**
 * A template's timing made ready: with `k` the slot before a position and `f` how far it is from it to the next, a position
 * moves by `A * g * ((1-f) * o[k] + f * o[k+1])`, each `A * o` held to ±0.48, so that order is kept.
 *
 * @param amount 0 to 1.5
 * @example templateBend(shape, 1, { bars: steadyBars({ beats: 4, unit: 4 }), pass: Infinity })(240) // 264
 */
export const templateBend = (
  shape: Shape,
  amount: number,
  count: SlotCount,
  group: DrumGroup | null = null,
  find: BendFinder = templateSlots(shape, count, group),
): ((position: Ticks) => Ticks) => {
  const g = gridTicks(shape.grid);
  const slots = slotsFor(shape, group);
  const moves = slotOffsets({ slots }).map((offset) => clamp(amount * offset, -MOST, MOST) * g);
  return (position) => {
    const { slot, next, along } = find(position);
    return position + (1 - along) * moves[slot]! + along * moves[next]!;
  };
};

/**
 * By what a template multiplies a velocity: with `m` the mean of all velocities it has and `u` that of the nearest slot,
 * `1 + V * (u/m - 1)`; 1 where the slot is open.
 *
 * @param amount 0 to 1.5
 * @example
 * templateForce(shape, 1, { bars: steadyBars({ beats: 4, unit: 4 }), pass: Infinity })(0)
 * // 1.333333333333
 */
export const templateForce = (
  shape: Shape,
  amount: number,
  count: SlotCount,
  group: DrumGroup | null = null,
  find: BendFinder = templateSlots(shape, count, group),
): ((position: Ticks) => number) => {
  const slots = slotsFor(shape, group);
  const known = slots.flatMap((slot) => (slot ? [slot.velocity] : []));
  const mean = known.reduce((sum, one) => sum + one, 0) / known.length;
  const factors = slots.map((slot) => (slot && mean > 0 ? 1 + amount * (slot.velocity / mean - 1) : 1));
  return (position) => {
    const { slot, next, along } = find(position);
    return factors[along < 0.5 ? slot : next]!;
  };
};
