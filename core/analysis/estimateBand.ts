import FFT from 'fft.js';
import type { Ms } from '../units';

/**
 * The settings of players who were heard: the errors of their clocks and hands, and how much each follows the others and the
 * click. The likelihood of their spectra (P. Whittle, Arkiv för Matematik 2, 1953) is largest there; for the model of `feel/band.ts`
 * it falls apart into one small problem a player, since what is left of its spectrum,
 *
 *     e_i = x_i(j+1) - x_i(j) + sum of L_ik (x_i - x_k) + P_i x_i = C_i c_i(j) + M_i (w_i(j+1) - w_i(j)),
 *
 * has the power C² S(f) + M² |z - 1|², S being that of the 1/f noise.
 */

/** One player as it was heard. */
export interface EstimatedPlayer {
  clock: Ms;
  touch: Ms;
  click: number;
  /** How much it follows each of the others, by their places; 0 for itself. */
  follows: number[];
  /** How far any of `click` and `follows` may be off: twice the standard error, found from parts of what was heard. */
  doubt: number;
}

/** The 1/f noise is made of so many voices, of which each is twice as slow as the one before. */
const VOICES = 9;

/** The power of the 1/f noise at each of n/2 frequencies, of a series of n. */
const pinkPower = (n: number): Float64Array => {
  const out = new Float64Array(n / 2);
  for (let k = 1; k < n / 2; k++) {
    const f = k / n;
    let power = 0;
    for (let voice = 0; voice < VOICES; voice++) {
      const period = 2 ** voice;
      power += Math.sin(Math.PI * f * period) ** 2 / (period * Math.sin(Math.PI * f) ** 2);
    }
    out[k] = power / VOICES;
  }
  return out;
};

/** A series as its frequencies, tapered at its ends. */
const transformed = (series: Float64Array): number[] => {
  const n = series.length;
  const fft = new FFT(n);
  const out = fft.createComplexArray();
  let weight = 0;
  const mean = series.reduce((sum, x) => sum + x, 0) / n;
  const tapered = Array.from(series, (x, j) => {
    const taper = Math.sin((Math.PI * (j + 0.5)) / n);
    weight += taper * taper;
    return (x - mean) * taper;
  });
  fft.realTransform(out, tapered);
  const scale = 1 / Math.sqrt(weight);
  return Array.from(out, (x) => x * scale);
};

/** Solves a small set of linear equations, in place; what has no answer is 0. */
const solved = (a: number[][], b: number[]): number[] => {
  const n = b.length;
  for (let col = 0; col < n; col++) {
    let best = col;
    for (let row = col + 1; row < n; row++)
      if (Math.abs(a[row]![col]!) > Math.abs(a[best]![col]!)) best = row;
    [a[col], a[best]] = [a[best]!, a[col]!];
    [b[col], b[best]] = [b[best]!, b[col]!];
    const pivot = a[col]![col]!;
    if (Math.abs(pivot) < 1e-12) continue;
    for (let row = 0; row < n; row++) {
      if (row === col) continue;
      const share = a[row]![col]! / pivot;
      if (!share) continue;
      for (let k = col; k < n; k++) a[row]![k]! -= share * a[col]![k]!;
      b[row]! -= share * b[col]!;
    }
  }
  return b.map((value, at) => (Math.abs(a[at]![at]!) < 1e-12 ? 0 : value / a[at]![at]!));
};

/** So often what is followed and what is left are found from one another. */
const TURNS = 24;
const INNER = 12;

interface Fit {
  clock: Ms;
  touch: Ms;
  /** The values of each regressor. */
  shares: number[];
}

/** @param d the frequencies of the steps that are to be explained @param u those of what they may be explained by */
const fitted = (d: number[], u: number[][], n: number): Fit => {
  const pink = pinkPower(n);
  const steps = Float64Array.from({ length: n / 2 }, (_, k) => 4 * Math.sin((Math.PI * k) / n) ** 2);
  let power = Float64Array.from(steps, (q, k) => q + pink[k]! * 0.1 + 1e-9);
  let shares = u.map(() => 0);
  let [c, m] = [0.1, 1];
  const left = new Float64Array(n / 2);
  for (let turn = 0; turn < TURNS; turn++) {
    const a = u.map(() => u.map(() => 0));
    const b = u.map(() => 0);
    for (let k = 1; k < n / 2; k++) {
      const w = 1 / power[k]!;
      for (let i = 0; i < u.length; i++) {
        const [re, im] = [u[i]![2 * k]!, u[i]![2 * k + 1]!];
        b[i]! -= w * (re * d[2 * k]! + im * d[2 * k + 1]!);
        for (let l = 0; l <= i; l++) {
          const value = w * (re * u[l]![2 * k]! + im * u[l]![2 * k + 1]!);
          a[i]![l]! += value;
          if (l !== i) a[l]![i]! += value;
        }
      }
    }
    shares = solved(a, b);
    for (let k = 1; k < n / 2; k++) {
      let [re, im] = [d[2 * k]!, d[2 * k + 1]!];
      for (let i = 0; i < u.length; i++) {
        re += shares[i]! * u[i]![2 * k]!;
        im += shares[i]! * u[i]![2 * k + 1]!;
      }
      left[k] = re * re + im * im;
    }
    // Each of the two powers grows or shrinks by how much more or less there is than it explains.
    for (let inner = 0; inner < INNER; inner++) {
      let [cu, cd, mu, md] = [0, 0, 0, 0];
      for (let k = 1; k < n / 2; k++) {
        const all = c * pink[k]! + m * steps[k]! + 1e-12;
        cu += (pink[k]! * left[k]!) / (all * all);
        cd += pink[k]! / all;
        mu += (steps[k]! * left[k]!) / (all * all);
        md += steps[k]! / all;
      }
      c *= Math.sqrt(cu / cd);
      m *= Math.sqrt(mu / md);
    }
    power = Float64Array.from(steps, (q, k) => c * pink[k]! + m * q + 1e-12);
  }
  return { clock: Math.sqrt(c), touch: Math.sqrt(m), shares };
};

const estimatedIn = (
  heard: readonly Float64Array[],
  from: number,
  n: number,
): Omit<EstimatedPlayer, 'doubt'>[] => {
  const part = (of: (j: number) => number): number[] =>
    transformed(Float64Array.from({ length: n }, (_, j) => of(from + j)));
  return heard.map((x, i) => {
    const others = heard.map((_, k) => k).filter((k) => k !== i);
    const d = part((j) => x[j + 1]! - x[j]!);
    const u = [...others.map((k) => part((j) => x[j]! - heard[k]![j]!)), part((j) => x[j]!)];
    const { clock, touch, shares } = fitted(d, u, n);
    const follows = heard.map(() => 0);
    others.forEach((k, at) => (follows[k] = Math.max(0, Math.min(1, shares[at]!))));
    return { clock, touch, click: Math.max(0, Math.min(1, shares.at(-1)!)), follows };
  });
};

/** Fewer sixteenths than this say nothing. */
export const LEAST_HEARD = 64;

/** The number of parts of a recording, to see how much they disagree. */
const PARTS = 4;

/**
 * The settings of players, from where they were heard.
 *
 * @param heard for each how late it was against the click at each sixteenth, in ms, all for as long
 * @returns null where less than 65 sixteenths were heard
 */
export const estimateBand = (heard: readonly (readonly Ms[])[]): EstimatedPlayer[] | null => {
  const length = Math.min(...heard.map(({ length }) => length)) - 1;
  if (!heard.length || length < LEAST_HEARD) return null;
  const n = 2 ** Math.floor(Math.log2(length));
  const series = heard.map((one) => Float64Array.from(one));
  const whole = estimatedIn(series, length - n, n);
  const part = n / PARTS;
  const parts =
    part >= LEAST_HEARD / 2
      ? Array.from({ length: PARTS }, (_, at) => estimatedIn(series, length - n + at * part, part))
      : [];
  return whole.map((player, i) => {
    const all = (one: Omit<EstimatedPlayer, 'doubt'>) => [one.click, ...one.follows];
    const variances = all(player).map((value, at) => {
      const each = parts.map((one) => all(one[i]!)[at]! - value);
      return parts.length
        ? each.reduce((sum, x) => sum + x * x, 0) / (parts.length * (parts.length - 1))
        : 0.25;
    });
    return { ...player, doubt: Math.min(1, 2 * Math.sqrt(Math.max(...variances))) };
  });
};
