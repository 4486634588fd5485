import type { Bpm, Seconds } from '../units';
import type { Onset } from './onsets';

/** Taken once: looked up at every onset they would cost more than what they do. */
const { abs, cos, exp, log2, PI } = Math;

/** How long a loop may be taken to be, and how fast that makes it. */
export interface LoopTempo {
  bars: number;
  bpm: Bpm;
  /** How likely it is against the others, 0 to 1; all together are 1. */
  likely: number;
}

/** How many bars loops have, and how often against one another: a guess at what people cut. */
const BARS: [bars: number, share: number][] = [
  [1, 0.7],
  [2, 1],
  [3, 0.08],
  [4, 1],
  [6, 0.06],
  [8, 0.8],
  [12, 0.05],
  [16, 0.4],
];

/** Slower or faster than this nobody calls it. */
const SLOWEST = 50;
const FASTEST = 215;
/** Around this tempo most are, and so many octaves from it two thirds. */
const USUAL = 105;
const SPREAD = 0.6;

/** The tempo of a loop from its length. @example bpmOf(2, 1) // 120 */
export const bpmOf = (seconds: Seconds, bars: number, quarters = 4): Bpm => (bars * quarters * 60) / seconds;

/**
 * How well onsets stand on a grid: 1 where all do, near 0 where they stand anywhere. The strong ones count more.
 *
 * @param grid the length of a slot
 * @example meets([{ at: 0.5, strength: 1 }], 0.25) // 1
 */
export const meets = (onsets: readonly Onset[], grid: Seconds): number => {
  let [sum, all] = [0, 0];
  for (const { at, strength } of onsets) {
    sum += strength * cos((2 * PI * at) / grid);
    all += strength;
  }
  return all ? sum / all : 0;
};

/** Where a rhythm repeats after a bar, hits stand where hits stood a bar before. */
const repeats = (onsets: readonly Onset[], bar: Seconds, seconds: Seconds): number => {
  if (bar > seconds * 0.75) return 0.5;
  let [sum, all] = [0, 0];
  for (const { at, strength } of onsets) {
    const then = (at + bar) % seconds;
    const near = onsets.some((one) => abs(one.at - then) < 0.025);
    sum += near ? strength : 0;
    all += strength;
  }
  return all ? sum / all : 0.5;
};

/**
 * How far low strokes stand on the first and third beat and those above them on the second and fourth, -1 to 1: at half or
 * double the tempo both stand alike, and it is 0.
 */
const backbeat = (onsets: readonly Onset[], beat: Seconds): number => {
  let [sum, all] = [0, 0];
  for (const { at, strength, low = 0, mid = 0 } of onsets) {
    sum += strength * (low - mid) * cos((PI * at) / beat);
    all += strength * abs(low - mid);
  }
  return all ? sum / all : 0;
};

/** Other evidence of a loop's tempo. */
export interface TempoHints {
  /** The name of its file, which may tell it: “quay_90bpm.wav”. */
  file?: string;
  /** The tempo of the beat that it is brought into. */
  beat?: Bpm | undefined;
}

/** How much a backbeat tells, against how usual a tempo is. */
const BACKBEAT = 2.5;
/** Three quarters of loops with the tempo of a beat are made for it; those with a tempo in their name nearly all have it. */
const LIKE_BEAT = 3;
const NAMED = 300;

/** The tempo that the name of a file tells; null where it tells none. @example tempoInName('quay_90bpm_2.wav') // 90 */
export const tempoInName = (file: string): Bpm | null => {
  const [, before, after] = /(\d{2,3}(?:[.,]\d+)?)[ _-]?bpm|bpm[ _-]?(\d{2,3}(?:[.,]\d+)?)/i.exec(file) ?? [];
  const bpm = Number((before ?? after ?? '').replace(',', '.'));
  return bpm >= 20 && bpm <= 400 ? bpm : null;
};

const near = (a: Bpm, b: Bpm | null | undefined): boolean => !!b && abs(a / b - 1) < 0.025;

/**
 * The tempos that a loop may have, from its length and a whole number of bars, the likeliest first: by how well its hits meet a grid
 * of sixteenths or of triplets, whether it repeats after a bar, and how usual the tempo and the number of bars are.
 *
 * @param seconds the length of the loop
 * @param quarters how many quarter notes a bar has
 * @param hints what else tells it: the name of the file above all, and the beat's tempo
 * @example loopTempos([{ at: 0, strength: 1 }, { at: 1, strength: 1 }], 2)[0]!.bpm // 120
 */
export const loopTempos = (
  onsets: readonly Onset[],
  seconds: Seconds,
  quarters = 4,
  hints: TempoHints = {},
): LoopTempo[] => {
  const { file, beat } = hints;
  const named = file ? tempoInName(file) : null;
  const all = BARS.flatMap(([bars, share]) => {
    const bpm = bpmOf(seconds, bars, quarters);
    if (bpm < SLOWEST || bpm > FASTEST) return [];
    const sixteenth = 15 / bpm;
    // Swung sixteenths stand off the grid, their eighths on it.
    const grid = Math.max(
      meets(onsets, sixteenth),
      0.9 * meets(onsets, 20 / bpm),
      0.55 + 0.35 * meets(strongest(onsets), 2 * sixteenth),
    );
    const usual = exp(-0.5 * (log2(bpm / USUAL) / SPREAD) ** 2);
    const hinted = (near(bpm, named) ? NAMED : 1) * (near(bpm, beat) ? LIKE_BEAT : 1);
    const weight =
      share *
      usual *
      hinted *
      exp(3 * grid + 1.2 * repeats(onsets, 240 / bpm, seconds) + BACKBEAT * backbeat(onsets, 60 / bpm));
    return [{ bars, bpm, weight }];
  });
  const sum = all.reduce((total, { weight }) => total + weight, 0);
  return all
    .sort((a, b) => b.weight - a.weight)
    .map(({ bars, bpm, weight }) => ({ bars, bpm, likely: weight / sum }));
};

/** The half of the onsets that is the stronger. */
const strongest = (onsets: readonly Onset[]): Onset[] =>
  [...onsets].sort((a, b) => b.strength - a.strength).slice(0, Math.ceil(onsets.length / 2));
