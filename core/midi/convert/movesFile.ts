import { barStart, nextBarLine } from '../../feel/bars';
import { clamp, QUARTER, type MidiNote, type Ticks } from '../../units';
import { wholeBars, type MidiFile, type ReadNote } from '../read/midiFile';
import { rewritten, toldApart, type Placed } from '../write/rewritten';

/** Moves of a file's notes: repeats, and another order of its slots. */

/** The outcome. */
export interface MovedFile {
  bytes: Uint8Array;
  /** How many notes the file had, and has now. */
  before: number;
  notes: number;
  /** How many gave way to a louder one less than 1 ms away, and how many found no tick of their own. */
  merged: number;
  dropped: number;
}

export interface FileEchoes {
  /** The note numbers that are repeated; null is all. */
  notes: ReadonlySet<MidiNote> | null;
  count: number;
  /** In ticks of 960 to the quarter, or in ms. */
  rate: { ticks: Ticks } | { ms: number };
  slope: number;
  interval: number;
  withoutHit: boolean;
}

interface Repeat extends Placed {
  /** A repeat, and not the note itself. */
  added: boolean;
}

const asItIs = (of: ReadNote): Repeat => ({
  of,
  start: of.start,
  end: of.end,
  velocity: of.velocity,
  note: of.note,
  added: false,
});

const repeatsOf = (file: MidiFile, of: ReadNote, how: FileEchoes): Repeat[] => {
  const scale = QUARTER / file.ppq;
  const step = 'ticks' in how.rate ? how.rate.ticks : how.rate.ms * file.ticksPerMs(of.start * scale);
  return Array.from({ length: how.count }, (_, at): Repeat => {
    const j = at + 1;
    const start = Math.round(of.start + (j * step) / scale);
    return {
      of,
      start,
      end: start + Math.max(1, of.end - of.start),
      velocity: Math.round(clamp(of.velocity * how.slope ** j, 1, 127)),
      note: clamp(of.note + j * how.interval, 0, 127),
      added: true,
    };
  });
};

/** Notes by channel and number, in order of time. */
const lanesOf = (notes: Repeat[]): Repeat[][] => {
  const lanes = new Map<string, Repeat[]>();
  for (const one of notes) {
    const key = `${one.of.channel}/${one.note}`;
    const list = lanes.get(key);
    if (list) list.push(one);
    else lanes.set(key, [one]);
  }
  return [...lanes.values()].map((lane) => lane.sort((a, b) => a.start - b.start));
};

/** A repeat less than 1 ms from another note of its number gives way to the louder. */
const mergedRepeats = (file: MidiFile, lane: Repeat[]): Repeat[] => {
  const out: Repeat[] = [];
  for (const one of lane) {
    const before = out[out.length - 1];
    const scale = QUARTER / file.ppq;
    const near =
      before &&
      (before.added || one.added) &&
      (one.start - before.start) * scale < file.ticksPerMs(before.start * scale);
    if (!near) out.push(one);
    else if (one.velocity > before.velocity) out[out.length - 1] = one;
  }
  return out;
};

const finished = (file: MidiFile, lanes: Repeat[][]): MovedFile => {
  const counts = { dropped: 0 };
  let merged = 0;
  const placed = lanes.flatMap((lane) => {
    const kept = mergedRepeats(file, lane);
    merged += lane.length - kept.length;
    return toldApart(kept, Infinity, counts);
  });
  return {
    bytes: rewritten(file, placed),
    before: file.notes.length,
    notes: placed.length,
    merged,
    dropped: counts.dropped,
  };
};

/** Repeats notes of a file, each repeat so much later, softer or louder, higher or lower than the one before. */
export const echoFile = (file: MidiFile, how: FileEchoes): MovedFile => {
  const all = file.notes.flatMap((of) => {
    if (how.notes && !how.notes.has(of.note)) return [asItIs(of)];
    return [...(how.withoutHit ? [] : [asItIs(of)]), ...repeatsOf(file, of, how)];
  });
  return finished(file, lanesOf(all));
};

export interface FileDetour {
  notes: ReadonlySet<MidiNote> | null;
  over: 'bar' | 'all';
  /** For each slot from which slot it plays, from 1; 0 is silence. */
  route: readonly number[];
}

/** Plays the slots of each bar of a file, or of all of it, in another order. */
export const detourFile = (file: MidiFile, { notes, over, route }: FileDetour): MovedFile => {
  const scale = QUARTER / file.ppq;
  const whole = wholeBars(file);
  const all = file.notes.flatMap((of): Repeat[] => {
    if (notes && !notes.has(of.note)) return [asItIs(of)];
    const at = of.start * scale;
    const span = file.bars.at(at);
    const from = over === 'all' ? 0 : barStart(span, at);
    const to = over === 'all' ? whole : nextBarLine(span, at);
    const slot = (to - from) / route.length;
    const source = Math.min(route.length - 1, Math.floor((at - from) / slot + 1e-9));
    return route.flatMap((plays, target): Repeat[] => {
      if (plays !== source + 1) return [];
      const start = Math.round((at + (target - source) * slot) / scale);
      return [{ ...asItIs(of), start, end: start + of.end - of.start, added: target !== source }];
    });
  });
  return finished(file, lanesOf(all));
};
