import { SONG } from '../../document/choices';
import { barTicks, type Meter } from '../../document/meter';
import type { Ticks } from '../../units';

/** A bar of a file. */
export interface BarOfFile {
  from: Ticks;
  meter: Meter;
}

/**
 * The bars of a file, by the meters that it says, each one that a beat can have.
 *
 * @param total where its last bar ends
 * @example barsOfFile([], 7680).length // 2
 */
export const barsOfFile = (meters: { at: Ticks; meter: Meter }[], total: Ticks): BarOfFile[] => {
  const bars: BarOfFile[] = [];
  let meter: Meter = { beats: 4, unit: 4 };
  let next = 0;
  for (let at = 0; at < total - 1e-6; at += barTicks(meter)) {
    while (next < meters.length && meters[next]!.at <= at + 1e-6) {
      meter = meters[next++]!.meter;
    }
    bars.push({ from: at, meter });
  }
  return bars;
};

/** Bars that are a pattern of the song. */
export interface Run {
  first: number;
  /** Of the pattern. */
  bars: number;
  /** For how long it is repeated. */
  length: number;
}

const PERIODS = [1, 2, 4, 8];
const MOST_PATTERN_BARS = 16;

/** The period with which bars repeat from a place on, and for how long; null where they do not. */
const repeatFrom = (texts: string[], first: number, end: number): Run | null => {
  let best: Run | null = null;
  for (const bars of PERIODS) {
    let length = bars;
    while (first + length < end && texts[first + length] === texts[first + length - bars]) length += 1;
    if (length >= 2 * bars && (!best || length > best.length)) best = { first, bars, length };
  }
  return best;
};

/** Bars as patterns, one after the other: those that repeat, and what lies between in one piece. */
export const runsOf = (texts: string[], bars: BarOfFile[], first: number, end: number): Run[] => {
  const runs: Run[] = [];
  const sameMeter = (a: number, b: number) =>
    bars[a]!.meter.beats === bars[b]!.meter.beats && bars[a]!.meter.unit === bars[b]!.meter.unit;
  for (let at = first; at < end;) {
    const repeat = repeatFrom(texts, at, end);
    const last = runs[runs.length - 1];
    if (repeat) {
      const length = Math.min(repeat.length, SONG.bars);
      runs.push({ ...repeat, length });
      at += length;
    } else {
      const goesOn =
        last &&
        last.bars === last.length &&
        last.bars < MOST_PATTERN_BARS &&
        last.first + last.length === at &&
        sameMeter(last.first, at);
      if (goesOn) {
        last.bars += 1;
        last.length += 1;
      } else runs.push({ first: at, bars: 1, length: 1 });
      at += 1;
    }
  }
  return runs;
};
