import type { Beat } from './schema';
import { VERSION } from './version';

/** The text of a `.ruddik.json` file. @example JSON.parse(writeBeat(beat)).kind // "ruddik.beat" */
export const writeBeat = (beat: Beat): string => `${JSON.stringify(beat, null, 1)}\n`;

/**
 * The text of a file with all beats in it.
 *
 * @example JSON.parse(writeBeats([beat, beat])).length ?? JSON.parse(writeBeats([beat, beat])).beats.length // 2
 */
export const writeBeats = (beats: Beat[]): string =>
  `${JSON.stringify({ kind: 'ruddik.beats', version: VERSION, beats }, null, 1)}\n`;

/** Names that mean a device on some systems, whatever ending they have. */
const DEVICES = /^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/i;
/** Systems take some 255 bytes; an ending and a number come after it. */
const MOST_BYTES = 200;

const withinBytes = (text: string): string => {
  const encoder = new TextEncoder();
  let [out, bytes] = ['', 0];
  for (const sign of text) {
    bytes += encoder.encode(sign).length;
    if (bytes > MOST_BYTES) break;
    out += sign;
  }
  return out;
};

/**
 * Names as a file's name, on any system: letters, figures and points stay, whatever lies between becomes a hyphen; never
 * hidden, never a device, at most 200 bytes.
 *
 * @example fileName('Rain / tarps', 'A · slow') // "Rain-tarps-A-slow"
 */
export const fileName = (...names: string[]): string => {
  const signs = names.join('-').replace(/[^\p{L}\p{M}\p{N}_.]+/gu, '-');
  const name = withinBytes(signs.replace(/^[-.]+/, '')).replace(/[-.]+$/, '');
  return DEVICES.test(name) ? `beat-${name}` : name || 'beat';
};

/** So many of a thing. @example count(2, 'bar') // "2 bars" */
export const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/** Names in a sentence. @example listed(['Kick', 'Snare', 'Clap']) // "Kick, Snare and Clap" */
export const listed = (names: string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;

/**
 * A file's name without what says its kind.
 *
 * @example bareName('rain.mid') // "rain"
 */
export const bareName = (name: string): string => name.replace(/\.(midi?|json|ruddik)$/gi, '');
