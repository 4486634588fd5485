import type { DrumGroup } from '../../document/choices';
import { drumGroupOfNote } from '../../document/drumGroups';
import { lastNotAbove } from '../../numbers';
import type { MidiData, MidiEvent } from 'midi-file';
import type { Meter } from '../../document/meter';
import { changingBars, nextBarLine, type Bars } from '../../feel/bars';
import type { Performance } from '../../analysis/performance';
import { tempoMap, type TempoMap } from '../../play/tempoMap';
import { FILE_BOUNDS, MOST_TICKS } from './limits';
import {
  QUARTER,
  ticksPerMs,
  type Bpm,
  type Channel,
  type MidiNote,
  type Ticks,
  type Velocity,
} from '../../units';

/** A note of a file, with the events that it came from. */
export interface ReadNote {
  track: number;
  /** Ticks of the file. */
  start: number;
  end: number;
  note: MidiNote;
  channel: Channel;
  velocity: Velocity;
  /** Its events' places in the track; a note that is never let go has no end. */
  on: number;
  off: number | null;
}

/** A Standard MIDI File with its notes found. */
export interface MidiFile {
  format: number;
  ppq: number;
  tracks: MidiEvent[][];
  /** In order of track, then of time. */
  notes: ReadNote[];
  /** Where each track ends, in ticks of the file. */
  ends: number[];
  bars: Bars;
  meter: Meter;
  /** The tempo of the first notes, and how many come after it: one that comes later than they do leaves them at 120. */
  tempo: Bpm;
  tempoChanges: number;
  /** At a position of 960 to the quarter. */
  ticksPerMs: (position: Ticks) => number;
  /** Where each tempo begins, at 960 to the quarter. */
  tempos: TempoMap;
}

/** The notes of one track: an end belongs to the earliest open start of its number. */
const trackNotes = (events: MidiEvent[], track: number): { notes: ReadNote[]; end: number } => {
  const notes: ReadNote[] = [];
  // Notes that wait for their end, and how many of them have had it: a file may hold very many that never end.
  const open = new Map<number, { waiting: ReadNote[]; ended: number }>();
  let tick = 0;
  events.forEach((event, at) => {
    tick += event.deltaTime;
    if (event.type !== 'noteOn' && event.type !== 'noteOff') return;
    const key = event.channel * 128 + event.noteNumber;
    const same = open.get(key) ?? { waiting: [], ended: 0 };
    open.set(key, same);
    if (event.type === 'noteOn') {
      const note: ReadNote = {
        track,
        start: tick,
        end: -1,
        note: event.noteNumber,
        channel: event.channel + 1,
        velocity: event.velocity,
        on: at,
        off: null,
      };
      notes.push(note);
      same.waiting.push(note);
    } else {
      const first = same.waiting[same.ended];
      if (!first) return;
      first.end = tick;
      first.off = at;
      same.ended += 1;
    }
  });
  for (const note of notes) if (note.end < 0) note.end = tick;
  return { notes, end: tick };
};

interface Change<T> {
  at: Ticks;
  value: T;
}

/** The values of a kind of event over time, in order; tracks of a file run side by side. */
const changes = <T>(
  tracks: MidiEvent[][],
  scale: number,
  of: (event: MidiEvent) => T | null,
): Change<T>[] => {
  const found: Change<T>[] = [];
  for (const events of tracks) {
    let tick = 0;
    for (const event of events) {
      tick += event.deltaTime;
      const value = of(event);
      if (value !== null) found.push({ at: tick * scale, value });
    }
  }
  return found.sort((a, b) => a.at - b.at).slice(0, FILE_BOUNDS.changes);
};

/** The note values that a bar is counted in; finer ones are in no use. */
const MOST_UNIT = 64;

/**
 * The meter of a time signature if bars can be counted in it, also one that a beat cannot have. null for other events, and
 * for note values finer than a 64th.
 *
 * @example meterOf({ type: 'timeSignature', numerator: 7, denominator: 8 }) // { beats: 7, unit: 8 }
 */
export const meterOf = (event: MidiEvent): Meter | null =>
  event.type === 'timeSignature' && event.numerator > 0 && event.denominator <= MOST_UNIT
    ? { beats: event.numerator, unit: event.denominator as Meter['unit'] }
    : null;

const tempoOf = (event: MidiEvent): number | null =>
  event.type === 'setTempo' && event.microsecondsPerBeat > 0 ? 60e6 / event.microsecondsPerBeat : null;

const COMMON: Meter = { beats: 4, unit: 4 };
const TEMPO = 120;

const tempoAt = (tempos: Change<number>[]): ((position: Ticks) => number) => {
  if (tempos.length < 2) {
    const rate = ticksPerMs(tempos[0]?.value ?? TEMPO);
    // The only tempo, but one that comes later than the start leaves what is before it at 120.
    const from = tempos[0]?.at ?? 0;
    return from > 0 ? (position) => (position < from ? ticksPerMs(TEMPO) : rate) : () => rate;
  }
  const from = (place: number): Ticks => tempos[place]!.at;
  return (position) => {
    const at = lastNotAbove(tempos.length, from, position);
    return ticksPerMs(at < 0 ? TEMPO : tempos[at]!.value);
  };
};

/** How many of its time signatures cannot be counted in. @example metersLeftOut(file.tracks) // 0 */
export const metersLeftOut = (tracks: MidiEvent[][]): number =>
  tracks.flat().filter((event) => event.type === 'timeSignature' && !meterOf(event)).length;

/**
 * The meaning of a file's events. No time signature means 4/4, no tempo 120 BPM.
 *
 * @param ppq ticks a quarter
 */
export const fileOf = (data: MidiData, ppq: number): MidiFile => {
  const scale = QUARTER / ppq;
  const meters = changes(data.tracks, scale, meterOf);
  const first = meters[0] && meters[0].at === 0 ? [] : [{ at: 0, value: COMMON }];
  const all = [...first, ...meters].filter(({ at }, index, list) => list[index + 1]?.at !== at);
  const read = data.tracks.map(trackNotes);
  const tempos = changes(data.tracks, scale, tempoOf);
  const notes = read.flatMap((one) => one.notes);
  const begins = notes.reduce((least, { start }) => Math.min(least, start), Infinity) * scale;
  // What begins after the first notes is not what they are played at.
  const late = !!tempos[0] && tempos[0].at > 0 && tempos[0].at > begins;
  return {
    format: data.header.format,
    ppq,
    tracks: data.tracks,
    notes,
    ends: read.map(({ end }) => end),
    bars: changingBars(all.map(({ at, value }) => ({ at, meter: value }))),
    meter: all[0]!.value,
    tempo: late ? TEMPO : (tempos[0]?.value ?? TEMPO),
    tempoChanges: Math.max(0, tempos.length - (late ? 0 : 1)),
    ticksPerMs: tempoAt(tempos),
    tempos: tempoMap([
      ...(tempos[0]?.at === 0 ? [] : [{ at: 0, bpm: TEMPO }]),
      ...tempos.map(({ at, value }) => ({ at, bpm: value })),
    ]),
  };
};

/** A lane of a file: one channel and number. @example laneOfNote({ channel: 10, note: 36 }) // "10/36" */
export const laneOfNote = ({ channel, note }: Pick<ReadNote, 'channel' | 'note'>): string =>
  `${channel}/${note}`;

/** The group of drums that a lane of a file belongs to; null off channel 10. @example drumGroupOfFile('10/38') // "snare" */
export const drumGroupOfFile = (lane: string): DrumGroup | null => {
  const [channel, note] = lane.split('/');
  return channel === '10' ? drumGroupOfNote(Number(note)) : null;
};

/** Where the bar that a position lies in ends. */
const barEnd = (bars: Bars, position: Ticks): Ticks => nextBarLine(bars.at(position), position);

/**
 * The whole bars of a file: up to the end of the bar that the last note begins in, or to where its tracks end if that is
 * on a later bar line.
 *
 * @example wholeBars(file) % 3840 // 0
 */
export const wholeBars = (file: MidiFile): Ticks => {
  const scale = QUARTER / file.ppq;
  const last = file.notes.reduce((most, { start }) => Math.max(most, start), 0) * scale;
  const end = file.ends.reduce((most, one) => Math.max(most, one), 0) * scale;
  const length = barEnd(file.bars, last);
  const lastBar = barEnd(file.bars, Math.max(0, end - 1e-6));
  // Silence beyond all bounds at the end is not counted.
  return Math.abs(lastBar - end) < 1e-6 && end <= MOST_TICKS ? Math.max(length, end) : length;
};

/**
 * The notes of a file as a performance to be measured, or to take a template from.
 *
 * @example performanceOf(file).notes.length === file.notes.length // true
 */
export const performanceOf = (file: MidiFile): Performance => ({
  notes: file.notes.map((note) => ({
    at: (note.start * QUARTER) / file.ppq,
    velocity: note.velocity,
    lane: laneOfNote(note),
  })),
  bars: file.bars,
  meter: file.meter,
  ticksPerMs: file.ticksPerMs,
  length: wholeBars(file),
});
