import * as statistics from 'simple-statistics';

/** Figures of some values; of none they are 0, since a lane may play nothing. */

/** The arithmetic mean; 0 of nothing. @example mean([1, 2, 6]) // 3 */
export const mean = (values: number[]): number => (values.length ? statistics.mean(values) : 0);

/** The middle of some values, the mean of the two middle ones; 0 of none. @example median([3, 1, 2]) // 2 */
export const median = (values: number[]): number => (values.length ? statistics.median(values) : 0);

/** The standard deviation of all values there are; 0 of none. @example deviation([2, 4]) // 1 */
export const deviation = (values: number[]): number =>
  values.length ? statistics.standardDeviation(values) : 0;

/**
 * Pearson's correlation, -1 to 1; 0 where one of the two does not vary.
 *
 * @example correlation([[1, 2], [2, 4], [3, 6]]) // 1
 */
export const correlation = (pairs: [number, number][]): number => {
  const [a, b] = [pairs.map(([x]) => x), pairs.map(([, y]) => y)];
  if (pairs.length < 2 || deviation(a) < 1e-6 || deviation(b) < 1e-6) return 0;
  return statistics.sampleCorrelation(a, b);
};
