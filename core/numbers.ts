/** Small sums that are done everywhere. */

/**
 * The remainder of a value on a ring of `n`: from 0 up to, but not including, `n`, for values below 0 too.
 *
 * @example modulo(-1, 16) // 15
 */
export const modulo = (value: number, n: number): number => {
  const left = value % n;
  return left < 0 ? (left + n) % n : left + 0;
};

/**
 * The last place of a rising list whose value is not above one that is asked for; -1 where all are above it. Found by halving.
 *
 * @param length how many there are
 * @param at the value at a place, from 0
 * @example lastNotAbove(3, (i) => [0, 10, 20][i]!, 15) // 1
 */
export const lastNotAbove = (length: number, at: (place: number) => number, value: number): number => {
  let [low, high] = [-1, length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (at(middle) <= value) low = middle;
    else high = middle - 1;
  }
  return low;
};

/**
 * The last of a rising list that is not above a value; the first one where all are.
 *
 * @example lastAt([0, 10, 20], 15) // 1
 */
export const lastAt = (list: number[], value: number): number =>
  Math.max(
    0,
    lastNotAbove(list.length, (place) => list[place]!, value),
  );
