import { FILE_HEAD, pushVarint, TRACK_HEAD } from '../bytes';
import { writeMidi, type MidiEvent } from 'midi-file';

/** The bytes of an event as the package writes it, without its time. */
export const eventBytes = (event: MidiEvent): number[] =>
  writeMidi({
    header: { format: 0, numTracks: 1, ticksPerBeat: 960 },
    tracks: [[{ ...event, deltaTime: 0 }]],
  }).slice(FILE_HEAD + TRACK_HEAD + 1);

export type NoteEvent = Extract<MidiEvent, { type: 'noteOn' | 'noteOff' }>;

/**
 * A note's end is written as the file had it: by an event of its own, or as a start without velocity.
 *
 * @example
 * noteBytes({ deltaTime: 0, type: 'noteOn', channel: 9, noteNumber: 36, velocity: 90 }, 64)
 * // [153, 36, 64]
 */
export const noteBytes = (event: NoteEvent, velocity: number): number[] => {
  const on = event.type === 'noteOn' || ('byte9' in event && event.byte9);
  return [(on ? 0x90 : 0x80) | event.channel, event.noteNumber, velocity];
};

const isNote = (event: MidiEvent): event is NoteEvent => event.type === 'noteOn' || event.type === 'noteOff';

/** The bytes of a track's events, in their order. */
export const trackOf = (events: MidiEvent[]): number[] => {
  const bytes: number[] = [];
  for (const event of events) {
    pushVarint(bytes, event.deltaTime);
    const own = isNote(event) ? noteBytes(event, event.velocity) : eventBytes(event);
    for (const byte of own) bytes.push(byte);
  }
  return bytes;
};
