import type { InstrumentId } from '../document/instruments';
import type { Seconds } from '../units';
import type { Kit } from './kits/kit';
import { FORCES, layerOf, levelOf, makeSound } from './layers';
import { loudnessOf } from './loudness';
import { centroidOf, ringOf, shareBetween, spectrumOf } from './spectrum';

/** Measures of a kit. */
export interface KitFigures {
  /** Of two bars of a plain beat, unlimited: LUFS, and the highest sample in dB below full scale. */
  loudness: number;
  peak: number;
  /** The share of a hard kick's energy below 120 Hz, of a hard closed hat's above 5 kHz. */
  kickLow: number;
  hatHigh: number;
  /** From its loudest moment until 40 dB below, in seconds. */
  kickRing: Seconds;
  snareRing: Seconds;
  /** Brightness of the softest and of the hardest snare, in Hz. */
  snareSoft: number;
  snareHard: number;
}

/** Two bars at 96 BPM that kits are compared by: sixteenths, who plays and how hard. */
const STEP = 60 / 96 / 4;
const BEAT: { id: InstrumentId; steps: number[]; velocity: number }[] = [
  { id: 'kick', steps: [0, 6, 10, 16, 22, 27], velocity: 104 },
  { id: 'snare', steps: [4, 12, 20, 28], velocity: 104 },
  { id: 'snare', steps: [7, 25], velocity: 40 },
  { id: 'hat.closed', steps: Array.from({ length: 16 }, (_, at) => 2 * at), velocity: 84 },
  { id: 'hat.open', steps: [31], velocity: 90 },
  { id: 'tom.low', steps: [29, 30], velocity: 96 },
];

type Made = ReadonlyMap<InstrumentId, Float32Array[]>;

/** The beat as a kit plays it, in one channel: both sides are alike. */
const played = (made: Made, rate: number): Float32Array => {
  const out = new Float32Array(Math.ceil(34 * STEP * rate));
  for (const { id, steps, velocity } of BEAT) {
    const layers = made.get(id)!;
    steps.forEach((step, count) => {
      const data = layers[layerOf(velocity, layers.length, count)]!;
      const begin = Math.round(step * STEP * rate);
      const level = levelOf(velocity) * Math.SQRT1_2;
      for (let i = 0; i < data.length && begin + i < out.length; i++) out[begin + i]! += data[i]! * level;
    });
  }
  return out;
};

/**
 * Measures a kit.
 *
 * @param rate frames a second
 */
export const kitFigures = (kit: Kit, rate: number): KitFigures => {
  const ids = new Set(BEAT.map(({ id }) => id));
  const made: Made = new Map([...ids].map((id) => [id, makeSound(kit, id, rate).layers]));
  const sum = played(made, rate);
  const layer = (id: InstrumentId, force: number) => {
    const layers = made.get(id)!;
    return layers[force * Math.floor(layers.length / FORCES.length)]!;
  };
  const spectrum = (id: InstrumentId, force = FORCES.length - 1) => spectrumOf(layer(id, force), rate);
  return {
    loudness: loudnessOf(sum, sum, rate),
    peak: 20 * Math.log10(sum.reduce((most, x) => Math.max(most, Math.abs(x)), 1e-9)),
    kickLow: shareBetween(spectrum('kick'), 0, 120),
    hatHigh: shareBetween(spectrum('hat.closed'), 5000, rate / 2),
    kickRing: ringOf(layer('kick', FORCES.length - 1), rate, 40),
    snareRing: ringOf(layer('snare', FORCES.length - 1), rate, 40),
    snareSoft: centroidOf(spectrum('snare', 0)),
    snareHard: centroidOf(spectrum('snare')),
  };
};
