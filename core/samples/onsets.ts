import FFT from 'fft.js';
import type { Seconds } from '../units';
import { filterAll } from '../synthesis/dsp';
import { peakOf, toMono, type Audio } from './sample';

/** Taken once: looked up for every sample they would cost more than what they do. */
const { abs, exp, floor, log1p, max, min, round, sqrt } = Math;

/** A hit that was found in audio: where it begins, and how strong it is against the others, 0 to 1. */
export interface Onset {
  at: Seconds;
  strength: number;
  /** How much of its rise is below 200 Hz, as a kick’s is, and how much from there to 3 kHz, as a snare’s; 0 to 1. */
  low?: number;
  mid?: number;
}

/** Frames of the spectrum, and how far each is from the one before: 2.7 ms at 48 kHz. */
const FRAME = 1024;
const HOP = 128;
/**
 * A frame is set against the highest that there was from so many frames to so many before it: the one next to it shares seven
 * eighths with it, and a tone that beats, or whose single swings are heard in a band, is up again within the longest of them.
 */
const BACK = 3;
const LONG_BACK = 14;
/** The spectrum in bands as wide to the ear: so that a hat counts as much as a kick. */
const BANDS = 40;
/** Between these, in Hz, lie the three ranges in which a rise is placed. */
const RANGES = [200, 3000] as const;
const LOWEST = 30;
/** Levels are told as the ear tells them. */
const GAIN = 500;

/** Which of the bands a pitch is in. */
const bandOf = (hertz: number, rate: number): number =>
  min(BANDS - 1, floor((BANDS * Math.log(hertz / LOWEST)) / Math.log(rate / 2 / LOWEST)));

/** Which of the bands each line of the spectrum is in. */
const bandsFor = (rate: number): Int16Array =>
  Int16Array.from({ length: FRAME / 2 }, (_, line) => {
    const hertz = (line * rate) / FRAME;
    return hertz < LOWEST ? -1 : bandOf(hertz, rate);
  });

/** How much more there is in each frame than there was: over all bands, and in each of the ranges. */
interface Flux {
  all: Float64Array;
  ranges: Float64Array[];
}

/** The highest that each band was lately; null where nothing was before. */
const highestOf = (before: readonly Float64Array[]): Float64Array | null => {
  if (before.length < BACK) return null;
  const highest = new Float64Array(BANDS);
  for (let at = 0; at <= before.length - BACK; at++)
    for (let band = 0; band < BANDS; band++) highest[band] = max(highest[band]!, before[at]![band]!);
  return highest;
};

/** Spectral flux of log levels, half-wave rectified. */
const fluxOf = (data: Float32Array, rate: number): Flux => {
  const fft = new FFT(FRAME);
  const bands = bandsFor(rate);
  const window = Float64Array.from(
    { length: FRAME },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / FRAME),
  );
  const frames = max(1, floor(data.length / HOP) + 1);
  const flux = new Float64Array(frames);
  const ranges = [...RANGES, Infinity].map(() => new Float64Array(frames));
  const rangeOf = Int8Array.from({ length: BANDS }, (_, band) =>
    RANGES.reduce((range, hertz) => range + (band >= bandOf(hertz, rate) ? 1 : 0), 0),
  );
  const input = new Float64Array(FRAME);
  const out = fft.createComplexArray();
  const before: Float64Array[] = [];
  for (let frame = 0; frame < frames; frame++) {
    // A frame is told by its middle.
    const from = frame * HOP - FRAME / 2;
    for (let i = 0; i < FRAME; i++) input[i] = (data[from + i] ?? 0) * window[i]!;
    fft.realTransform(out, input as unknown as number[]);
    const power = new Float64Array(BANDS);
    for (let line = 1; line < FRAME / 2; line++) {
      const band = bands[line]!;
      if (band >= 0) power[band]! += out[2 * line]! ** 2 + out[2 * line + 1]! ** 2;
    }
    const level = power.map((value) => log1p((GAIN * sqrt(value)) / FRAME));
    const old = highestOf(before);
    for (let band = 0; band < BANDS; band++) {
      const more = max(0, level[band]! - (old?.[band] ?? 0)) / BANDS;
      flux[frame]! += more;
      ranges[rangeOf[band]!]![frame]! += more;
    }
    before.push(level);
    if (before.length > LONG_BACK) before.shift();
  }
  return { all: flux, ranges };
};

/** A peak stands above all within so many frames, and above the middle of what is within so many. */
const PEAK = 10;
const AROUND = 60;

const medianOf = (values: Float64Array): number => values.sort()[values.length >> 1]!;

interface Peak {
  frame: number;
  height: number;
}

const peaksOf = (flux: Float64Array): Peak[] => {
  const peaks: Peak[] = [];
  for (let at = 0; at < flux.length; at++) {
    const here = flux[at]!;
    let highest = here > 0;
    for (let near = max(0, at - PEAK); highest && near <= min(flux.length - 1, at + PEAK); near++)
      if (flux[near]! > here || (flux[near] === here && near < at)) highest = false;
    if (!highest) continue;
    const usual = medianOf(flux.slice(max(0, at - AROUND), min(flux.length, at + AROUND + 1)));
    peaks.push({ frame: at, height: here - usual });
  }
  return peaks;
};

/** The rise is looked for within so long around a peak of the flux, in ms. */
const BEFORE_MS = 22;
const AFTER_MS = 14;
/** The level within so short a time. */
const FINE_MS = 0.7;
/** The ringing to compare with, over so many seconds, falling by so much: the swings of a bass note are no rises. */
const HELD_SECONDS = 0.15;
const HELD_DECAY = 0.08;

/** How much of a peak each range has. */
const sharesAt = ({ ranges }: Flux, frame: number): number[] => {
  const most = ranges.map((range) => max(...range.subarray(max(0, frame - 2), frame + 3)));
  const sum = most.reduce((all, one) => all + one, 1e-9);
  return most.map((one) => one / sum);
};

/**
 * Where the rise to a peak begins: the steepest place of the level in three ranges of pitch, each as far as it rises, and from
 * there back to where the rise has hardly begun.
 */
const beginOf = (ranges: Float32Array[], weights: readonly number[], near: number, rate: number): number => {
  const step = max(1, round((FINE_MS * rate) / 1000));
  const from = max(0, near - round((BEFORE_MS * rate) / 1000));
  const count = floor((near + round((AFTER_MS * rate) / 1000) - from) / step);
  const rise = new Float64Array(count);
  for (const [range, data] of ranges.entries()) {
    const level = new Float64Array(count);
    let top = 1e-9;
    for (let at = 0; at < count; at++) {
      let most = 0;
      const first = from + at * step;
      for (let i = first; i < min(data.length, first + step); i++) most = max(most, abs(data[i]!));
      level[at] = most;
      top = max(top, most);
    }
    // A level that falls and comes back is ringing: only what is above all that has just been is new.
    let held = 0;
    const falls = exp(-1 / (HELD_DECAY * rate));
    for (let i = max(0, from - round(HELD_SECONDS * rate)); i < from; i++)
      held = max(abs(data[i]!), held * falls);
    for (let at = 0; at < count; at++) {
      const now = level[at]!;
      if (now > held)
        rise[at]! +=
          (log1p((30 * now) / top) - log1p((30 * held) / top)) * (top > 1e-4 ? weights[range]! : 0);
      held = max(now, held * falls ** step);
    }
  }
  let best = 0;
  for (let at = 1; at < count; at++) if (rise[at]! > rise[best]!) best = at;
  // The rise may take several steps: back to where it hardly has begun.
  let begin = best;
  while (begin > 1 && rise[begin - 1]! > 0.3 * rise[best]!) begin -= 1;
  return from + begin * step;
};

/** How high a peak has to be against the strong ones, at the least and the most sensitive. */
const HARDEST = 0.6;
const SOFTEST = 0.005;
/** Less than this, against a loop at full scale, no stroke rises. */
const LEAST = 0.04;

/** The threshold that goes with a sensitivity of 0 to 100, against the strong peaks. */
const shareOf = (sensitivity: number): number => HARDEST * (SOFTEST / HARDEST) ** (sensitivity / 100);

/** No two hits are nearer. */
const APART = 0.03;

/** Sensitivity unless told otherwise. */
export const SENSITIVITY = 50;

/** Hits are found alike however loudly a loop was recorded. */
const atFullScale = (data: Float32Array): Float32Array => {
  const peak = peakOf([data]);
  return peak > 0 ? data.map((value) => value / peak) : data;
};

/**
 * Finds the hits of a loop, after J. P. Bello et al., "A tutorial on onset detection in music signals", IEEE Transactions on
 * Speech and Audio Processing 13 (2005): by spectral flux of log levels over a moving median, each placed where its rise begins.
 *
 * @param sensitivity 0 finds the strongest only, 100 the faintest
 * @returns in order of time
 * @example onsetsOf({ rate: 8000, channels: [new Float32Array(8000)] }) // []
 */
export const onsetsOf = (audio: Audio, sensitivity = SENSITIVITY): Onset[] => {
  const { rate } = audio;
  const data = atFullScale(toMono(audio));
  const flux = fluxOf(data, rate);
  const peaks = peaksOf(flux.all);
  const strong = medianOf(
    Float64Array.from(peaks, ({ height }) => height)
      .sort()
      .slice(-max(1, ceilHalf(peaks))),
  );
  const least = max(LEAST, shareOf(sensitivity) * strong);
  const ranges = [
    filterAll(Float32Array.from(data), 'lowpass', RANGES[0], Math.SQRT1_2, rate),
    filterAll(
      filterAll(Float32Array.from(data), 'highpass', RANGES[0], Math.SQRT1_2, rate),
      'lowpass',
      RANGES[1],
      Math.SQRT1_2,
      rate,
    ),
    filterAll(Float32Array.from(data), 'highpass', RANGES[1], Math.SQRT1_2, rate),
  ];
  const out: Onset[] = [];
  for (const { frame, height } of peaks) {
    if (height < least) continue;
    const shares = sharesAt(flux, frame);
    // The range that has most of it places it.
    const weights = shares.map((one) => one ** 2);
    const at = beginOf(ranges, weights, frame * HOP, rate) / rate;
    const [low, mid] = shares;
    const last = out.at(-1);
    const strength = min(1, height / (2 * strong || 1));
    if (!last || at - last.at >= APART) out.push({ at, strength, low: low!, mid: mid! });
    else if (strength > last.strength) out[out.length - 1] = { ...last, strength };
  }
  return out;
};

const ceilHalf = (list: unknown[]): number => Math.ceil(list.length / 4);
