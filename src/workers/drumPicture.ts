import type { InstrumentId } from '../../core/document/instruments';
import type { KitId } from '../../core/document/schema';
import { kitOf, standIn } from '../../core/synthesis/kits';
import { FORCES, makeSound } from '../../core/synthesis/layers';
import { centroidOf, ringOf, spectrumOf, type Spectrum } from '../../core/synthesis/spectrum';
import type { Seconds } from '../../core/units';

/** What a drum looks like: its wave, its spectrum, and what is measured of them. */
export interface DrumDrawn {
  instrument: InstrumentId;
  /** Another one, where the kit has none of its own. */
  soundsAs: InstrumentId;
  /** How far the wave goes in each column, 0 to 1. */
  wave: number[];
  seconds: Seconds;
  /** How strong each band is, 0 at 60 dB below the strongest to 1; from 30 Hz to 16 kHz, each as wide to the ear. */
  bands: number[];
  ring: Seconds;
  /** In Hz. */
  centroid: number;
  /** How many strikes it has, each a little different. */
  strikes: number;
}

const RATE = 48000;
const COLUMNS = 96;
const BANDS = 48;
const LOWEST = 30;
const HIGHEST = 16000;
const DEPTH = 60;

const waveOf = (data: Float32Array): number[] =>
  Array.from({ length: COLUMNS }, (_, column) => {
    let most = 0;
    const end = Math.floor(((column + 1) * data.length) / COLUMNS);
    for (let at = Math.floor((column * data.length) / COLUMNS); at < end; at++)
      most = Math.max(most, Math.abs(data[at]!));
    return most;
  });

const bandsOf = ({ power, step }: Spectrum): number[] => {
  const sums = new Float64Array(BANDS);
  power.forEach((value, at) => {
    const band = Math.floor((BANDS * Math.log(Math.max(1, at * step) / LOWEST)) / Math.log(HIGHEST / LOWEST));
    if (band >= 0 && band < BANDS) sums[band]! += value;
  });
  // A low band may lie between two lines of the spectrum: it is as its neighbour.
  for (let band = 1; band < BANDS; band++) if (!sums[band]) sums[band] = sums[band - 1]!;
  const most = Math.max(...sums, 1e-12);
  return [...sums].map((sum) => Math.max(0, 1 + (10 * Math.log10(Math.max(sum, 1e-12) / most)) / DEPTH));
};

/**
 * A drum of a kit, struck hard.
 *
 * @param kit its id; where there is none, the one that plays in its place
 */
export const drumPicture = (kit: KitId, instrument: InstrumentId): DrumDrawn => {
  const there = kitOf(kit);
  const soundsAs = standIn(there, instrument);
  const { layers } = makeSound(there, soundsAs, RATE);
  const strikes = Math.floor(layers.length / FORCES.length);
  const data = layers[(FORCES.length - 1) * strikes]!;
  const spectrum = spectrumOf(data, RATE);
  return {
    instrument,
    soundsAs,
    wave: waveOf(data),
    seconds: data.length / RATE,
    bands: bandsOf(spectrum),
    ring: ringOf(data, RATE, 40),
    centroid: centroidOf(spectrum),
    strikes,
  };
};
