import { driven, filterAll } from './dsp';
import type { Finish } from './kits/kit';

/** Taken once: looked up for every sample they would cost more than what they do. */
const { exp, max } = Math;

/** Delays of the room's walls and of what blurs them, in seconds: no two have a common measure (after M. R. Schroeder, 1962). */
const WALLS = [0.0297, 0.0371, 0.0411, 0.0437];
const BLURS = [0.005, 0.0017];

/** Adds what a wall gives back of a sound: a delay that feeds itself back, darker each time. */
const addWall = (
  out: Float32Array,
  data: Float32Array,
  seconds: number,
  back: number,
  kept: number,
  rate: number,
): void => {
  const line = new Float32Array(max(1, Math.round(seconds * rate)));
  let [at, low] = [0, 0];
  for (let i = 0; i < out.length; i++) {
    const y = line[at]!;
    low = y * (1 - kept) + low * kept;
    line[at] = (i < data.length ? data[i]! : 0) + low * back;
    out[i]! += y;
    at += 1;
    if (at === line.length) at = 0;
  }
};

/** Spreads a sound in time and leaves all frequencies as loud as they are. */
const blur = (data: Float32Array, seconds: number, rate: number): void => {
  const line = new Float32Array(max(1, Math.round(seconds * rate)));
  let at = 0;
  for (let i = 0; i < data.length; i++) {
    const x = data[i]!;
    const y = line[at]! - 0.7 * x;
    line[at] = x + 0.7 * y;
    data[i] = y;
    at += 1;
    if (at === line.length) at = 0;
  }
};

/**
 * The response of a kit's room to a sound, by itself; null where the kit stands in none.
 *
 * @param rate frames a second
 * @example roomOf(new Float32Array(8), {}, 8000) // null
 */
export const roomOf = (data: Float32Array, { room }: Finish, rate: number): Float32Array | null => {
  if (!room) return null;
  const out = new Float32Array(data.length + Math.ceil(room.seconds * rate));
  const kept = exp((-2 * Math.PI * room.dark) / rate);
  // After so many seconds each wall has fallen by 60 dB.
  for (const seconds of WALLS) addWall(out, data, seconds, 10 ** ((-3 * seconds) / room.seconds), kept, rate);
  for (const seconds of BLURS) blur(out, seconds, rate);
  const level = room.level / WALLS.length;
  for (let i = 0; i < out.length; i++) out[i]! *= level;
  return out;
};

/**
 * A sound in a room.
 *
 * @param room what that gives back; null is none
 * @example withRoom(new Float32Array(8), null).length // 8
 */
export const withRoom = (data: Float32Array, room: Float32Array | null): Float32Array => {
  if (!room) return data;
  const out = Float32Array.from(room);
  for (let i = 0; i < Math.min(data.length, out.length); i++) out[i]! += data[i]!;
  return out;
};

const held = (data: Float32Array, frames: number): Float32Array =>
  data.map((_, at) => data[Math.floor(at / frames) * frames]!);

/**
 * A drum as its kit has it, before its room: its grain, its drive, its colour.
 *
 * @param rate frames a second; grain is told at 48,000
 * @example asInKit(new Float32Array(8), {}, 8000).length // 8
 */
export const asInKit = (data: Float32Array, finish: Finish, rate: number): Float32Array => {
  let out = data;
  const frames = Math.round(((finish.hold ?? 1) * rate) / 48000);
  if (frames > 1) out = held(out, frames);
  if (finish.drive) {
    let most = 1e-9;
    for (let i = 0; i < out.length; i++) most = max(most, Math.abs(out[i]!));
    for (let i = 0; i < out.length; i++) out[i] = driven(out[i]! / most, finish.drive);
  }
  for (const [kind, hertz] of [
    ['lowpass', finish.lowPass],
    ['highpass', finish.highPass],
  ] as const) {
    if (hertz) filterAll(out, kind, hertz, Math.SQRT1_2, rate);
  }
  return out;
};
