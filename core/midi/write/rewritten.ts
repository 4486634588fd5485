import type { MidiEvent } from 'midi-file';
import type { MidiNote } from '../../units';
import { pushVarint, smfOf } from '../bytes';
import type { MidiFile, ReadNote } from '../read/midiFile';
import { eventBytes, noteBytes, type NoteEvent } from './wholeTracks';

/** A file written again with other notes; all else in it stays as it was. */

/** A note of a file where it is to be written. */
export interface Placed {
  of: ReadNote;
  start: number;
  end: number;
  velocity: number;
  /** Its number; the channel stays. */
  note: MidiNote;
}

/** Every note its own tick, none sounding into the next; what finds no room before the end gives way to a louder one. */
export const toldApart = (notes: Placed[], total: number, counts: { dropped: number }): Placed[] => {
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

const numbered = (event: NoteEvent, noteNumber: MidiNote): NoteEvent => ({ ...event, noteNumber });

interface Timed {
  tick: number;
  /** Ends come before all else on a tick, starts after all else. */
  rank: 0 | 1 | 2;
  bytes: number[];
}

/** The tempo of a file written anew: where each begins, in ticks of the file, in microseconds a quarter. */
export type NewTempos = { tick: number; micros: number }[];

const tempoBytes = (micros: number): number[] => [
  0xff,
  0x51,
  3,
  (micros >> 16) & 0xff,
  (micros >> 8) & 0xff,
  micros & 0xff,
];

/**
 * @param own the places of the events that notes were made of; an end without a start is none of them, and stays
 * @param tempos in the place of those that it has; null leaves them
 */
const trackBytes = (
  events: MidiEvent[],
  notes: Placed[],
  own: ReadonlySet<number>,
  tempos: NewTempos | null,
): number[] => {
  const timed: Timed[] = [];
  for (const { tick, micros } of tempos ?? []) timed.push({ tick, rank: 0, bytes: tempoBytes(micros) });
  for (const { of, start, end, velocity, note } of notes) {
    timed.push({
      tick: start,
      rank: 2,
      bytes: noteBytes(numbered(events[of.on] as NoteEvent, note), velocity),
    });
    if (of.off === null) continue;
    const off = numbered(events[of.off] as NoteEvent, note);
    timed.push({ tick: end, rank: 0, bytes: noteBytes(off, off.velocity) });
  }
  let tick = 0;
  let last = 0;
  events.forEach((event, at) => {
    tick += event.deltaTime;
    if (event.type === 'endOfTrack') last = tick;
    else if (!own.has(at) && !(tempos && event.type === 'setTempo'))
      timed.push({ tick, rank: 1, bytes: eventBytes(event) });
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
 * The bytes of a file with other notes. Tempo, texts, controllers, division, format and order of tracks stay; a track ends later
 * only where a note needs it.
 *
 * @param notes each in the track that it came from
 * @param tempos in the place of those that the file has; left out, they stay
 */
export const rewritten = (
  file: MidiFile,
  notes: readonly Placed[],
  tempos: NewTempos | null = null,
): Uint8Array => {
  const byTrack = file.tracks.map((): Placed[] => []);
  const own = file.tracks.map(() => new Set<number>());
  for (const { track, on, off } of file.notes) {
    own[track]!.add(on);
    if (off !== null) own[track]!.add(off);
  }
  for (const note of notes) byTrack[note.of.track]!.push(note);
  return smfOf(
    file.format,
    file.ppq,
    file.tracks.map((events, track) =>
      trackBytes(events, byTrack[track]!, own[track]!, tempos && (track ? [] : tempos)),
    ),
  );
};
