import { pushVarint, smfOf } from '../bytes';
import { modulo } from '../../numbers';
import type { MidiEvent } from 'midi-file';
import { drumGroupOfNote } from '../../document/drumGroups';
import type { Feel, LaneFeel } from '../../document/feelSchema';
import { prepareFeel, sharedPinks } from '../../feel/prepareFeel';
import type { Pinks } from '../../feel/stage';
import { feelStrokes } from '../../feel/feelStrokes';
import type { Struck } from '../../feel/struck';
import { hashText } from '../../random/draw';
import { clamp, QUARTER, type MidiNote, type Ms, type Ticks } from '../../units';
import { laneOfNote, wholeBars, type MidiFile, type ReadNote } from '../read/midiFile';
import { eventBytes, noteBytes, type NoteEvent } from '../write/wholeTracks';

/** What is to be done with a file's notes. */
export interface FeelFileOptions {
  /** Its `lanes` are left empty: what lanes have of their own is given by note. */
  feel: Feel;
  /** In ms, by note number. */
  offsets: ReadonlyMap<MidiNote, Ms>;
  /** What would start before the beginning comes in at the end of the file's whole bars; otherwise it is held at 0. */
  wrap: boolean;
}

/** What was done. */
export interface FeltFile {
  bytes: Uint8Array;
  notes: number;
  /** How many stand elsewhere than before, in ticks of the file. */
  moved: number;
  /** How many became one with a louder one less than 1 ms away. */
  merged: number;
  /** How many found no tick of their own before the end of the loop. */
  dropped: number;
  /** How many would have started before the beginning, or past the end of a loop. */
  carried: number;
}

interface FileStroke extends Struck {
  of: ReadNote;
}

/** The step that a note of a file counts as, for what is drawn at random. */
const CELL: Ticks = 60;

const strokesOf = (notes: ReadNote[], scale: number): FileStroke[] => {
  const sorted = [...notes].sort((a, b) => a.start - b.start);
  let [cell, hitIndex] = [-1, 0];
  return sorted.map((of) => {
    const at = of.start * scale;
    const step = Math.floor(at / CELL);
    hitIndex = step === cell ? hitIndex + 1 : 0;
    cell = step;
    return {
      of,
      at,
      velocity: of.velocity,
      tick: at,
      force: of.velocity,
      tie: null,
      lead: null,
      pitch: 0,
      delay: -0,
      otherDelay: -0,
      cycle: 0,
      step,
      hitIndex,
      kind: 'main',
      stroke: 0,
      sounds: true,
      gridTick: at,
      into: null,
      moved: 0,
    };
  });
};

interface Placed {
  of: ReadNote;
  start: number;
  end: number;
  velocity: number;
}

interface Counts {
  merged: number;
  dropped: number;
  carried: number;
}

const laneFeelOf = (offset: Ms | undefined): Record<string, LaneFeel> =>
  offset === undefined ? {} : { lane: { offset } };

/** The notes of one lane where they sound, in ticks of the file, before they are told apart. */
const laneNotes = (
  file: MidiFile,
  notes: ReadNote[],
  { feel, offsets, wrap }: FeelFileOptions,
  total: number,
  counts: Counts,
  pinks: Pinks,
): Placed[] => {
  const scale = QUARTER / file.ppq;
  const strokes = strokesOf(notes, scale);
  const [first] = notes;
  const stages = prepareFeel(
    { ...feel, lanes: laneFeelOf(offsets.get(first!.note)) },
    {
      id: 'lane',
      key: hashText(laneOfNote(first!)),
      grid: '1/16',
      group: drumGroupOfNote(first!.note),
      random: 2,
      bars: file.bars,
      ticksPerMs: file.ticksPerMs,
      mean: notes.reduce((sum, { velocity }) => sum + velocity, 0) / notes.length,
      pass: Infinity,
      pinks,
    },
  );
  feelStrokes(stages, strokes);
  const out: Placed[] = [];
  for (const { of, tick, force, into } of strokes) {
    if (into) {
      counts.merged += 1;
      continue;
    }
    const wanted = Math.round(tick / scale);
    const start = wrap ? modulo(wanted, total) : Math.max(0, wanted);
    if (start !== wanted) counts.carried += 1;
    const velocity = clamp(Math.round(force), 1, 127);
    out.push({ of, start, end: start + of.end - of.start, velocity });
  }
  return out.sort((a, b) => a.start - b.start);
};

/** Every note its own tick, none sounding into the next; what finds no room before the end gives way to a louder one. */
const toldApart = (notes: Placed[], total: number, counts: Counts): Placed[] => {
  const out: Placed[] = [];
  for (const note of notes) {
    const before = out[out.length - 1];
    const start = before && note.start <= before.start ? before.start + 1 : note.start;
    const length = note.end - note.start;
    if (start >= total && before) {
      counts.dropped += 1;
      if (note.velocity > before.velocity) out[out.length - 1] = { ...note, start: before.start };
      continue;
    }
    out.push({ ...note, start, end: start + Math.max(1, length) });
  }
  out.forEach((note, i) => (note.end = Math.min(note.end, out[i + 1]?.start ?? total)));
  return out;
};

interface Timed {
  tick: number;
  /** Ends come before all else on a tick, starts after all else. */
  rank: 0 | 1 | 2;
  bytes: number[];
}

/** @param own the places of the events that notes were made of; an end without a start is none of them, and stays */
const trackBytes = (events: MidiEvent[], notes: Placed[], own: ReadonlySet<number>): number[] => {
  const timed: Timed[] = [];
  for (const { of, start, end, velocity } of notes) {
    timed.push({ tick: start, rank: 2, bytes: noteBytes(events[of.on] as NoteEvent, velocity) });
    if (of.off === null) continue;
    const off = events[of.off] as NoteEvent;
    timed.push({ tick: end, rank: 0, bytes: noteBytes(off, off.velocity) });
  }
  let tick = 0;
  let last = 0;
  events.forEach((event, at) => {
    tick += event.deltaTime;
    if (event.type === 'endOfTrack') last = tick;
    else if (!own.has(at)) timed.push({ tick, rank: 1, bytes: eventBytes(event) });
  });
  timed.sort((a, b) => a.tick - b.tick || a.rank - b.rank);
  const bytes: number[] = [];
  let now = 0;
  for (const { tick: at, bytes: event } of timed) {
    pushVarint(bytes, at - now);
    for (const byte of event) bytes.push(byte);
    now = at;
  }
  pushVarint(bytes, Math.max(0, last - now));
  bytes.push(0xff, 0x2f, 0);
  return bytes;
};

/**
 * Gives a file's notes a feel. A lane is one channel and number, over all tracks. Everything else in the file stays as it
 * was: tempo, texts, controllers, division, format, order of tracks; a track ends later only where a note needs it.
 */
export const feelFile = (file: MidiFile, options: FeelFileOptions): FeltFile => {
  const lanes = new Map<string, ReadNote[]>();
  for (const note of file.notes) {
    const key = laneOfNote(note);
    const list = lanes.get(key);
    if (list) list.push(note);
    else lanes.set(key, [note]);
  }
  const counts: Counts = { merged: 0, dropped: 0, carried: 0 };
  const total = options.wrap ? Math.round((wholeBars(file) * file.ppq) / QUARTER) : Infinity;
  const byTrack = file.tracks.map((): Placed[] => []);
  const own = file.tracks.map(() => new Set<number>());
  for (const { track, on, off } of file.notes) {
    own[track]!.add(on);
    if (off !== null) own[track]!.add(off);
  }
  let moved = 0;
  const pinks = sharedPinks();
  for (const notes of lanes.values())
    for (const note of toldApart(laneNotes(file, notes, options, total, counts, pinks), total, counts)) {
      byTrack[note.of.track]!.push(note);
      if (note.start !== note.of.start) moved += 1;
    }
  const bytes = smfOf(
    file.format,
    file.ppq,
    file.tracks.map((events, track) => trackBytes(events, byTrack[track]!, own[track]!)),
  );
  return { bytes, notes: byTrack.reduce((sum, { length }) => sum + length, 0), moved, ...counts };
};
