import { writeMidi, type MidiEvent } from 'midi-file';
import type { Meter } from '../beat/meter';
import type { Bpm } from '../units';
import type { NoteColumns } from './noteColumns';

/** What a Standard MIDI File is to hold. */
export interface MidiSong {
  format: 0 | 1;
  /** Ticks a quarter note, 1 to 32767. */
  ppq: number;
  tempo: Bpm;
  meter: Meter;
  name: string;
  marker: string;
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

const conductor = (song: MidiSong): MidiEvent[] => [
  { deltaTime: 0, meta: true, type: 'trackName', text: bytesAsText(song.name) },
  { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: Math.round(60e6 / song.tempo) },
  {
    deltaTime: 0,
    meta: true,
    type: 'timeSignature',
    numerator: song.meter.beats,
    denominator: song.meter.unit,
    metronome: (24 * 4) / song.meter.unit,
    thirtyseconds: 8,
  },
  { deltaTime: 0, meta: true, type: 'marker', text: bytesAsText(song.marker) },
];

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

/** The longest time between events, and the three bytes of a note. */
const MOST_EVENT_BYTES = 7;
const RELEASE = 64;

/**
 * The bytes of notes on and off. Written here and not by the package, which makes an object of each event and copies
 * all it has written so far at every longer number: it takes minutes for 100,000 notes.
 */
const noteBytes = (notes: NoteColumns): { bytes: Uint8Array; last: number } => {
  const { size } = notes;
  const bytes = new Uint8Array(size * 2 * MOST_EVENT_BYTES);
  let at = 0;
  let last = 0;
  const { order, keys } = inOrder(notes);
  for (const event of order) {
    const i = event >>> 1;
    const tick = keys[event]! >>> 1;
    const on = (event & 1) === 0;
    at = writeVarInt(bytes, at, tick - last);
    bytes[at++] = (on ? 0x90 : 0x80) | (notes.channel[i]! - 1);
    bytes[at++] = notes.note[i]!;
    bytes[at++] = on ? notes.velocity[i]! : RELEASE;
    last = tick;
  }
  return { bytes: bytes.subarray(0, at), last };
};

const endOfTrack = (deltaTime: number): MidiEvent => ({ deltaTime, meta: true, type: 'endOfTrack' });

const HEADER_BYTES = 14 + 8;

/** The bytes of a few events, by the package: a file of one track without its heads. */
const eventBytes = (events: MidiEvent[]): number[] =>
  writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 960 }, tracks: [events] }).slice(HEADER_BYTES);

const joined = (pieces: ArrayLike<number>[]): Uint8Array => {
  const out = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    out.set(piece, at);
    at += piece.length;
  }
  return out;
};

const chunk = (...pieces: ArrayLike<number>[]): Uint8Array => {
  const head = new Uint8Array(8);
  head.set([0x4d, 0x54, 0x72, 0x6b]);
  new DataView(head.buffer).setUint32(
    4,
    pieces.reduce((sum, piece) => sum + piece.length, 0),
  );
  return joined([head, ...pieces]);
};

const trackChunk = (song: MidiSong, track: MidiSong['tracks'][number]): Uint8Array => {
  const name: MidiEvent = { deltaTime: 0, meta: true, type: 'trackName', text: bytesAsText(track.name) };
  const { bytes, last } = noteBytes(track.notes);
  const first = song.format === 0 ? conductor(song) : [name];
  return chunk(eventBytes(first), bytes, eventBytes([endOfTrack(song.end - last)]));
};

/**
 * The bytes of a Standard MIDI File. Format 1 keeps tempo and time signature in a first track of their own.
 *
 * @returns a file that strict readers take: nothing overlaps, every track ends at `song.end`
 */
export const writeSong = (song: MidiSong): Uint8Array => {
  const tracks = song.tracks.map((track) => trackChunk(song, track));
  if (song.format === 1) tracks.unshift(chunk(eventBytes([...conductor(song), endOfTrack(song.end)])));
  const header = writeMidi({
    header: { format: song.format, numTracks: tracks.length, ticksPerBeat: song.ppq },
    tracks: [],
  });
  // With no tracks at hand the package counts none: the number of tracks stands in bytes 10 and 11.
  header[10] = tracks.length >> 8;
  header[11] = tracks.length & 0xff;
  return joined([header, ...tracks]);
};
