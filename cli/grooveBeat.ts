import { newBeat } from '../core/document/defaults';
import { MOST, SONG } from '../core/document/choices';
import type { Beat } from '../core/document/schema';
import { bringIn } from '../core/bring/bring';
import { groovePiecesOf } from '../core/groove/fit';
import type { Groove } from '../core/groove/groove';

/**
 * A groove as a beat of its own: its lanes, its tempo and one pattern. What is longer than a pattern is several, in a song.
 *
 * @example beatOfGroove(groove).beat.patterns.length // 1
 */
export const beatOfGroove = (groove: Groove): { beat: Beat; told: string[] } => {
  const name = groove.name.slice(0, MOST.name);
  const blank: Beat = { ...newBeat('groove', name, 1), tempo: groove.bpm, lanes: [] };
  const pieces = groovePiecesOf(groove);
  const several = pieces.length > 1;
  const told: string[] = [];
  let beat: Beat = { ...blank, patterns: [] };
  pieces.forEach((piece, at) => {
    const number = `p${at + 1}`;
    const done = bringIn(
      beat,
      { ...piece, id: number },
      { how: 'new', id: number, name: several ? `${name.slice(0, 74)} ${at + 1}` : name },
    );
    beat = done.beat;
    told.push(...done.told);
  });
  if (!several) return { beat, told };
  const entries = beat.patterns.map(({ id }, at) => ({ id: `e${at + 1}`, patternId: id, times: 1 }));
  const sections = Array.from({ length: Math.ceil(entries.length / SONG.entries) }, (_, at) => ({
    id: `s${at + 1}`,
    name: at ? `${name.slice(0, 74)} ${at + 1}` : name,
    pigment: 'weld' as const,
    entries: entries.slice(at * SONG.entries, (at + 1) * SONG.entries),
    silent: [],
  }));
  const order = sections.map(({ id }, at) => ({ id: `o${at + 1}`, sectionId: id, times: 1 }));
  return { beat: { ...beat, song: { sections, order } }, told };
};
