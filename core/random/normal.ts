/** No draw goes farther than this many standard deviations. */
export const MOST_NORMAL = 3;

const LOW = 0.02425;

const tail = (u: number): number => {
  const q = Math.sqrt(-2 * Math.log(u));
  return (
    (((((-7.784894002430293e-3 * q - 3.223964580411365e-1) * q - 2.400758277161838) * q - 2.549732539343734) *
      q +
      4.374664141464968) *
      q +
      2.938163982698783) /
    ((((7.784695709041462e-3 * q + 3.224671290700398e-1) * q + 2.445134137142996) * q + 3.754408661907416) *
      q +
      1)
  );
};

/**
 * The standard normal value below which a share of all values lies, by P. J. Acklam's rational approximation (relative
 * error below 1.2e-9), held to ±3. One draw gives one value, as a keyed draw must.
 *
 * @param u above 0 and below 1
 * @example normal(0.5) // 0
 */
export const normal = (u: number): number => {
  if (u < LOW) return u <= 0 ? -MOST_NORMAL : Math.max(-MOST_NORMAL, tail(u));
  if (u > 1 - LOW) return Math.min(MOST_NORMAL, -tail(1 - u));
  const q = u - 0.5;
  const r = q * q;
  return (
    ((((((-3.969683028665376e1 * r + 2.209460984245205e2) * r - 2.759285104469687e2) * r +
      1.38357751867269e2) *
      r -
      3.066479806614716e1) *
      r +
      2.506628277459239) *
      q) /
    (((((-5.447609879822406e1 * r + 1.615858368580409e2) * r - 1.556989798598866e2) * r +
      6.680131188771972e1) *
      r -
      1.328068155288572e1) *
      r +
      1)
  );
};
