import type { InstrumentId } from '../document/instruments';
import type { Velocity } from '../units';
import { peakOf, toMono, type Audio } from './sample';
import { sliceFrames } from './renderVoice';
import { spectrumOf } from '../synthesis/spectrum';

/** The drum that a slice of a loop sounds like, by its spectrum. */
export interface SliceKind {
  instrument: InstrumentId;
  /** As hard as its level says, against the loudest slice. */
  velocity: Velocity;
  /** Other drums struck with it at once. */
  also?: { instrument: InstrumentId; velocity: Velocity }[];
}

/** So long a stretch tells what was struck: the first of a slice, and the one before it what still rings. */
const LOOK_SECONDS = 0.06;
/** Between what rings before and the stroke nothing of the stroke itself is to be heard. */
const GUARD_SECONDS = 0.004;

/** Bands, in Hz: a kick's, a snare's body, the noise of its wires, hats and cymbals. */
const BANDS = { low: [30, 130], body: [150, 320], noise: [1200, 5000], high: [7000, 20000] } as const;
type Powers = Record<keyof typeof BANDS, number>;
/** How much of what rang before still rings, by band: low drums ring longest. */
const RINGS: Powers = { low: 0.85, body: 0.7, noise: 0.35, high: 0.2 };

/** The power of a stretch in each band, through a Hann window: its first milliseconds, a kick's click too, hardly count. */
const powersOf = (data: Float32Array, rate: number, from: number): Powers => {
  const length = Math.round(LOOK_SECONDS * rate);
  const part = Float32Array.from(
    { length },
    (_, i) => (data[from + i] ?? 0) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length)),
  );
  const { power, step } = spectrumOf(part, rate);
  const sum = ([low, high]: readonly [number, number]) => {
    let all = 0;
    for (let line = Math.ceil(low / step); line < power.length && line * step < high; line++)
      all += power[line]!;
    return all;
  };
  return { low: sum(BANDS.low), body: sum(BANDS.body), noise: sum(BANDS.noise), high: sum(BANDS.high) };
};

/** The spectrum of a stroke without the ringing from before. */
const addedAt = (data: Float32Array, rate: number, from: number): Powers => {
  const now = powersOf(data, rate, from);
  const before = powersOf(data, rate, from - Math.round((LOOK_SECONDS + GUARD_SECONDS) * rate));
  const added = (band: keyof Powers) => Math.max(0, now[band] - RINGS[band] * before[band]);
  return { low: added('low'), body: added('body'), noise: added('noise'), high: added('high') };
};

/** Softer than so much of the loudest of its kind, in power, is no stroke. */
const FAINT = { low: 0.01, noise: 0.0008, high: 5e-5 };
/** A snare has so much of a body against its highs, a clap so much noise; a hat has neither. */
const BODY = 0.15;
const CLAPS = 0.6;
/** With a kick, whose low end covers a body, a snare has so much noise against its highs. */
const WIRES = 0.18;
/** Bright wires have less, but a head of their own above the kick's low end. */
const BRIGHT_WIRES = 0.02;
const HEAD = 0.07;
/** A kick alone has less noise against its low end. */
const CLICK = 2e-5;
/** With a hat a snare has so much more of the highs than the plainest has. */
const WITH_HAT = 1.5;
/** Hats that keep time stand so near to where they are awaited, in seconds. */
const STEADY_SECONDS = 0.02;

type Kind = 'kick' | 'snare' | 'hat.closed';

/** The velocity of a level against the loudest: what the app makes of velocities, the other way round. */
const velocityFor = (share: number): Velocity =>
  Math.max(1, Math.min(127, Math.round(127 * share ** (1 / 1.6))));

/**
 * The kind of each slice of a loop, without the ringing from before: a kick by its low end, a snare by its noise, a hat by its
 * high one. A slice that is several of them says so.
 *
 * @param audio of the loop
 * @example sliceKinds({ rate: 8000, channels: [new Float32Array(8000)] }, { marks: [0], end: 1 })[0]!.instrument // "snare"
 */
export const sliceKinds = (audio: Audio, cut: { marks: number[]; end: number }): SliceKind[] => {
  const { rate } = audio;
  const data = toMono(audio);
  const frames = sliceFrames(cut, rate);
  const added = frames.map(([from]) => addedAt(data, rate, from));
  const most = (band: keyof Powers) => Math.max(...added.map((one) => one[band]), 1e-12);
  const [low, noise, high] = [most('low'), most('noise'), most('high')];
  const isKick = (one: Powers) => one.low > FAINT.low * low && one.low > 0.4 * one.body;
  const isSnareOverKick = (one: Powers) =>
    one.noise > WIRES * one.high || (one.noise > BRIGHT_WIRES * one.high && one.body > HEAD * one.low);
  const isSnare = (one: Powers) =>
    one.noise > FAINT.noise * noise &&
    one.noise > CLICK * one.low &&
    (isKick(one) ? isSnareOverKick(one) : one.body > BODY * one.high || one.noise > CLAPS * one.high);
  // The highs of a snare alone, against its noise: the least that any has.
  const bright = added
    .filter(isSnare)
    .map((one) => one.high / one.noise)
    .sort((a, b) => a - b);
  const plain = bright[Math.floor(bright.length * 0.1)] ?? Infinity;
  const isHat = (one: Powers) =>
    one.high > FAINT.high * high && (!isSnare(one) || one.high / one.noise > WITH_HAT * plain);
  // A snare hides the hat that it is struck with: where hats keep time on both sides of it, there is one.
  const starts = frames.map(([from]) => from / rate);
  const plainHats = starts.filter((_, at) => isHat(added[at]!));
  const near = (time: number) =>
    time < 0 || time > cut.end || plainHats.some((start) => Math.abs(start - time) < STEADY_SECONDS);
  const keepsTime = (at: number) => {
    const time = starts[at]!;
    const gaps = plainHats.map((start) => Math.abs(start - time)).filter((gap) => gap > 0.07 && gap < 0.75);
    // Within the bar they come again at their own distance, on either side.
    return gaps.some((gap) => near(time - gap) && near(time + gap));
  };
  const peaks = frames.map(([from, to]) => peakOf([data.subarray(from, to)]));
  const loudest = Math.max(...peaks, 1e-9);
  return added.map((one, at) => {
    const kinds: Kind[] = [
      ...(isKick(one) ? (['kick'] as const) : []),
      ...(isSnare(one) ? (['snare'] as const) : []),
      ...(isHat(one) || (isSnare(one) && keepsTime(at)) ? (['hat.closed'] as const) : []),
    ];
    const velocity = velocityFor(peaks[at]! / loudest);
    // The drum that is struck beside another is as hard as its own band says against its loudest.
    const levels = { kick: one.low / low, snare: one.noise / noise, 'hat.closed': one.high / high };
    const [first = 'snare', ...others] = kinds;
    const also = others.map((instrument) => ({
      instrument,
      velocity: velocityFor(Math.sqrt(levels[instrument])),
    }));
    return { instrument: first, velocity, ...(also.length && { also }) };
  });
};
