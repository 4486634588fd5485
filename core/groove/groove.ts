import type { InstrumentId } from '../document/instruments';
import type { Meter } from '../document/meter';
import type { LanePattern } from '../document/schema';
import type { Bpm, Channel, MidiNote, Ticks } from '../units';
import { barTicks } from '../document/meter';

/** The role of a groove in its family. */
export const GROOVE_KINDS = ['main', 'variation', 'fill', 'ending', 'percussion', 'file'] as const;
export type GrooveKind = (typeof GROOVE_KINDS)[number];

/** Where a groove is from. */
export const SOURCES = ['built-in', 'imported', 'folder'] as const;
export type Source = (typeof SOURCES)[number];

/** How the steps of a groove lie: even, in pairs of long and short, or in threes. */
export interface GrooveFeel {
  kind: 'straight' | 'swung' | 'triplet';
  /** 50 is straight. */
  percent: number;
}

/** The row of a groove in a list. */
export interface GrooveRow {
  /** For good: keepers go by it. */
  id: string;
  name: string;
  style: string;
  kind: GrooveKind;
  source: Source;
  /** The folders that it lies in, from the outermost. */
  path: string[];
  meter: Meter;
  bars: number;
  /** Where other meters begin, on bar lines; left out, there is one throughout. */
  meters?: { at: Ticks; meter: Meter }[];
  /** Where its last bar ends, where meters change. */
  end?: Ticks;
  bpm: Bpm;
  /** The slowest and the fastest that it was made for. */
  tempos: [Bpm, Bpm];
  feel: GrooveFeel;
  /** Its instruments, each once; left out where that was not kept. */
  instruments?: InstrumentId[] | undefined;
  /** The instrument that keeps time. */
  timekeeper: InstrumentId | null;
  tags: string[];
  /** Whether one drummer can play it; left out where that is not known. */
  playable?: boolean;
}

/** The hits of one instrument. */
export interface GrooveLane {
  instrument: InstrumentId;
  /** As it came: the note it is written with. */
  note: MidiNote;
  channel: Channel;
  /** Its map has no instrument for the note: it is kept, and goes by its number. */
  unknown?: true;
  /** Its hits have pitches: it is no drum, and its note is the lowest. */
  tuned?: true;
  part: LanePattern;
}

/** A groove with its hits: they lie where they were played, so that it needs no feel of its own. */
export interface Groove extends GrooveRow {
  lanes: GrooveLane[];
}

/** How long a groove is, in ticks. @example grooveTicks({ meter: { beats: 4, unit: 4 }, bars: 2 }) // 7680 */
export const grooveTicks = ({ meter, bars }: Pick<Groove, 'meter' | 'bars'>): Ticks => barTicks(meter) * bars;

/** "Straight", "Swung 58 %" or "Triplet". @example feelWords({ kind: 'swung', percent: 58.3 }) // "Swung 58 %" */
export const feelWords = ({ kind, percent }: GrooveFeel): string =>
  kind === 'swung' ? `Swung ${Math.round(percent)} %` : kind === 'triplet' ? 'Triplet' : 'Straight';

/** How many hits a groove has, in all its lanes. @example hitCount({ lanes: [] }) // 0 */
export const hitCount = ({ lanes }: Pick<Groove, 'lanes'>): number =>
  lanes.reduce((sum, { part }) => sum + part.hits.length, 0);
