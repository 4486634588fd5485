import { positionOf } from '../document/position';
import { barTicks, type Meter } from '../document/meter';
import { gridTicks, type Grid } from '../document/grid';
import type { Hit, LanePattern } from '../document/schema';
import { rollStrokes } from '../play/strokes';
import { clamp, ticksPerMs, type Bpm, type Ticks } from '../units';
import { grooveTicks, type Groove, type GrooveLane } from './groove';
import { earlyAtLines } from './early';
import { layOut, type TimedHit } from './layOut';

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

/** How long the roll of a hit lasts where it was written: it ends at the lane's next hit and with the groove. */
const rollSpan = (hit: Hit, next: Hit | undefined, grid: Grid, period: Ticks): Ticks => {
  const at = positionOf(hit, grid);
  const until = next ? positionOf(next, grid) : period;
  return Math.max(1, Math.min((hit.length ?? 1) * gridTicks(grid), until - at));
};

/** A roll that is cut: its strokes that still begin before the end, each a hit of its own. */
const cutRoll = (hit: Hit, at: Ticks, span: Ticks, length: Ticks): TimedHit[] => {
  const { roll, ...plain } = hit;
  return rollStrokes(roll!, span).flatMap(({ from }, index): TimedHit[] => {
    if (at + from >= length - 1e-6) return [];
    const { grace, ...rest } = plain;
    const velocity = clamp(Math.round(hit.velocity * roll!.levels[index]!), 1, 127);
    return [{ at: at + from, hit: { ...rest, ...(grace && !index && { grace }), velocity, length: null } }];
  });
};

/** The hits of a lane at another speed, repeated until `length` is full; what begins beyond it is cut off. */
const fittedPart = (part: LanePattern, speed: number, period: Ticks, length: Ticks): LanePattern => {
  const { grid, hits } = part;
  const g = gridTicks(grid);
  const timed = hits.flatMap((hit, index) => {
    const at = positionOf(hit, grid) / speed;
    const span = hit.roll && rollSpan(hit, hits[index + 1], grid, period * speed) / speed;
    const long = span ?? (hit.length === null ? null : (hit.length * g) / speed);
    const shaped: Hit = { ...hit, length: long === null ? null : clamp(long / g, 1e-3, 64) };
    const out: TimedHit[] = [];
    for (let round = 0; round * period < length - 1e-6; round++) {
      const begins = at + round * period;
      if (begins >= length - 1e-6) break;
      if (span !== undefined && begins + span > length + 1e-6)
        out.push(...cutRoll(shaped, begins, span, length));
      else out.push({ at: begins, hit: shaped });
    }
    return out;
  });
  return { ...part, ...layOut(timed, grid, length) };
};

/**
 * A groove at another speed and length, always whole bars: cut where it is longer, from its beginning again where it is
 * shorter. Every hit stands at its time divided by the speed; a lane takes a finer grid where its own cannot hold that.
 *
 * @example fitGroove({ ...groove, bars: 4 }, { times: '2', bars: null }).bars // 2
 */
export const fitGroove = (groove: Groove, fit: Fit): Groove =>
  atSpeed(groove, timesOf(fit.times), fittedBars(groove, fit));

/**
 * A groove at any speed, so many bars long.
 *
 * @param speed how much as fast as it was played, above 0
 * @param bars 1 or more
 * @example atSpeed({ ...groove, bars: 4 }, 1.25, 4).bars // 4
 */
export const atSpeed = (groove: Groove, speed: number, bars: number): Groove => {
  if (speed === 1 && bars === groove.bars) return groove;
  const length = bars * barTicks(groove.meter);
  const period = grooveTicks(groove) / speed;
  return {
    ...groove,
    bars,
    lanes: groove.lanes.map((lane) => ({ ...lane, part: fittedPart(lane.part, speed, period, length) })),
  };
};

/**
 * The grid that hits had to be put on since their own was too coarse for them; null where none had to.
 *
 * @param before the groove as it is written
 * @param after the same at another speed or length
 * @example finerGrid(groove, groove) // null
 */
export const finerGrid = (before: Pick<Groove, 'lanes'>, after: Pick<Groove, 'lanes'>): Grid | null => {
  const coarse = new Set(before.lanes.map(({ part }) => part.grid));
  const finer = after.lanes.map(({ part }) => part.grid).filter((grid) => !coarse.has(grid));
  return finer.sort((a, b) => gridTicks(a) - gridTicks(b))[0] ?? null;
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
  const whole = atSpeed(groove, timesOf(times), wholeFitBars(groove, { times, bars: null }));
  return times === '1' ? whole : steady(whole);
};

/**
 * A groove in pieces that a pattern can hold: at most 16 bars of one meter each. What stands a hair before a piece is an early
 * first beat of it.
 *
 * @param times how much as fast as it was played; meters that change are kept only as it is
 * @example groovePiecesOf({ ...groove, bars: 40 }, '1').map(({ bars }) => bars) // [16, 16, 8]
 */
export const groovePiecesOf = (groove: Groove, times: Times = '1'): Groove[] => {
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
    const lanes = whole.lanes.map((lane): GrooveLane => {
      const { grid, hits } = lane.part;
      const positions = hits.map((hit) => positionOf(hit, grid));
      const isLast = at === runs.length - 1;
      const leads = (line: Ticks) => earlyAtLines(positions, [line], () => ticksPerMs(groove.bpm));
      const [own, next] = [at === 0 ? null : leads(from), isLast ? null : leads(to)];
      const timed = hits.flatMap((hit, index): TimedHit[] => {
        const position = positions[index]!;
        const belongs =
          own?.has(index) || ((at === 0 || position >= from) && position < to && !next?.has(index));
        return belongs ? [{ at: position - from, hit }] : [];
      });
      return { ...lane, part: { ...lane.part, ...layOut(timed, grid, to - from) } };
    });
    return { ...steady(whole), meter, bars: count, lanes: lanes.filter(({ part }) => part.hits.length) };
  });
};

/** How far beyond its range a tempo must lie to be far. */
const FAR = 1.08;

/**
 * A remark about a groove at a tempo it was not made for; null where it fits.
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
