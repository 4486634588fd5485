import type { InstrumentId } from '../document/instruments';
import type { Hertz, Seconds } from '../units';

/** The measures of a drum that decide whether it goes with others. */
export interface DrumFigures {
  kit: string;
  instrument: InstrumentId;
  /** How long it rings, how bright it is, and its level where it is loudest, in dB. */
  ring: Seconds;
  centroid: Hertz;
  level: number;
}

type Features = [ring: number, bright: number, loud: number];

/** As the ear compares them: by ratios; 6 dB are as much as an octave. */
const featuresOf = ({ ring, centroid, level }: DrumFigures): Features => [
  Math.log2(Math.max(0.01, ring)),
  Math.log2(Math.max(20, centroid)),
  level / 6,
];

const median = (values: number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

const usualOf = (all: readonly DrumFigures[], instrument: InstrumentId): Features => {
  const list = all.filter((one) => one.instrument === instrument).map(featuresOf);
  return [0, 1, 2].map((at) => median(list.map((one) => one[at]!))) as Features;
};

const lessThan = (a: Features, b: Features): Features => [0, 1, 2].map((at) => a[at]! - b[at]!) as Features;

/**
 * Drums of one instrument, the one that fits the others best first. The others are longer, brighter or louder than their kind
 * usually is, or less; what fits is so by as much.
 *
 * @param all what there is, of every kit: the instrument itself and the others' instruments
 * @param others what plays beside it
 */
export const fitting = (
  all: readonly DrumFigures[],
  instrument: InstrumentId,
  others: readonly DrumFigures[],
): DrumFigures[] => {
  const differences = others.map((one) => lessThan(featuresOf(one), usualOf(all, one.instrument)));
  const wanted = [0, 1, 2].map(
    (at) => differences.reduce((sum, one) => sum + one[at]!, 0) / Math.max(1, differences.length),
  ) as Features;
  const usual = usualOf(all, instrument);
  const away = (one: DrumFigures): number =>
    Math.hypot(...lessThan(lessThan(featuresOf(one), usual), wanted));
  return all.filter((one) => one.instrument === instrument).sort((a, b) => away(a) - away(b));
};

/** The facts about a beat or a groove that a kit is suggested for. */
export interface Suits {
  style?: string;
  tempo: number;
  instruments: readonly InstrumentId[];
}

/** The kit that suits, and why in a few words. */
export interface Suggested {
  kit: string;
  why: string;
}

const STYLES: [RegExp, Suggested][] = [
  [/jazz|ballad|waltz|brush|lounge/i, { kit: 'drizzle', why: 'brushes go with it' }],
  [/house|techno|disco|electro/i, { kit: 'lantern', why: 'round circuits go with it' }],
  [/trap|drill|hip|half-time|bass/i, { kit: 'undertow', why: 'its low kick has room' }],
  [/dub|dust|lo-?fi|boom/i, { kit: 'attic', why: 'it is dusty' }],
  [/rock|stadium|march/i, { kit: 'arches', why: 'a large room carries it' }],
  [/samba|rumba|afro|bossa|salsa|mambo|calypso/i, { kit: 'handcart', why: 'hands play it' }],
];

const HANDS = /^(conga|bongo|timbale|shaker|cabasa|claves|agogo|cowbell|guiro|tambourine|maracas)/;
const TUNED = /^(marimba|kalimba|steelPan|logDrum)/;

/**
 * The kit that suits a beat or a groove: by its style, its drums and its tempo; null where none stands out.
 *
 * @example kitFor({ style: 'Jazz', tempo: 120, instruments: ['ride'] })!.kit // "drizzle"
 */
export const kitFor = ({ style = '', tempo, instruments }: Suits): Suggested | null => {
  const named = STYLES.find(([name]) => name.test(style))?.[1];
  if (named) return named;
  const share = (kind: RegExp) =>
    instruments.filter((id) => kind.test(id)).length / Math.max(1, instruments.length);
  if (share(TUNED) >= 0.34) return { kit: 'bellows', why: 'its drums are notes too' };
  if (share(HANDS) > 0.5) return { kit: 'handcart', why: 'hands play most of it' };
  if (tempo >= 150) return { kit: 'undertow', why: 'short hats keep up with it' };
  if (tempo <= 78 && instruments.includes('ride')) return { kit: 'drizzle', why: 'brushes have time here' };
  return null;
};
