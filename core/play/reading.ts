import type { Direction, Rate } from '../document/schema';
import { draw, PURPOSE } from '../random/draw';

/** How many times as fast a lane is read. @example rateOf('2/3') // 0.6666666666666666 */
export const rateOf = (rate: Rate): number => {
  const [over, under = '1'] = rate.split('/');
  return Number(over) / Number(under);
};

/**
 * How many places one round of a lane with `n` steps has: there and back plays the ends once.
 *
 * @example stepsInCycle('thereAndBack', 4) // 6
 */
export const stepsInCycle = (direction: Direction, n: number): number =>
  direction === 'thereAndBack' && n > 1 ? 2 * n - 2 : n;

const permutation = (n: number, key: (i: number) => number): number[] => {
  const steps = Array.from({ length: n }, (_, step) => step);
  for (let i = n - 1; i > 0; i--) {
    const other = Math.floor(key(i) * (i + 1));
    [steps[i], steps[other]] = [steps[other]!, steps[i]!];
  }
  return steps;
};

const walk = (n: number, key: (i: number) => number): number[] => {
  const steps = [0];
  for (let i = 1; i < n; i++) {
    const move = key(i) < 0.5 ? -1 : 1;
    steps.push(Math.min(n - 1, Math.max(0, steps[i - 1]! + move)));
  }
  return steps;
};

/**
 * The steps, from 0, in the order in which one round plays them.
 *
 * @param n how many steps the lane has, at least 1
 * @param round from 0; random order and walk differ from round to round
 * @example readingOrder('thereAndBack', 4, 0, 1, 1) // [0, 1, 2, 3, 2, 1]
 */
export const readingOrder = (
  direction: Direction,
  n: number,
  round: number,
  seed: number,
  lane: number,
): number[] => {
  const forward = () => Array.from({ length: n }, (_, step) => step);
  switch (direction) {
    case 'forward':
      return forward();
    case 'backward':
      return forward().reverse();
    case 'thereAndBack':
      return [...forward(), ...forward().slice(1, -1).reverse()];
    case 'random':
      return permutation(n, (i) => draw(seed, lane, round, i, 0, 0, PURPOSE.order));
    case 'walk':
      return walk(n, (i) => draw(seed, lane, round, i, 0, 0, PURPOSE.walk));
  }
};
