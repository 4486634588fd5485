import type { Beat, Pattern, Section } from './schema';

const withoutTakes = ({ takes: _takes, take: _take, taken: _taken, ...pattern }: Pattern): Pattern => pattern;

/** Of a beat what every way of sounding needs: kept feels, templates, the map and the tray are for the eye. */
const bare = ({ map: _map, ...beat }: Beat, patterns: Pattern[]): Beat => ({
  ...beat,
  feels: [],
  templates: [],
  tray: [],
  patterns: patterns.map(withoutTakes),
});

/**
 * The part of a beat that can be heard while one of its patterns plays: it is handed to the player at every edit, and costs the same
 * in a beat with 200 takes.
 *
 * @example soundingPattern(beat, beat.patterns[0]!).patterns.length // 1
 */
export const soundingPattern = (beat: Beat, pattern: Pattern): Beat => ({
  ...bare(beat, [pattern]),
  song: { sections: [], order: [] },
});

const plays = ({ entries, fill }: Section, id: string): boolean =>
  fill?.patternId === id || entries.some(({ patternId }) => patternId === id);

/**
 * The part of a beat that can be heard while its song plays: the patterns of its sections, and one that is shown beside them.
 *
 * @example soundingSong(songBeat, pattern).patterns.length // 1
 */
export const soundingSong = (beat: Beat, shown: Pattern): Beat =>
  bare(
    beat,
    beat.patterns.filter(
      (pattern) =>
        pattern.id === shown.id || beat.song.sections.some((section) => plays(section, pattern.id)),
    ),
  );
