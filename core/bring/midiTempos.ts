import type { BarOfFile } from '../midi/convert/midiBars';
import { barTicks } from '../document/meter';
import type { MidiFile } from '../midi/read/midiFile';
import { microsOf, secondsAt, tempoAt } from '../play/tempoMap';
import { clamp, QUARTER, TEMPO, type Bpm, type Ms, type Seconds, type Ticks } from '../units';

/**
 * How the tempos of a file become those of sections. A section has one tempo, or one that changes evenly from its start to its
 * end; where a file does anything else within a section, another section begins.
 */

/** A row of bars with one tempo, or one that changes evenly. */
export interface TempoPiece {
  /** Its first bar, and the one after its last. */
  from: number;
  to: number;
  tempo: Bpm;
  /** The tempo reached at its end; left out, it stays. */
  reached?: Bpm;
}

/** A tempo that changes little by little does so in sixteenths. */
const STEP: Ticks = 240;

/** Two decimals where these say it to the microsecond that a file does, else four. */
const told = (bpm: Bpm): Bpm => {
  const short = Math.round(bpm * 100) / 100;
  const held = microsOf(short) === microsOf(bpm) ? short : Math.round(bpm * 10_000) / 10_000;
  return clamp(held, TEMPO.least, TEMPO.most);
};

const endOf = (bars: BarOfFile[], bar: number): Ticks =>
  bar < bars.length ? bars[bar]!.from : bars.at(-1)!.from + barTicks(bars.at(-1)!.meter);

const secondsOf = (ticks: Ticks, bpm: Bpm): Seconds => (ticks * microsOf(bpm)) / (QUARTER * 1e6);

/** Where it is looked at, and how far off is too far. */
interface Stretch {
  from: Ticks;
  to: Ticks;
  enough: Seconds;
}

interface Try {
  tempo: Bpm;
  reached?: Bpm;
  /** The farthest that any place in it stands from where the file has it. */
  off: Seconds;
}

/** How far a tempo, or a change of it, is from what the file does between two places; looked at no further than `enough`. */
const offOf = ({ tempos }: MidiFile, { from, to, enough }: Stretch, tempo: Bpm, reached?: Bpm): Seconds => {
  const start = secondsAt(tempos, from);
  let [time, most] = [0, 0];
  for (let at = from; at < to - 1e-6; at += STEP) {
    const until = Math.min(to, at + STEP);
    const bpm = reached === undefined ? tempo : tempo + ((reached - tempo) * (at - from)) / (to - from);
    time += secondsOf(until - at, bpm);
    most = Math.max(most, Math.abs(secondsAt(tempos, until) - start - time));
    if (most > enough) return Infinity;
  }
  return most;
};

const fitted = (file: MidiFile, stretch: Stretch): Try => {
  const { from, to } = stretch;
  const begin = told(tempoAt(file.tempos, from));
  const steady: Try = { tempo: begin, off: offOf(file, stretch, begin) };
  if (steady.off < 1e-6) return steady;
  const tries: Try[] = [steady];
  const seconds = secondsAt(file.tempos, to) - secondsAt(file.tempos, from);
  const even = told(((to - from) / QUARTER / seconds) * 60);
  tries.push({ tempo: even, off: offOf(file, stretch, even) });
  const steps = Math.ceil((to - from) / STEP);
  if (steps > 1) {
    const last = tempoAt(file.tempos, to - STEP / 2);
    const reached = told(begin + ((last - begin) * steps) / (steps - 1));
    if (reached !== begin) tries.push({ tempo: begin, reached, off: offOf(file, stretch, begin, reached) });
  }
  return tries.reduce((best, one) => (one.off < best.off - 1e-6 ? one : best));
};

/** The distance that a note may stand off before another section begins; where that needs too many sections, more. */
const ALLOWED: Ms[] = [1, 4, 16, 64, 256, Infinity];

const piecesWithin = (
  file: MidiFile,
  bars: BarOfFile[],
  starts: number[],
  allowed: Seconds,
): { pieces: TempoPiece[]; off: Seconds } => {
  const pieces: TempoPiece[] = [];
  let most = 0;
  const tryOf = (from: number, to: number, enough = Infinity): Try =>
    fitted(file, { from: endOf(bars, from), to: endOf(bars, to), enough });
  const good = (from: number, to: number): Try | null => {
    const one = tryOf(from, to, allowed);
    return one.off <= allowed ? one : null;
  };
  starts.forEach((start, at) => {
    const end = starts[at + 1] ?? bars.length;
    for (let from = start; from < end;) {
      let best = good(from, end);
      let to = end;
      if (!best) {
        // Twice as far as long as it goes, then halved: how far one tempo, or one change of it, carries.
        let [low, high] = [1, 2];
        while (from + high < end && good(from, from + high)) [low, high] = [high, high * 2];
        high = Math.min(high, end - from);
        while (high - low > 1) {
          const middle = (low + high) >> 1;
          if (good(from, from + middle)) low = middle;
          else high = middle;
        }
        to = from + low;
        best = tryOf(from, to);
      }
      most = Math.max(most, best.off);
      const { tempo, reached } = best;
      pieces.push({ from, to, tempo, ...(reached !== undefined && { reached }) });
      from = to;
    }
  });
  return { pieces, off: most };
};

/**
 * The tempos of a file bar by bar, as few pieces as keep every place within 1 ms of where it was; more than that only where it
 * would take more pieces than a song has sections.
 *
 * @param starts the bars at which a piece begins in any case, in order, the first of them 0
 * @param most how many pieces there may be
 * @returns the pieces, and by how many ms a note stands off at the most
 */
export const tempoPieces = (
  file: MidiFile,
  bars: BarOfFile[],
  starts: number[],
  most: number,
): { pieces: TempoPiece[]; off: Ms } => {
  for (const allowed of ALLOWED) {
    const { pieces, off } = piecesWithin(file, bars, starts, allowed / 1000);
    if (pieces.length <= Math.max(most, starts.length) || allowed === Infinity)
      return { pieces, off: off * 1000 };
  }
  return { pieces: [], off: 0 };
};
