import type { Bpm, Ms } from '../units';

/**
 * Follows a clock of 24 ticks a quarter whose ticks come with jitter: a straight line through the times of the last ticks says
 * how fast it goes and where it stands, which is a loop of second order. The line is fitted in the norm that suits the jitter: for
 * jitter within bounds a high one, for jitter with far outliers a low one, as told by its kurtosis (A. H. Money, J. F. Affleck-Graves,
 * M. L. Hart and G. D. I. Barr, "The linear regression model: Lp norm estimation and the choice of p", Communications in
 * Statistics B 11, 1982: p = 9 / kurtosis² + 1).
 */

export const CLOCKS_A_QUARTER = 24;

/** The line that is believed: tick `n` comes at `at + n * period`, counted from the first tick that was heard. */
interface Line {
  at: Ms;
  period: Ms;
}

export interface ClockState {
  /** Null until it is known. */
  bpm: Bpm | null;
  /** Whether ticks come. */
  runs: boolean;
}

/** It goes by the ticks of the last four seconds, and of no more than this many. */
const WINDOW_MS: Ms = 4000;
const MOST_TICKS = 240;
const LEAST_TICKS = 4;
/** Without a tick for so long, the clock is taken to have stopped. */
export const STOPPED_MS: Ms = 1500;
/** From so many ticks on, a gap is known for one; ticks may come so much too late. */
const KNOWN_TICKS = 12;
const JITTER_MS: Ms = 12;
const SLOWEST: Bpm = 20;
const FASTEST: Bpm = 320;
const TURNS = 16;
/** The least by which a tempo is taken to have changed: so many ticks in a row lie off the line on one side. */
const CHANGED_TICKS = 8;
const BEFORE_TICKS = 16;
/** And on the mean by so many times the usual distance. */
const CHANGED_BY = 2.4;

interface Heard {
  n: number;
  time: Ms;
}

const kurtosis = (values: readonly number[]): number => {
  const square = values.reduce((sum, x) => sum + x * x, 0) / values.length;
  const fourth = values.reduce((sum, x) => sum + x ** 4, 0) / values.length;
  return square > 1e-12 ? fourth / (square * square) : 3;
};

const weighted = (heard: readonly Heard[], weights: readonly number[]): Line => {
  let [w, x, y, xx, xy] = [0, 0, 0, 0, 0];
  const [first] = heard;
  heard.forEach(({ n, time }, at) => {
    const k = weights[at]!;
    const [dx, dy] = [n - first!.n, time - first!.time];
    w += k;
    x += k * dx;
    y += k * dy;
    xx += k * dx * dx;
    xy += k * dx * dy;
  });
  const below = w * xx - x * x;
  const period = below > 1e-9 ? (w * xy - x * y) / below : 0;
  return { period, at: first!.time + (y - period * x) / w - period * first!.n };
};

const offOf = (line: Line, { n, time }: Heard): Ms => time - line.at - n * line.period;

/** Jitter that keeps within bounds has a kurtosis of 1.8, that of many small causes 3. */
const BOUNDED = 2.15;
const BOUNDED_NORM = 10;

const normFor = (heard: readonly Heard[], line: Line): number => {
  const k = kurtosis(heard.map((one) => offOf(line, one)));
  return k < BOUNDED ? BOUNDED_NORM : Math.max(1.3, 9 / k ** 2 + 1);
};

/** A line through ticks, in the norm that suits them. */
const fitted = (heard: readonly Heard[]): Line => {
  let line = weighted(
    heard,
    heard.map(() => 1),
  );
  if (heard.length < 12) return line;
  const p = normFor(heard, line);
  // To a high norm it goes by those between: at once, the farthest tick alone would turn the line about itself.
  for (let turn = 1; turn <= TURNS; turn++) {
    const now = 2 + ((p - 2) * Math.ceil(turn / 2)) / (TURNS / 2);
    const off = heard.map((one) => Math.abs(offOf(line, one)));
    const most = Math.max(...off, 1e-6);
    const next = weighted(
      heard,
      off.map((one) => Math.max(0.01, one / most) ** (now - 2)),
    );
    const step = now > 2 ? 1 / (now - 1) : 1;
    line = {
      at: line.at + (next.at - line.at) * step,
      period: line.period + (next.period - line.period) * step,
    };
  }
  return line;
};

const squares = (heard: readonly Heard[]): number => {
  const line = weighted(
    heard,
    heard.map(() => 1),
  );
  return heard.reduce((sum, one) => sum + offOf(line, one) ** 2, 0);
};

/** Where among the last ticks the tempo changed: the parting that leaves the least error; null where it did not. */
const changedAt = (heard: readonly Heard[]): number | null => {
  const last = heard.slice(-CHANGED_TICKS);
  const before = heard.slice(0, -CHANGED_TICKS);
  if (before.length < BEFORE_TICKS) return null;
  const own = weighted(
    before,
    before.map(() => 1),
  );
  const usual = Math.sqrt(before.reduce((sum, one) => sum + offOf(own, one) ** 2, 0) / before.length);
  const mean = last.reduce((sum, one) => sum + offOf(own, one), 0) / last.length;
  if (Math.abs(mean) < Math.max(1, CHANGED_BY * usual)) return null;
  let [best, least] = [heard.length - CHANGED_TICKS, Infinity];
  for (let at = heard.length - 3 * CHANGED_TICKS; at <= heard.length - LEAST_TICKS; at++) {
    if (at < LEAST_TICKS) continue;
    const error = squares(heard.slice(0, at)) + squares(heard.slice(at));
    if (error < least) [best, least] = [at, error];
  }
  return best;
};

/**
 * A follower of a clock: it is told of ticks as they come, and says how fast the clock goes and where it stands.
 *
 * @example createClockFollower().ticksAt(0) // null
 */
export const createClockFollower = () => {
  let heard: Heard[] = [];
  let count = 0;
  let lastAt: Ms = -Infinity;
  /** Worked out when it is asked for: ticks come more often than that. */
  let line: Line | null = null;
  let known = true;
  /** The next tick is the first one, however long it is since the last. */
  let fresh = false;

  const believed = (): Line | null => {
    if (!known) line = heard.length < 2 ? null : fitted(heard);
    known = true;
    return line;
  };
  /** The usual distance of two ticks; null where that is not known yet. */
  const usual = (): Ms | null => {
    if (heard.length < KNOWN_TICKS) return null;
    const [first, last] = [heard[0]!, heard.at(-1)!];
    return (last.time - first.time) / (last.n - first.n);
  };
  const isLost = (since: Ms): boolean => since > 2.5 * (usual() ?? Infinity) + JITTER_MS;
  /** Whether the first tick after a start comes where the clock before would have had one. */
  const runsOn = (since: Ms): boolean => Math.abs(since - (usual() ?? Infinity)) <= JITTER_MS;

  return {
    /** Its ticks are counted anew from the next one on, after a start or a song position; how fast it goes is still known. */
    restart: (): void => {
      const shift = (heard.at(-1)?.n ?? -1) + 1;
      heard = heard.map(({ n, time }) => ({ n: n - shift, time }));
      count = 0;
      known = false;
      fresh = true;
    },
    /** A tick came at a time of the page's clock. */
    tick: (time: Ms): void => {
      const since = time - lastAt;
      // A clock that stood still meanwhile begins anew where it is told to, and not where it would have come to.
      if (since > 4 * STOPPED_MS || (fresh && !runsOn(since))) heard = [];
      else if (isLost(since)) {
        // Ticks were lost: as many as fit into the gap.
        const { at, period } = believed()!;
        count = Math.max(count, Math.round((time - at) / period));
      }
      fresh = false;
      lastAt = time;
      heard.push({ n: count, time });
      count += 1;
      while (heard.length > MOST_TICKS || (heard.length > LEAST_TICKS && time - heard[0]!.time > WINDOW_MS))
        heard.shift();
      const at = changedAt(heard);
      if (at !== null) heard = heard.slice(at);
      known = false;
    },
    /** How many ticks came, or were lost, since the last start. */
    ticks: (): number => count,
    /** Where the clock stands at a time, in its ticks since the last start, the first being 0; null while that is not known. */
    ticksAt: (time: Ms): number | null => {
      const now = believed();
      return now && heard.length >= LEAST_TICKS ? (time - now.at) / now.period : null;
    },
    state: (now: Ms = lastAt): ClockState => {
      const period = believed()?.period ?? 0;
      const bpm = period > 0 ? 60_000 / (CLOCKS_A_QUARTER * period) : null;
      return {
        bpm: bpm !== null && heard.length >= LEAST_TICKS && bpm >= SLOWEST && bpm <= FASTEST ? bpm : null,
        runs: now - lastAt < STOPPED_MS,
      };
    },
  };
};
