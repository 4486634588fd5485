import type { Pattern, Section, Song } from '../document/schema';

/**
 * A deleted pattern stays named in the song, and as long as it was, so that nothing after it moves.
 *
 * @example withoutPattern(songBeat.song, pattern).sections[0]!.entries[0]!.gone!.name // "A"
 */
export const withoutPattern = (song: Song, pattern: Pattern): Song => {
  const { name, meter, bars } = pattern;
  const plays = ({ entries }: Section) => entries.some(({ patternId }) => patternId === pattern.id);
  if (!song.sections.some(plays)) return song;
  return {
    ...song,
    sections: song.sections.map((section) => ({
      ...section,
      entries: section.entries.map((entry) =>
        entry.patternId === pattern.id ? { ...entry, gone: { name, meter, bars } } : entry,
      ),
    })),
  };
};
