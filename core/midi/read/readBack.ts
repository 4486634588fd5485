import { parseMidi } from 'midi-file';
import type { Channel, MidiNote, Velocity } from '../../units';

/** A note in ticks of the file. */
export interface FileNote {
  tick: number;
  length: number;
  velocity: Velocity;
  note: MidiNote;
  channel: Channel;
}

/** The notes of a file that Ruddik wrote, with its division. For files from anywhere this is not enough. */
export interface ReadNotes {
  ppq: number;
  /** Microseconds a quarter note. */
  tempo: number;
  notes: FileNote[];
  end: number;
}

/** Reads back a file that is known to be whole. Throws what the package throws on one that is not. */
export const readNotes = (bytes: Uint8Array): ReadNotes => {
  const midi = parseMidi(bytes);
  const notes: FileNote[] = [];
  let tempo = 500000;
  let end = 0;
  for (const track of midi.tracks) {
    let tick = 0;
    const open = new Map<number, FileNote>();
    for (const event of track) {
      tick += event.deltaTime;
      if (event.type === 'setTempo') tempo = event.microsecondsPerBeat;
      if (event.type === 'noteOn') {
        const note = {
          tick,
          length: 0,
          velocity: event.velocity,
          note: event.noteNumber,
          channel: event.channel + 1,
        };
        open.set(event.channel * 128 + event.noteNumber, note);
        notes.push(note);
      }
      if (event.type === 'noteOff') {
        const note = open.get(event.channel * 128 + event.noteNumber);
        if (note) note.length = tick - note.tick;
      }
    }
    end = Math.max(end, tick);
  }
  return { ppq: midi.header.ticksPerBeat ?? 0, tempo, notes: notes.sort((a, b) => a.tick - b.tick), end };
};
