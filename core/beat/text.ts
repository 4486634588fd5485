import type { Beat } from './schema';
import { VERSION } from './version';

/** The text of a `.ruddik.json` file. */
export const writeBeat = (beat: Beat): string => `${JSON.stringify(beat, null, 1)}\n`;

/** The text of a file with all beats in it. */
export const writeBeats = (beats: Beat[]): string =>
  `${JSON.stringify({ kind: 'ruddik.beats', version: VERSION, beats }, null, 1)}\n`;

/**
 * Names as a file's name: letters, figures and points stay, whatever lies between becomes a hyphen.
 *
 * @example fileName('Rain / tarps', 'A · slow') // "Rain-tarps-A-slow"
 */
export const fileName = (...names: string[]): string =>
  names
    .join('-')
    .replace(/[^\p{L}\p{M}\p{N}_.]+/gu, '-')
    .replace(/^[-.]+|[-.]+$/g, '') || 'beat';

/** So many of a thing. @example count(2, 'bar') // "2 bars" */
export const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/** Names in a sentence. @example listed(['Kick', 'Snare', 'Clap']) // "Kick, Snare and Clap" */
export const listed = (names: string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
