/** One line a measure: what, figure, what is wanted, and whether it is met. */
export const report = (what: string, figure: string, wanted: string, met: boolean): void => {
  process.stdout.write(`${met ? 'met    ' : 'NOT MET'}  ${what}: ${figure} (wanted: ${wanted})\n`);
};

/** The value below which a share of the values lies. @example quantile([1, 2, 3], 0.5) // 2 */
export const quantile = (values: number[], share: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
};

export const median = (values: number[]): number => quantile(values, 0.5);
