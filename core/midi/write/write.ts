import { FILE_HEAD, smfOf, TRACK_HEAD } from '../bytes';
import { writeMidi, type MidiEvent } from 'midi-file';
import type { Meter } from '../../document/meter';
import { emptyColumns, type NoteColumns } from './noteColumns';

/** The content of a Standard MIDI File. */
export interface MidiSong {
  format: 0 | 1;
  /** Ticks a quarter note, 1 to 32767. */
  ppq: number;
  name: string;
  /** Microseconds a quarter from a tick on; these and the next in order of time, the first at 0. */
  tempos: { tick: number; micros: number }[];
  meters: { tick: number; meter: Meter }[];
  markers: { tick: number; text: string }[];
  tracks: { name: string; notes: NoteColumns }[];
  /** Where every track ends, in ticks of the file. */
  end: number;
}

/** The package writes one byte a character; MIDI texts are bytes, by custom UTF-8. */
const bytesAsText = (text: string): string => {
  let out = '';
  for (const byte of new TextEncoder().encode(text)) out += String.fromCharCode(byte);
  return out;
};

/** An event at its tick. */
interface Placed {
  tick: number;
  event: MidiEvent;
}

/** The events of the whole: its name, tempos, meters and markers. */
const conductor = ({ name, tempos, meters, markers }: MidiSong): Placed[] =>
  [
    { tick: 0, event: { deltaTime: 0, meta: true, type: 'trackName', text: bytesAsText(name) } as MidiEvent },
    ...tempos.map(({ tick, micros }) => ({
      tick,
      event: { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: micros } as MidiEvent,
    })),
    ...meters.map(({ tick, meter }) => ({
      tick,
      event: {
        deltaTime: 0,
        meta: true,
        type: 'timeSignature',
        numerator: meter.beats,
        denominator: meter.unit,
        metronome: (24 * 4) / meter.unit,
        thirtyseconds: 8,
      } as MidiEvent,
    })),
    ...markers.map(({ tick, text }) => ({
      tick,
      event: { deltaTime: 0, meta: true, type: 'marker', text: bytesAsText(text) } as MidiEvent,
    })),
  ].sort((a, b) => a.tick - b.tick);

const DIGIT = 1 << 16;

/** One stable pass of a radix sort: brings items into the order of sixteen bits of their keys. */
const byDigit = (items: Uint32Array, keys: Uint32Array, shift: number): Uint32Array => {
  const places = new Uint32Array(DIGIT + 1);
  for (const item of items) places[((keys[item]! >>> shift) & (DIGIT - 1)) + 1]! += 1;
  for (let digit = 0; digit < DIGIT; digit++) places[digit + 1]! += places[digit]!;
  const out = new Uint32Array(items.length);
  for (const item of items) out[places[(keys[item]! >>> shift) & (DIGIT - 1)]!++] = item;
  return out;
};

/**
 * The order of a track: by tick, ends before starts. Event 2i is the start of note i, 2i + 1 its end. By digits and not
 * by comparing, so that four times the notes cost four times the time.
 */
const inOrder = ({ size, tick, length }: NoteColumns): { order: Uint32Array; keys: Uint32Array } => {
  const keys = new Uint32Array(size * 2);
  for (let i = 0; i < size; i++) {
    keys[2 * i] = tick[i]! * 2 + 1;
    keys[2 * i + 1] = (tick[i]! + length[i]!) * 2;
  }
  const unordered = new Uint32Array(size * 2);
  for (let i = 0; i < unordered.length; i++) unordered[i] = i;
  return { order: byDigit(byDigit(unordered, keys, 0), keys, 16), keys };
};

/** Writes a number seven bits a byte, all but the last marked. Returns where it ends. */
const writeVarInt = (bytes: Uint8Array, at: number, value: number): number => {
  for (let shift = 21; shift > 0; shift -= 7)
    if (value >= 1 << shift) bytes[at++] = ((value >> shift) & 0x7f) | 0x80;
  bytes[at++] = value & 0x7f;
  return at;
};

/** The longest time between events, and with it the three bytes of a note. */
const MOST_TIME_BYTES = 4;
const MOST_EVENT_BYTES = MOST_TIME_BYTES + 3;
const RELEASE = 64;

/**
 * The bytes of notes on and off. Written here and not by the package, which makes an object of each event and copies
 * all it has written so far at every longer number: it takes minutes for 100,000 notes.
 */
const noteBytes = (notes: NoteColumns, others: Placed[]): { bytes: Uint8Array; last: number } => {
  const { size } = notes;
  const said = others.map(({ tick, event }) => ({ tick, body: eventBytes([event]).slice(1) }));
  const room = said.reduce((sum, { body }) => sum + body.length + MOST_TIME_BYTES, 0);
  const bytes = new Uint8Array(size * 2 * MOST_EVENT_BYTES + room);
  let at = 0;
  let last = 0;
  let next = 0;
  /** All that stands before a tick, or on it. */
  const say = (until: number): void => {
    for (; next < said.length && said[next]!.tick <= until; next++) {
      const { tick, body } = said[next]!;
      at = writeVarInt(bytes, at, tick - last);
      bytes.set(body, at);
      at += body.length;
      last = tick;
    }
  };
  const { order, keys } = inOrder(notes);
  for (const event of order) {
    const i = event >>> 1;
    const tick = keys[event]! >>> 1;
    say(tick);
    const on = (event & 1) === 0;
    at = writeVarInt(bytes, at, tick - last);
    bytes[at++] = (on ? 0x90 : 0x80) | (notes.channel[i]! - 1);
    bytes[at++] = notes.note[i]!;
    bytes[at++] = on ? notes.velocity[i]! : RELEASE;
    last = tick;
  }
  say(Infinity);
  return { bytes: bytes.subarray(0, at), last };
};

const endOfTrack = (deltaTime: number): MidiEvent => ({ deltaTime, meta: true, type: 'endOfTrack' });

/** The bytes of a few events, by the package: a file of one track without its heads. */
const eventBytes = (events: MidiEvent[]): number[] =>
  writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 960 }, tracks: [events] }).slice(
    FILE_HEAD + TRACK_HEAD,
  );

const joined = (pieces: ArrayLike<number>[]): Uint8Array => {
  const out = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    out.set(piece, at);
    at += piece.length;
  }
  return out;
};

const trackBytes = (song: MidiSong, track: MidiSong['tracks'][number]): Uint8Array => {
  const name: MidiEvent = { deltaTime: 0, meta: true, type: 'trackName', text: bytesAsText(track.name) };
  const { bytes, last } = noteBytes(
    track.notes,
    song.format === 0 ? conductor(song) : [{ tick: 0, event: name }],
  );
  return joined([bytes, eventBytes([endOfTrack(song.end - last)])]);
};

/**
 * The bytes of a Standard MIDI File. Format 1 keeps tempo and time signature in a first track of their own.
 *
 * @returns a file that strict readers take: nothing overlaps, every track ends at `song.end`
 */
export const writeSong = (song: MidiSong): Uint8Array => {
  const tracks = song.tracks.map((track) => trackBytes(song, track));
  if (song.format === 1) {
    const { bytes, last } = noteBytes(emptyColumns(0), conductor(song));
    tracks.unshift(joined([bytes, eventBytes([endOfTrack(song.end - last)])]));
  }
  return smfOf(song.format, song.ppq, tracks);
};
