import { namedIn } from '../namedIn';
import { numbered } from './numbered';
import type { Section, Song } from './schema';

/** The usual names of sections, and their usual colours. */
export const SECTION_NAMES = ['Intro', 'Verse', 'Chorus', 'Bridge', 'Break', 'Fill', 'Outro'] as const;
const COLOURS: Record<string, Section['pigment']> = {
  Intro: 'heather',
  Verse: 'lichen',
  Chorus: 'weld',
  Bridge: 'madder',
  Break: 'heather',
  Fill: 'walnut',
  Outro: 'walnut',
};

/** The colour that a name suggests. @example colourOf('Verse 2') // "lichen" */
export const colourOf = (name: string): Section['pigment'] =>
  namedIn(COLOURS, name.split(' ')[0]!) ?? 'walnut';

/** The next name of a kind that no section has. @example freeSectionName(songBeat.song, 'Verse') // "Verse 2" */
export const freeSectionName = ({ sections }: Pick<Song, 'sections'>, name: string): string =>
  numbered(
    name,
    sections.map((section) => section.name),
  );
