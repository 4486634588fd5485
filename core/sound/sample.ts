import type { Frames, Seconds } from '../units';

/** Taken once: looked up for every sample they would cost more than what they do. */
const { abs, cos, floor, max, min, PI, sin } = Math;

/** Decoded audio: one side or two, each as long as the other. */
export interface Audio {
  /** Frames a second. */
  rate: number;
  channels: Float32Array[];
}

/** How long it is. @example secondsOf({ rate: 8000, channels: [new Float32Array(4000)] }) // 0.5 */
export const secondsOf = ({ rate, channels }: Audio): Seconds => (channels[0]?.length ?? 0) / rate;

/** Both sides as one. @example toMono({ rate: 8000, channels: [new Float32Array(4)] }).length // 4 */
export const toMono = ({ channels }: Pick<Audio, 'channels'>): Float32Array => {
  const [left, right] = channels;
  if (!right) return left ?? new Float32Array(0);
  return left!.map((x, at) => (x + right[at]!) / 2);
};

/** The loudest sample of any side. @example peakOf([Float32Array.of(0.5, -0.75)]) // 0.75 */
export const peakOf = (channels: readonly Float32Array[]): number => {
  let most = 0;
  for (const data of channels) for (let at = 0; at < data.length; at++) most = max(most, abs(data[at]!));
  return most;
};

/** So many samples on either side of a place make what is read there. */
const REACH = 8;
/** So many places between two samples are worked out beforehand. */
const PHASES = 256;

/** A sinc under a Blackman window, in rows for each place between two samples; J. O. Smith, Digital Audio Resampling. */
const kernelFor = (ratio: number): Float32Array => {
  // Read faster, what would fold back is taken away: the kernel is as much wider.
  const cut = min(1, 1 / ratio);
  const width = 2 * REACH;
  const rows = new Float32Array((PHASES + 1) * width);
  for (let phase = 0; phase <= PHASES; phase++) {
    let sum = 0;
    for (let tap = 0; tap < width; tap++) {
      const x = tap - REACH + 1 - phase / PHASES;
      const t = x / REACH;
      const window = abs(t) >= 1 ? 0 : 0.42 + 0.5 * cos(PI * t) + 0.08 * cos(2 * PI * t);
      const value = (abs(x) < 1e-9 ? cut : sin(PI * x * cut) / (PI * x)) * window;
      rows[phase * width + tap] = value;
      sum += value;
    }
    for (let tap = 0; tap < width; tap++) rows[phase * width + tap]! /= sum;
  }
  return rows;
};

/**
 * A sound read so many times as fast, without what would fold back.
 *
 * @param ratio 2 is half as long and an octave higher; 1/16 to 16
 * @example readAt(new Float32Array(100), 2).length // 50
 */
export const readAt = (data: Float32Array, ratio: number): Float32Array => {
  if (ratio === 1) return data;
  const kernel = kernelFor(ratio);
  const width = 2 * REACH;
  const length = max(1, floor(data.length / ratio));
  const out = new Float32Array(length);
  for (let i = 0; i < length; i++) {
    const place = i * ratio;
    const whole = floor(place);
    const row = floor((place - whole) * PHASES + 0.5) * width;
    const first = whole - REACH + 1;
    let sum = 0;
    if (first >= 0 && first + width <= data.length)
      // Four at a time: one by one it takes twice as long.
      for (let tap = 0; tap < width; tap += 4)
        sum +=
          data[first + tap]! * kernel[row + tap]! +
          data[first + tap + 1]! * kernel[row + tap + 1]! +
          data[first + tap + 2]! * kernel[row + tap + 2]! +
          data[first + tap + 3]! * kernel[row + tap + 3]!;
    else
      for (let tap = max(0, -first); tap < width && first + tap < data.length; tap++)
        sum += data[first + tap]! * kernel[row + tap]!;
    out[i] = sum;
  }
  return out;
};

/** Audio at another rate. @example toRate({ rate: 8000, channels: [new Float32Array(80)] }, 4000).channels[0]!.length // 40 */
export const toRate = (audio: Audio, rate: number): Audio =>
  audio.rate === rate
    ? audio
    : { rate, channels: audio.channels.map((data) => readAt(data, audio.rate / rate)) };

/** The level is smoothed over so long. */
const SMOOTH_SECONDS = 0.002;
/** The attack is looked for within so long from the beginning. */
const LOOK_SECONDS = 0.25;
const SHARE = 0.25;

/**
 * Where a sound's attack is: the first place where its level, smoothed over 2 ms, passes a quarter of its highest within the first
 * 250 ms.
 *
 * @returns frames from its beginning; 0 for silence
 * @example attackOf([Float32Array.from({ length: 800 }, (_, at) => (at < 400 ? 0 : 1))], 8000) > 390 // true
 */
export const attackOf = (channels: readonly Float32Array[], rate: number): Frames => {
  const length = min(channels[0]?.length ?? 0, Math.round(LOOK_SECONDS * rate));
  const half = max(1, Math.round((SMOOTH_SECONDS * rate) / 2));
  const level = new Float64Array(length);
  let sum = 0;
  const at = (i: number): number => {
    let loudest = 0;
    for (const data of channels) loudest = max(loudest, abs(data[i] ?? 0));
    return loudest;
  };
  let highest = 0;
  for (let i = -half; i < length; i++) {
    sum += at(i + half) - (i - half >= 1 ? at(i - half - 1) : 0);
    if (i < 0) continue;
    level[i] = sum;
    highest = max(highest, sum);
  }
  if (!(highest > 1e-6)) return 0;
  return max(
    0,
    level.findIndex((value) => value > SHARE * highest),
  );
};
