import { writeMidi, type MidiEvent } from 'midi-file';

/** Seven bits a byte, all but the last marked. */
export const varInt = (bytes: number[], value: number): void => {
  for (let shift = 28; shift > 0; shift -= 7)
    if (value >= 2 ** shift) bytes.push((Math.floor(value / 2 ** shift) & 0x7f) | 0x80);
  bytes.push(value & 0x7f);
};

const HEADER_BYTES = 14 + 8;

/** The bytes of an event as the package writes it, without its time. */
export const eventBytes = (event: MidiEvent): number[] =>
  writeMidi({
    header: { format: 0, numTracks: 1, ticksPerBeat: 960 },
    tracks: [[{ ...event, deltaTime: 0 }]],
  }).slice(HEADER_BYTES + 1);

export type NoteEvent = Extract<MidiEvent, { type: 'noteOn' | 'noteOff' }>;

/** A note's end is written as the file had it: by an event of its own, or as a start without velocity. */
export const noteBytes = (event: NoteEvent, velocity: number): number[] => {
  const on = event.type === 'noteOn' || ('byte9' in event && event.byte9);
  return [(on ? 0x90 : 0x80) | event.channel, event.noteNumber, velocity];
};

/** A file of tracks that have been written. @param division as it stands in the file's head */
export const joinedTracks = (format: number, division: number, tracks: number[][]): Uint8Array => {
  const size = tracks.reduce((sum, track) => sum + 8 + track.length, 14);
  const out = new Uint8Array(size);
  const view = new DataView(out.buffer);
  out.set([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6]);
  view.setUint16(8, format);
  view.setUint16(10, tracks.length);
  view.setUint16(12, division);
  let at = 14;
  for (const track of tracks) {
    out.set([0x4d, 0x54, 0x72, 0x6b], at);
    view.setUint32(at + 4, track.length);
    out.set(track, at + 8);
    at += 8 + track.length;
  }
  return out;
};

const isNote = (event: MidiEvent): event is NoteEvent => event.type === 'noteOn' || event.type === 'noteOff';

/** The bytes of a track's events, in their order. */
export const trackOf = (events: MidiEvent[]): number[] => {
  const bytes: number[] = [];
  for (const event of events) {
    varInt(bytes, event.deltaTime);
    const own = isNote(event) ? noteBytes(event, event.velocity) : eventBytes(event);
    for (const byte of own) bytes.push(byte);
  }
  return bytes;
};
