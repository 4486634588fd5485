import { modulo } from '../numbers';
import { positionOf } from '../document/position';
import { INSTRUMENTS, type InstrumentId, type Pigment } from '../document/instruments';
import { barTicks, meterText } from '../document/meter';
import type { Bpm, Ticks, Velocity } from '../units';
import { type Groove } from './groove';

/** Cells of a bar: enough to tell sixteenths from triplets in four. */
const CELLS = 48;
const FAMILIES: Pigment[] = ['walnut', 'weld', 'lichen', 'madder', 'heather'];

/** A groove's profile, folded into one bar, small enough to keep for ten thousand. */
export interface Likeness {
  /** For each drum family how strongly each cell of the bar is played, 0 to 255, one family after the other. */
  cells: Uint8Array;
  /** For each of sixteen places of a bar how late it is played, as a share of a 32nd, -127 to 127. */
  late: Int8Array;
  /** 50 to 75. */
  swing: number;
  /** The length of a bar in quarters. */
  bar: number;
  /** In which pulses a bar is counted, such as "4/4": 6/8 and 3/4 are as long and not alike. */
  meter?: string | undefined;
  bpm?: Bpm | undefined;
}

interface Struck {
  at: Ticks;
  velocity: Velocity;
  instrument: InstrumentId;
}

const strokesOf = (groove: Groove): Struck[] =>
  groove.lanes.flatMap(({ instrument, part }) =>
    part.hits.map((hit) => ({ at: positionOf(hit, part.grid), velocity: hit.velocity, instrument })),
  );

const PLACES = 16;

const inside = (at: Ticks, bar: Ticks): number => modulo(at, bar) / bar;

/** The profile of a groove. Bars are folded onto one another: a longer groove is like a shorter one that it repeats. */
export const likenessOf = (groove: Groove): Likeness => {
  const bar = barTicks(groove.meter);
  const sums = new Float64Array(CELLS * FAMILIES.length);
  const parted = new Float64Array(PLACES);
  const counts = new Float64Array(PLACES);
  for (const { at, velocity, instrument } of strokesOf(groove)) {
    const x = inside(at, bar);
    const family = FAMILIES.indexOf(INSTRUMENTS[instrument].pigment);
    const cell = Math.round(x * CELLS) % CELLS;
    sums[family * CELLS + cell]! += velocity / groove.bars;
    const place = Math.round(x * PLACES);
    parted[place % PLACES]! += x * PLACES - place;
    counts[place % PLACES]! += 1;
  }
  return {
    cells: Uint8Array.from(sums, (sum) => Math.min(255, Math.round(sum * 2))),
    late: Int8Array.from(parted, (sum, at) => (counts[at] ? Math.round((sum / counts[at]!) * 254) : 0)),
    swing: groove.feel.percent,
    bar: bar / 960,
    meter: meterText(groove.meter),
    bpm: groove.bpm,
  };
};

/** Played a hair early or late is nearly the same rhythm: each cell counts a little for those beside it. */
const spread = (cells: Uint8Array, family: number): Float64Array => {
  const out = new Float64Array(CELLS);
  for (let i = 0; i < CELLS; i++) {
    const value = cells[family * CELLS + i]!;
    if (!value) continue;
    out[i]! += value;
    out[(i + 1) % CELLS]! += value / 2;
    out[(i + CELLS - 1) % CELLS]! += value / 2;
  }
  return out;
};

const cosine = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let [both, first, second] = [0, 0, 0];
  for (let i = 0; i < a.length; i++) {
    both += a[i]! * b[i]!;
    first += a[i]! * a[i]!;
    second += b[i]! * b[i]!;
  }
  return first && second ? both / Math.sqrt(first * second) : first === second ? 1 : 0;
};

/** Kick and snare tell a rhythm most. */
const WEIGHTS = [3, 3, 2, 1, 1];

const rhythm = (a: Likeness, b: Likeness): number => {
  let [sum, weights] = [0, 0];
  FAMILIES.forEach((_, family) => {
    const [x, y] = [spread(a.cells, family), spread(b.cells, family)];
    if (!x.some(Boolean) && !y.some(Boolean)) return;
    sum += WEIGHTS[family]! * cosine(x, y);
    weights += WEIGHTS[family]!;
  });
  return weights ? sum / weights : 0;
};

/** Where the weight of the bar lies, whatever it is played on. */
const accents = (a: Likeness, b: Likeness): number => {
  const shape = ({ cells }: Likeness) =>
    Float64Array.from({ length: PLACES }, (_, place) => {
      let sum = 0;
      for (let family = 0; family < FAMILIES.length; family++)
        for (let i = 0; i < CELLS / PLACES; i++) sum += cells[family * CELLS + place * (CELLS / PLACES) + i]!;
      return sum * sum;
    });
  return cosine(shape(a), shape(b));
};

/** How far apart two feels may be and still have something in common: in points of swing, and in shares of a place. */
const SWING_APART = 12;
const LATE_APART = 70;

/** How far two feels agree, 0 to 1. @example feelAgrees(likenessOf(groove), likenessOf(groove)) // 1 */
export const feelAgrees = (a: Likeness, b: Likeness): number => {
  const swing = Math.max(0, 1 - Math.abs(a.swing - b.swing) / SWING_APART);
  let [apart, both] = [0, 0];
  for (let i = 0; i < PLACES; i++) {
    if (!a.late[i] || !b.late[i]) continue;
    apart += Math.abs(a.late[i]! - b.late[i]!);
    both += 1;
  }
  const late = both ? Math.max(0, 1 - apart / both / LATE_APART) : swing;
  return (swing + late) / 2;
};

const sameBar = (a: Likeness, b: Likeness): boolean =>
  Math.abs(a.bar - b.bar) < 1e-6 && (a.meter === undefined || b.meter === undefined || a.meter === b.meter);

/** So many octaves of tempo apart, nothing of it is alike: 90 and 128 BPM are half an octave. */
const TEMPO_APART = 0.75;

/**
 * How near two tempos are, 0 to 1; unknown ones do not count against it. Twice as fast is felt as nearly the same.
 *
 * @example tempoAgrees(likenessOf(groove), likenessOf(groove)) // 1
 */
export const tempoAgrees = (a: Likeness, b: Likeness): number => {
  if (!a.bpm || !b.bpm) return 1;
  const octaves = Math.abs(Math.log2(a.bpm / b.bpm));
  const straight = Math.max(0, 1 - octaves / TEMPO_APART);
  const doubled = 0.7 * Math.max(0, 1 - Math.abs(octaves - 1) / TEMPO_APART);
  return Math.max(straight, doubled);
};

/** The meter comes first: what is in another one is never as alike as anything in the same. */
const metered = (a: Likeness, b: Likeness, score: number): number =>
  sameBar(a, b) ? 0.5 + 0.5 * score : 0.5 * score;

/**
 * How alike two grooves are in meter, rhythm, accents, feel and tempo, 0 to 1; a groove is wholly like itself. In the same
 * meter it is at least 0.5, in another at most that.
 *
 * @example alike(likenessOf(groove), likenessOf(groove)) // 1
 */
export const alike = (a: Likeness, b: Likeness): number =>
  metered(
    a,
    b,
    0.5 * rhythm(a, b) + 0.15 * accents(a, b) + 0.2 * feelAgrees(a, b) + 0.15 * tempoAgrees(a, b),
  );

/** How well something goes with another, in words. @example goesText(0.95) // "goes well" */
export const goesText = (score: number): string => {
  if (score < 0.5) return 'in another meter';
  return score > 0.9 ? 'goes well' : score > 0.75 ? 'goes' : 'goes with care';
};

/** How well a fill or a percussion part goes with a groove: by its meter, its feel and its tempo. */
export const goesWith = (a: Likeness, b: Likeness): number =>
  metered(a, b, 0.7 * feelAgrees(a, b) + 0.3 * tempoAgrees(a, b));
