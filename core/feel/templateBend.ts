import { gridTicks } from '../beat/grid';
import type { Shape } from '../beat/feelSchema';
import { held, type Ticks } from '../units';

/** A slot's offset is never carried past this part of a step. */
const MOST = 0.48;

/** The offsets of all slots: an open one takes its by linear interpolation, around the loop, between its neighbours. */
export const slotOffsets = ({ slots }: Pick<Shape, 'slots'>): number[] => {
  const n = slots.length;
  const known = slots.flatMap((slot, at) => (slot ? [at] : []));
  if (!known.length) return slots.map(() => 0);
  return slots.map((slot, at) => {
    if (slot) return slot.offset;
    const after = known.find((one) => one > at) ?? known[0]! + n;
    const before = known.findLast((one) => one < at) ?? known.at(-1)! - n;
    const share = (at - before) / (after - before);
    const offset = (place: number) => slots[((place % n) + n) % n]!.offset;
    return offset(before) * (1 - share) + offset(after) * share;
  });
};

const slotAt = (k: number, n: number): number => ((k % n) + n) % n;

/**
 * A template's timing made ready: with `k = floor(p/g)` and `f = p/g - k`, a position moves by
 * `A * g * ((1-f) * o[k mod n] + f * o[(k+1) mod n])`, each `A * o` held to ±0.48, so that order is kept.
 *
 * @param amount 0 to 1.5
 */
export const templateBend = (shape: Shape, amount: number): ((position: Ticks) => Ticks) => {
  const g = gridTicks(shape.grid);
  const moves = slotOffsets(shape).map((offset) => held(amount * offset, -MOST, MOST) * g);
  const n = moves.length;
  return (position) => {
    const k = Math.floor(position / g);
    const f = position / g - k;
    return position + (1 - f) * moves[slotAt(k, n)]! + f * moves[slotAt(k + 1, n)]!;
  };
};

/**
 * By what a template multiplies a velocity: with `m` the mean of all velocities it has and `u` that of the nearest slot,
 * `1 + V * (u/m - 1)`; 1 where the slot is open.
 *
 * @param amount 0 to 1.5
 */
export const templateForce = (shape: Shape, amount: number): ((position: Ticks) => number) => {
  const g = gridTicks(shape.grid);
  const known = shape.slots.flatMap((slot) => (slot ? [slot.velocity] : []));
  const mean = known.reduce((sum, one) => sum + one, 0) / known.length;
  const factors = shape.slots.map((slot) => (slot && mean > 0 ? 1 + amount * (slot.velocity / mean - 1) : 1));
  return (position) => factors[slotAt(Math.floor(position / g + 0.5), factors.length)]!;
};
