import { lastNotAbove } from '../numbers';
import type { MidiEvent } from 'midi-file';
import type { InstrumentId } from '../document/instruments';
import { instrumentIn, type DrumMap } from '../midi/drumMap/drumMap';
import type { MidiFile, ReadNote } from '../midi/read/midiFile';
import type { Channel } from '../units';

/** The controller that electronic hats send how far they are shut on. */
const PEDAL = 4;
/** From here on the hat is shut, up to there it is open; 127 is pressed down. */
const SHUT = 90;
const OPEN = 32;

interface Pressed {
  tick: number;
  value: number;
}

const pressesOf = (tracks: MidiEvent[][]): Map<Channel, Pressed[]> => {
  const out = new Map<Channel, Pressed[]>();
  for (const events of tracks) {
    let tick = 0;
    for (const event of events) {
      tick += event.deltaTime;
      if (event.type !== 'controller' || event.controllerType !== PEDAL) continue;
      const channel = event.channel + 1;
      const list = out.get(channel) ?? [];
      list.push({ tick, value: event.value });
      out.set(channel, list);
    }
  }
  for (const list of out.values()) list.sort((a, b) => a.tick - b.tick);
  return out;
};

/** How far the pedal is down at a tick; null before it was first heard of. */
const pedalAt = (presses: Pressed[], tick: number): number | null => {
  const at = lastNotAbove(presses.length, (place) => presses[place]!.tick, tick);
  return at < 0 ? null : presses[at]!.value;
};

const STRUCK: InstrumentId[] = ['hat.closed', 'hat.open', 'hat.half'];

const hatAt = (value: number): InstrumentId =>
  value >= SHUT ? 'hat.closed' : value <= OPEN ? 'hat.open' : 'hat.half';

/**
 * The notes of a file with the instrument of each. Where the file says how far the hat's pedal is down, a struck hat is
 * closed, half open or open by that; the number it came with stays, and so does the controller in the file that is kept.
 */
export const withPedal = (file: MidiFile, map: DrumMap): [ReadNote, InstrumentId | null][] => {
  const presses = pressesOf(file.tracks);
  // A file has few numbers and many notes.
  const known = new Map<number, InstrumentId | null>();
  const meant = (note: ReadNote): InstrumentId | null => {
    const key = note.channel * 128 + note.note;
    let instrument = known.get(key);
    if (instrument === undefined) known.set(key, (instrument = instrumentIn(map, note.note, note.channel)));
    return instrument;
  };
  return file.notes.map((note) => {
    const instrument = meant(note);
    const list = presses.get(note.channel);
    if (!list || !instrument || !STRUCK.includes(instrument)) return [note, instrument];
    const value = pedalAt(list, note.start);
    return [note, value === null ? instrument : hatAt(value)];
  });
};
