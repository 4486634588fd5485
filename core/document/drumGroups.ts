import type { DrumGroup } from './choices';
import { DRUM_IDS, INSTRUMENTS, instrument, type InstrumentId } from './instruments';

/** The group told by the first word of an instrument's id; all others are shaken, struck wood or small metal. */
const BY_WORD: Record<string, DrumGroup> = {
  kick: 'kick',
  snare: 'snare',
  clap: 'snare',
  hat: 'hat',
  ride: 'cymbal',
  crash: 'cymbal',
  china: 'cymbal',
  splash: 'cymbal',
  tom: 'tom',
  timbale: 'tom',
  bongo: 'hand',
  conga: 'hand',
  cuica: 'hand',
};

export const GROUP_NAMES: Record<DrumGroup, string> = {
  kick: 'kick drums',
  snare: 'snares and claps',
  hat: 'hats',
  cymbal: 'cymbals',
  tom: 'toms',
  hand: 'hand drums',
  shaken: 'shaken and wooden things',
};

/** The group of drums that an instrument is of. @example drumGroupOf('hat.open') // "hat" */
export const drumGroupOf = (id: InstrumentId): DrumGroup => BY_WORD[id.split('.')[0]!] ?? 'shaken';

/** The group of a General MIDI percussion note; null outside 35 to 81. @example drumGroupOfNote(38) // "snare" */
export const drumGroupOfNote = (note: number): DrumGroup | null => {
  const id = DRUM_IDS.find((one) => instrument(one).note === note);
  return id ? drumGroupOf(id) : null;
};

/** Whether a word is the id of an instrument. @example isInstrument('kick') // true */
export const isInstrument = (word: string): word is InstrumentId => Object.hasOwn(INSTRUMENTS, word);
