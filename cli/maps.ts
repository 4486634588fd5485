import path from 'node:path';
import { GENERAL_MIDI, type DrumMap } from '../core/midi/drumMap/drumMap';
import { readDrumMap } from '../core/midi/drumMap/drumMapFile';
import { readMapCsv, readMidnam } from '../core/midi/drumMap/mapFiles';
import { mapOf, type MapPreview } from '../core/midi/drumMap/mapPreview';
import type { Read } from '../core/document/file';
import { InputFault } from './fault';
import { fileTextOf, warn } from './files';

/** A list of drums of another kind of file, as a map; what it says of single lines goes to standard error. */
const mapFrom = (read: Read<MapPreview>): Read<DrumMap> => {
  if (!read.ok) return read;
  read.value.warnings.forEach(warn);
  const map = mapOf(read.value);
  return map.notes.length
    ? { ok: true, value: map }
    : { ok: false, error: 'No drum could be told from its names.' };
};

/** By what a file holds, whatever it is called: a name list is XML, a map of ours JSON, all else a table. */
const readMap = (text: string, name: string): Read<DrumMap> => {
  const start = text.replace(/^\uFEFF/, '').trimStart();
  if (start.startsWith('<')) return mapFrom(readMidnam(text));
  return start.startsWith('{') || start.startsWith('[') ? readDrumMap(text) : mapFrom(readMapCsv(text, name));
};

/** A drum map by what a person calls it: gm, or a file: a map of ours, a MIDI name document, a table of numbers and names. */
export const mapNamed = async (place: string): Promise<DrumMap> => {
  if (place.toLowerCase() === 'gm') return GENERAL_MIDI;
  const read = readMap(await fileTextOf(place), path.parse(place).name);
  if (!read.ok) throw new InputFault(`The drum map “${place}” could not be read. ${read.error}`);
  return read.value;
};
