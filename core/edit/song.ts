import { freeSectionName } from '../document/sectionNames';
import { SONG } from '../document/choices';
import type { Beat, Entry, Place, Section, Song, TrayItem } from '../document/schema';
import type { Groove } from '../groove/groove';
import { bringIn } from '../bring/bring';
import { movedTo } from './patterns';
import { clamp, TEMPO } from '../units';

/** Edits of the tray and of the song. One that cannot be made gives back what it was given. */

const onSong = (beat: Beat, change: (song: Song) => Song): Beat => {
  const song = change(beat.song);
  return song === beat.song ? beat : { ...beat, song };
};

const onSection = (beat: Beat, id: string, change: (section: Section) => Section): Beat =>
  onSong(beat, (song) => ({
    ...song,
    sections: song.sections.map((section) => (section.id === id ? change(section) : section)),
  }));

const inserted = <T>(list: T[], at: number | null, one: T): T[] => {
  const place = at === null ? list.length : clamp(at, 0, list.length);
  return [...list.slice(0, place), one, ...list.slice(place)];
};

/** A pattern as it stands in a section, played so many times. @example newEntry('e', 'a').times // 1 */
export const newEntry = (id: string, patternId: string, times = 1): Entry => ({ id, patternId, times });

/**
 * Sets a pattern aside, at the end of the tray.
 *
 * @example toTray(beat, { id: 't', name: 'A', patternId: 'a' }).tray.length // 1
 */
export const toTray = (beat: Beat, item: TrayItem): Beat =>
  beat.tray.length >= SONG.tray || !beat.patterns.some(({ id }) => id === item.patternId)
    ? beat
    : { ...beat, tray: [...beat.tray, item] };

/** Sets a groove aside: it becomes a pattern of the beat. @param ids of the pattern and of its place in the tray */
export const grooveToTray = (beat: Beat, groove: Groove, patternId: string, id: string): Beat => {
  const { beat: brought } = bringIn(beat, groove, { how: 'new', id: patternId, name: groove.name });
  const name = brought.patterns.find((pattern) => pattern.id === patternId)?.name ?? groove.name;
  return toTray(brought, { id, name, patternId });
};

/**
 * Takes something out of the tray.
 *
 * @example fromTray(toTray(beat, { id: 't', name: 'A', patternId: 'a' }), 't').tray // []
 */
export const fromTray = (beat: Beat, id: string): Beat => ({
  ...beat,
  tray: beat.tray.filter((item) => item.id !== id),
});

/**
 * Names something in the tray.
 *
 * @example renameInTray(toTray(beat, { id: 't', name: 'A', patternId: 'a' }), 't', 'Rain').tray[0]!.name // "Rain"
 */
export const renameInTray = (beat: Beat, id: string, name: string): Beat => ({
  ...beat,
  tray: beat.tray.map((item) => (item.id === id ? { ...item, name: name.trim() || item.name } : item)),
});

/** Moves something in the tray to another place, from 0. */
export const moveInTray = (beat: Beat, id: string, to: number): Beat => ({
  ...beat,
  tray: movedTo(beat.tray, id, to),
});

/** A new section and its place. @param at where in the song, from 0; null is its end */
export const addSection = (beat: Beat, section: Section, placeId: string, at: number | null): Beat =>
  onSong(beat, (song) =>
    song.sections.length >= SONG.sections || song.order.length >= SONG.places
      ? song
      : {
          sections: [...song.sections, section],
          order: inserted(song.order, at, { id: placeId, sectionId: section.id, times: 1 }),
        },
  );

/** A change that may take things away: `null` of a feel, tempo, level, fill, change or of what leads into it leaves it to patterns and beat. */
export type SectionChange = Partial<Pick<Section, 'name' | 'pigment' | 'entries' | 'silent'>> & {
  [K in 'feel' | 'tempo' | 'level' | 'fill' | 'change' | 'into']?: Section[K] | null;
};

const OWN = ['feel', 'tempo', 'level', 'fill', 'change', 'into'] as const;

const within = (section: Section): Section => {
  const out = { ...section };
  if (out.tempo !== undefined) out.tempo = clamp(out.tempo, TEMPO.least, TEMPO.most);
  if (out.level !== undefined) out.level = clamp(out.level, 0, 2);
  if (out.into && !out.into.ms) delete out.into;
  if (out.change && !Object.values(out.change).some((value) => value !== undefined)) delete out.change;
  return out;
};

/**
 * Changes what is a section’s own: name, tempo, level, feel, silent lanes.
 *
 * @example changeSection(songBeat, 's', { name: 'Chorus' }).song.sections[0]!.name // "Chorus"
 */
export const changeSection = (beat: Beat, id: string, change: SectionChange): Beat =>
  onSection(beat, id, (section) => {
    const out = { ...section, ...change } as Section;
    for (const key of OWN) if (change[key] === null) delete out[key];
    return within({ ...out, name: out.name.trim() || section.name });
  });

/**
 * Puts a pattern at the end of a section.
 *
 * @example addEntry(songBeat, 's', newEntry('f', 'a')).song.sections[0]!.entries.length // 2
 */
export const addEntry = (beat: Beat, sectionId: string, entry: Entry): Beat =>
  onSection(beat, sectionId, (section) =>
    section.entries.length >= SONG.entries ? section : { ...section, entries: [...section.entries, entry] },
  );

/**
 * @param change `bars: null` goes by how often it plays again
 *
 * @example changeEntry(songBeat, 's', 'e', { times: 3 }).song.sections[0]!.entries[0]!.times // 3
 */
export const changeEntry = (
  beat: Beat,
  sectionId: string,
  entryId: string,
  change: { patternId?: string; times?: number; bars?: number | null },
): Beat =>
  onSection(beat, sectionId, (section) => ({
    ...section,
    entries: section.entries.map((entry) => {
      if (entry.id !== entryId) return entry;
      const { bars, ...rest } = change;
      const out: Entry = { ...entry, ...rest };
      if (change.patternId) delete out.gone;
      out.times = Math.round(clamp(out.times, 1, SONG.times));
      if (bars === null) delete out.bars;
      else if (bars !== undefined) out.bars = Math.round(clamp(bars, 1, SONG.bars));
      return out;
    }),
  }));

/** Takes a pattern out of a section. @example removeEntry(songBeat, 's', 'e').song.sections[0]!.entries // [] */
export const removeEntry = (beat: Beat, sectionId: string, entryId: string): Beat =>
  onSection(beat, sectionId, (section) => ({
    ...section,
    entries: section.entries.filter(({ id }) => id !== entryId),
  }));

/** Moves a pattern within a section to another place, from 0. */
export const moveEntry = (beat: Beat, sectionId: string, entryId: string, to: number): Beat =>
  onSection(beat, sectionId, (section) => ({ ...section, entries: movedTo(section.entries, entryId, to) }));

/**
 * The same section at another place too: what is changed in one is changed in both.
 *
 * @example linkSection(songBeat, { id: 'q', sectionId: 's', times: 1 }, null).song.order.length // 2
 */
export const linkSection = (beat: Beat, place: Place, at: number | null): Beat =>
  onSong(beat, (song) =>
    song.order.length >= SONG.places || !song.sections.some(({ id }) => id === place.sectionId)
      ? song
      : { ...song, order: inserted(song.order, at, place) },
  );

/** A section like the one at a place. @param ids of the new section and, where it gets one, of its place after that one */
const copyOf = (song: Song, placeId: string, sectionId: string): Section | null => {
  const place = song.order.find(({ id }) => id === placeId);
  const section = song.sections.find(({ id }) => id === place?.sectionId);
  if (!section || song.sections.length >= SONG.sections) return null;
  const base = section.name.replace(/ \d+$/, '');
  return { ...section, id: sectionId, name: freeSectionName(song, base) };
};

/**
 * A copy of its own, right after it.
 *
 * @example duplicateSection(songBeat, 'p', 't', 'q').song.sections.map(({ name }) => name) // ["Verse", "Verse 2"]
 */
export const duplicateSection = (beat: Beat, placeId: string, sectionId: string, newPlaceId: string): Beat =>
  onSong(beat, (song) => {
    const copy = copyOf(song, placeId, sectionId);
    const at = song.order.findIndex(({ id }) => id === placeId);
    if (!copy || song.order.length >= SONG.places) return song;
    return {
      sections: [...song.sections, copy],
      order: inserted(song.order, at + 1, { id: newPlaceId, sectionId, times: song.order[at]!.times }),
    };
  });

/** Parts a place from those it is linked with: it gets a section of its own. */
export const ownSection = (beat: Beat, placeId: string, sectionId: string): Beat =>
  onSong(beat, (song) => {
    const copy = copyOf(song, placeId, sectionId);
    if (!copy) return song;
    return {
      sections: [...song.sections, copy],
      order: song.order.map((place) => (place.id === placeId ? { ...place, sectionId } : place)),
    };
  });

/** Moves a section within the song to another place, from 0. */
export const movePlace = (beat: Beat, placeId: string, to: number): Beat =>
  onSong(beat, (song) => ({ ...song, order: movedTo(song.order, placeId, to) }));

/**
 * Plays a section so many times, held to once at least and to the most that a song takes.
 *
 * @example repeatPlace(songBeat, 'p', 3).song.order[0]!.times // 3
 */
export const repeatPlace = (beat: Beat, placeId: string, times: number): Beat =>
  onSong(beat, (song) => ({
    ...song,
    order: song.order.map((place) =>
      place.id === placeId ? { ...place, times: Math.round(clamp(times, 1, SONG.times)) } : place,
    ),
  }));

/**
 * Takes a section out of the song; one that has no place any more goes with it.
 *
 * @example removePlace(songBeat, 'p').song.order // []
 */
export const removePlace = (beat: Beat, placeId: string): Beat =>
  onSong(beat, (song) => {
    const order = song.order.filter(({ id }) => id !== placeId);
    const used = new Set(order.map(({ sectionId }) => sectionId));
    return { sections: song.sections.filter(({ id }) => used.has(id)), order };
  });
