import { inOrder, placed, positionOf } from '../document/position';
import { barTicks, type Meter } from '../document/meter';
import { gridTicks } from '../document/grid';
import type { Hit } from '../document/schema';
import { clamp, type Bpm, type Ticks } from '../units';
import { grooveTicks, type Groove, type GrooveLane } from './groove';

/** How much as fast as it was played a groove is taken. */
export const TIMES = ['1/2', '2/3', '3/4', '1', '4/3', '3/2', '2'] as const;
export type Times = (typeof TIMES)[number];

/** As a number. @example timesOf('3/2') // 1.5 */
export const timesOf = (times: Times): number => {
  const [over, under = 1] = times.split('/').map(Number) as [number, number?];
  return over / under;
};

/** As people say it. */
export const TIMES_NAMES: Record<Times, string> = {
  '1/2': 'Half time',
  '2/3': '2 : 3',
  '3/4': '3 : 4',
  '1': 'As it is',
  '4/3': '4 : 3',
  '3/2': '3 : 2',
  '2': 'Double time',
};

export interface Fit {
  times: Times;
  /** How long it is to be, 1 to 16; null is as many whole bars as it fills. */
  bars: number | null;
}

export const MOST_BARS = 16;

/**
 * How many bars a groove has at a time: as many as it fills, the last one whole, 16 at the most.
 *
 * @example fittedBars({ meter: { beats: 4, unit: 4 }, bars: 4 }, { times: '2', bars: null }) // 2
 */
export const fittedBars = (groove: Pick<Groove, 'meter' | 'bars'>, fit: Fit): number =>
  Math.min(MOST_BARS, wholeFitBars(groove, fit));

/** The same without a limit: all that there is of it. */
export const wholeFitBars = ({ bars: own }: Pick<Groove, 'bars'>, { times, bars }: Fit): number =>
  Math.max(1, bars ?? Math.ceil(own / timesOf(times) - 1e-9));

/** A roll without a length of its own is one step long, and becomes shorter or longer with all else. */
const lengthAt = ({ length, roll }: Hit, speed: number): number | null =>
  length === null && !roll ? null : clamp((length ?? 1) / speed, 1e-3, 64);

/** The hits of a lane at another speed, repeated until `length` is full; what begins beyond it is cut off. */
const fittedHits = (lane: GrooveLane, speed: number, period: number, length: number): Hit[] => {
  const { grid, hits } = lane.part;
  const out: Hit[] = [];
  for (let round = 0; round * period < length - 1e-6; round++)
    for (const hit of hits) {
      const at = positionOf(hit, grid) / speed + round * period;
      if (at >= length - 1e-6) continue;
      out.push({
        ...hit,
        ...placed(Math.max(at, -gridTicks(grid) / 2), grid),
        length: lengthAt(hit, speed),
      });
    }
  return inOrder(out);
};

/**
 * A groove at another speed and length, always whole bars: cut where it is longer, from its beginning again where it is
 * shorter.
 *
 * @example fitGroove({ ...groove, bars: 4 }, { times: '2', bars: null }).bars // 2
 */
export const fitGroove = (groove: Groove, fit: Fit): Groove => fitTo(groove, fit, fittedBars(groove, fit));

const fitTo = (groove: Groove, fit: Fit, bars: number): Groove => {
  const speed = timesOf(fit.times);
  if (speed === 1 && bars === groove.bars) return groove;
  const length = bars * barTicks(groove.meter);
  const period = grooveTicks(groove) / speed;
  return {
    ...groove,
    bars,
    lanes: groove.lanes.map((lane) => ({
      ...lane,
      part: { ...lane.part, hits: fittedHits(lane, speed, period, length) },
    })),
  };
};

/** The bars of a groove, by the meters that it says. */
const barsOf = ({ meter, bars, meters = [], end: said }: Groove): { from: Ticks; meter: Meter }[] => {
  const end = said ?? bars * barTicks(meter);
  const out: { from: Ticks; meter: Meter }[] = [];
  let now = meter;
  let next = 0;
  for (let at = 0; at < end - 1e-6; at += barTicks(now)) {
    while (next < meters.length && meters[next]!.at <= at + 1e-6) now = meters[next++]!.meter;
    out.push({ from: at, meter: now });
  }
  return out;
};

const steady = ({ meters: _meters, end: _end, ...groove }: Groove): Groove => groove;

const sameMeter = (a: Meter, b: Meter): boolean => a.beats === b.beats && a.unit === b.unit;

/** All of a groove at a speed, however long it is; its meters are kept only as it is. */
export const allAt = (groove: Groove, times: Times): Groove => {
  const fit: Fit = { times, bars: null };
  const whole = fitTo(groove, fit, wholeFitBars(groove, fit));
  return times === '1' ? whole : steady(whole);
};

/**
 * A groove in pieces that a pattern can hold: at most 16 bars of one meter each. What stands a hair before a piece is an early
 * first beat of it.
 *
 * @param times how much as fast as it was played; meters that change are kept only as it is
 * @example piecesOf({ ...groove, bars: 40 }, '1').map(({ bars }) => bars) // [16, 16, 8]
 */
export const piecesOf = (groove: Groove, times: Times = '1'): Groove[] => {
  const whole = allAt(groove, times);
  const bars = barsOf(whole);
  const runs: { from: Ticks; to: Ticks; meter: Meter; bars: number }[] = [];
  for (const { from, meter } of bars) {
    const last = runs[runs.length - 1];
    const to = from + barTicks(meter);
    if (last && last.bars < MOST_BARS && sameMeter(last.meter, meter))
      Object.assign(last, { to, bars: last.bars + 1 });
    else runs.push({ from, to, meter, bars: 1 });
  }
  if (runs.length < 2) return [{ ...whole, meter: runs[0]?.meter ?? whole.meter }];
  return runs.map(({ from, to, meter, bars: count }, at) => {
    const lanes = whole.lanes.map((lane) => {
      const early = gridTicks(lane.part.grid) / 2;
      const isLast = at === runs.length - 1;
      const hits = lane.part.hits.flatMap((hit): Hit[] => {
        const position = positionOf(hit, lane.part.grid);
        const begins = at === 0 ? -Infinity : from - early;
        if (position < begins || position >= (isLast ? to : to - early)) return [];
        return [{ ...hit, ...placed(position - from, lane.part.grid) }];
      });
      return { ...lane, part: { ...lane.part, hits: inOrder(hits) } };
    });
    return { ...steady(whole), meter, bars: count, lanes: lanes.filter(({ part }) => part.hits.length) };
  });
};

/** How far beyond its range a tempo must lie to be far. */
const FAR = 1.08;

/**
 * What there is to say of a groove at a tempo it was not made for; null where it fits.
 *
 * @example tempoNote({ bpm: 90, tempos: [80, 100] }, 170)
 *   // "Made for 80 to 100 BPM; at 170 it runs fast. Half time would give 85."
 */
export const tempoNote = (
  { tempos: [low, high] }: { bpm: Bpm; tempos: [Bpm, Bpm] },
  bpm: Bpm,
): string | null => {
  const slow = bpm * FAR < low;
  if (!slow && bpm <= high * FAR) return null;
  const about = Math.round(bpm);
  const told = `Made for ${Math.round(low)} to ${Math.round(high)} BPM; at ${about} it ${slow ? 'drags' : 'runs fast'}.`;
  const feels = slow ? bpm * 2 : bpm / 2;
  const word = slow ? 'Double' : 'Half';
  const fits = feels * FAR >= low && feels <= high * FAR;
  const given = `${told} ${word} time would give ${Math.round(feels)}`;
  return fits ? `${given}.` : `${given}, which is outside it too.`;
};
