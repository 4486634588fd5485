import { GENERAL_MIDI, type DrumMap } from '../core/midi/drumMap/drumMap';
import { readDrumMap } from '../core/midi/drumMap/drumMapFile';
import { InputFault } from './fault';
import { textOf } from './files';

/** A drum map by what a person calls it: gm, or a file. */
export const mapNamed = async (place: string): Promise<DrumMap> => {
  if (place.toLowerCase() === 'gm') return GENERAL_MIDI;
  const read = readDrumMap(await textOf(place));
  if (!read.ok) throw new InputFault(`The drum map “${place}” could not be read. ${read.error}`);
  return read.value;
};
