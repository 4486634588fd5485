import type { Frames, Seconds } from '../units';

/** Taken once: looked up for every sample they would cost more than what they do. */
const { abs, cos, floor, max, min, PI, sin } = Math;

/** Decoded audio: one side or two, each as long as the other. */
export interface Audio {
  /** Frames a second. */
  rate: number;
  channels: Float32Array[];
}

/** How long it is. @example sampleSecondsOf({ rate: 8000, channels: [new Float32Array(4000)] }) // 0.5 */
export const sampleSecondsOf = ({ rate, channels }: Audio): Seconds => (channels[0]?.length ?? 0) / rate;

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

const divisor = (a: number, b: number): number => (b ? divisor(b, a % b) : a);

/** With more places than these between two samples there is nothing to be gained from taking place by place. */
const MOST_PLACES = 640;

/** So many samples at each place make a piece. */
const PIECE = 64;

interface Piece {
  from: number;
  to: number;
  /** The samples that are made. */
  begin: number;
  end: number;
  /** The position of the first of them. */
  first: number;
}

const readPiece = (
  d: Float32Array,
  out: Float32Array,
  k: Float32Array,
  { from, to, begin, end, first }: Piece,
): void => {
  const width = 2 * REACH;
  for (let place = 0; place < to && begin + place < end; place++) {
    const whole = floor((place * from) / to);
    const r = floor(((place * from) / to - whole) * PHASES + 0.5) * width;
    const [k0, k1, k2, k3] = [k[r]!, k[r + 1]!, k[r + 2]!, k[r + 3]!];
    const [k4, k5, k6, k7] = [k[r + 4]!, k[r + 5]!, k[r + 6]!, k[r + 7]!];
    const [k8, k9, k10, k11] = [k[r + 8]!, k[r + 9]!, k[r + 10]!, k[r + 11]!];
    const [k12, k13, k14, k15] = [k[r + 12]!, k[r + 13]!, k[r + 14]!, k[r + 15]!];
    let a = first + whole - REACH + 1;
    for (let i = begin + place; i < end; i += to, a += from)
      if (a >= 0 && a + width <= d.length)
        out[i] =
          d[a]! * k0 +
          d[a + 1]! * k1 +
          d[a + 2]! * k2 +
          d[a + 3]! * k3 +
          (d[a + 4]! * k4 + d[a + 5]! * k5 + d[a + 6]! * k6 + d[a + 7]! * k7) +
          (d[a + 8]! * k8 + d[a + 9]! * k9 + d[a + 10]! * k10 + d[a + 11]! * k11) +
          (d[a + 12]! * k12 + d[a + 13]! * k13 + d[a + 14]! * k14 + d[a + 15]! * k15);
      else {
        let sum = 0;
        for (let tap = max(0, -a); tap < width && a + tap < d.length; tap++) sum += d[a + tap]! * k[r + tap]!;
        out[i] = sum;
      }
  }
};

/**
 * The same where the ratio is one of small whole numbers, as between the usual rates: there are only so many places between two
 * samples then, and all that lie at one place are read by the same weights, in half the time.
 */
const readByPlaces = (data: Float32Array, from: number, to: number): Float32Array => {
  const ratio = from / to;
  const kernel = kernelFor(ratio);
  const length = max(1, floor(data.length / ratio));
  const out = new Float32Array(length);
  // Piece by piece, so that what is read and written stays at hand: from end to end it would come from far away each time.
  for (let begin = 0, first = 0; begin < length; begin += PIECE * to, first += PIECE * from)
    readPiece(data, out, kernel, { from, to, begin, first, end: min(length, begin + PIECE * to) });
  return out;
};

/** Audio at another rate. @example toRate({ rate: 8000, channels: [new Float32Array(80)] }, 4000).channels[0]!.length // 40 */
export const toRate = (audio: Audio, rate: number): Audio => {
  if (audio.rate === rate) return audio;
  const common = divisor(audio.rate, rate);
  const [from, to] = [audio.rate / common, rate / common];
  const few = Number.isInteger(from) && Number.isInteger(to) && to <= MOST_PLACES;
  return {
    rate,
    channels: audio.channels.map((data) =>
      few ? readByPlaces(data, from, to) : readAt(data, audio.rate / rate),
    ),
  };
};

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
