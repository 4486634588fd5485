import { writeMidi, type MidiEvent } from 'midi-file';
import type { Meter } from '../beat/meter';
import type { Bpm } from '../units';
import type { FileNote } from './fileNotes';

/** What a Standard MIDI File is to hold. */
export interface MidiSong {
  format: 0 | 1;
  /** Ticks a quarter note, 1 to 32767. */
  ppq: number;
  tempo: Bpm;
  meter: Meter;
  name: string;
  marker: string;
  tracks: { name: string; notes: FileNote[] }[];
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

/** The order of a track: by tick, ends before starts. Sorted as plain numbers, which is several times as fast. */
const inOrder = (notes: FileNote[]): Float64Array => {
  const count = notes.length;
  const keys = new Float64Array(count * 2);
  for (let i = 0; i < count; i++) {
    const { tick, length } = notes[i]!;
    keys[2 * i] = (tick * 2 + 1) * count + i;
    keys[2 * i + 1] = (tick + length) * 2 * count + i;
  }
  return keys.sort();
};

const noteEvents = (notes: FileNote[]): { events: MidiEvent[]; last: number } => {
  const count = notes.length;
  const events: MidiEvent[] = [];
  let last = 0;
  for (const key of inOrder(notes)) {
    const half = Math.floor(key / count);
    const note = notes[key - half * count]!;
    const tick = half >> 1;
    const on = half % 2 === 1;
    events.push({
      deltaTime: tick - last,
      type: on ? 'noteOn' : 'noteOff',
      channel: note.channel - 1,
      noteNumber: note.note,
      velocity: on ? note.velocity : 64,
    });
    last = tick;
  }
  return { events, last };
};

const endOfTrack = (deltaTime: number): MidiEvent => ({ deltaTime, meta: true, type: 'endOfTrack' });

/** Each event's bytes are joined to all before it by the package; short runs keep that from growing with the square. */
const RUN = 256;
const HEADER_BYTES = 14 + 8;

const trackBody = (events: MidiEvent[]): number[][] => {
  const runs: number[][] = [];
  for (let at = 0; at < events.length; at += RUN) {
    const bytes = writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: 960 },
      tracks: [events.slice(at, at + RUN)],
    });
    runs.push(bytes.slice(HEADER_BYTES));
  }
  return runs;
};

const joined = (runs: ArrayLike<number>[]): Uint8Array => {
  const out = new Uint8Array(runs.reduce((sum, run) => sum + run.length, 0));
  let at = 0;
  for (const run of runs) {
    out.set(run, at);
    at += run.length;
  }
  return out;
};

const chunk = (events: MidiEvent[]): Uint8Array => {
  const body = joined(trackBody(events));
  const head = new Uint8Array(8);
  head.set([0x4d, 0x54, 0x72, 0x6b]);
  new DataView(head.buffer).setUint32(4, body.length);
  return joined([head, body]);
};

/**
 * The bytes of a Standard MIDI File. Format 1 keeps tempo and time signature in a first track of their own.
 *
 * @returns a file that strict readers take: nothing overlaps, every track ends at `song.end`
 */
export const writeSong = (song: MidiSong): Uint8Array => {
  const tracks: MidiEvent[][] = [];
  if (song.format === 1) tracks.push([...conductor(song), endOfTrack(song.end)]);
  for (const track of song.tracks) {
    const { events, last } = noteEvents(track.notes);
    const name: MidiEvent = { deltaTime: 0, meta: true, type: 'trackName', text: bytesAsText(track.name) };
    const first = song.format === 0 ? conductor(song) : [name];
    tracks.push([...first, ...events, endOfTrack(song.end - last)]);
  }
  const header = writeMidi({
    header: { format: song.format, numTracks: tracks.length, ticksPerBeat: song.ppq },
    tracks: [],
  });
  // With no tracks at hand the package counts none: the number of tracks stands in bytes 10 and 11.
  header[10] = tracks.length >> 8;
  header[11] = tracks.length & 0xff;
  return joined([header, ...tracks.map(chunk)]);
};
