import { MOST } from '../document/choices';
import type { Beat, Fill } from '../document/schema';
import { bringIn } from '../bring/bring';
import type { FillOffer } from './fills';

/** Takes a fill that was offered: its pattern joins the beat, and the section ends with it. */
export const takeFill = (
  beat: Beat,
  sectionId: string,
  { source, name }: FillOffer,
  patternId: string,
  over: Fill['over'],
): Beat => {
  if (beat.patterns.length >= MOST.patterns) return beat;
  const brought =
    source.kind === 'groove'
      ? bringIn(beat, source.groove, { how: 'new', id: patternId, name }).beat
      : { ...beat, patterns: [...beat.patterns, { ...source.pattern, id: patternId }] };
  const sections = brought.song.sections.map((section) =>
    section.id === sectionId ? { ...section, fill: { patternId, over } } : section,
  );
  return { ...brought, song: { ...brought.song, sections } };
};
