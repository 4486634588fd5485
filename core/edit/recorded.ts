import { barTicks } from '../document/meter';
import type { Beat, Place, Section, Song } from '../document/schema';
import { SONG } from '../document/choices';
import { clamp, QUARTER, type Bpm, type Seconds } from '../units';
import { newEntry } from './song';
import { colourOf, freeSectionName } from '../document/sectionNames';

/** That a pattern began to play, at a time. */
export interface RecordedSwitch {
  patternId: string | null;
  at: Seconds;
  tempo: Bpm;
}

/** How many whole bars of its meter a pattern played. */
const barsPlayed = (beat: Beat, { patternId, at, tempo }: RecordedSwitch, end: Seconds): number => {
  const pattern = beat.patterns.find(({ id }) => id === patternId);
  if (!pattern) return 0;
  return Math.round(((end - at) * tempo * QUARTER) / 60 / barTicks(pattern.meter));
};

/**
 * Adds what was played live to a song: a section for each pattern and length, linked where the same came again. A pattern
 * that played for less than half a bar is left out.
 *
 * @param switches in order of time
 * @param end when play was stopped
 * @param newId gives ids that are not in use
 */
export const recordedSong = (
  beat: Beat,
  switches: RecordedSwitch[],
  end: Seconds,
  newId: () => string,
): Song => {
  const sections = [...beat.song.sections];
  const order: Place[] = [...beat.song.order];
  const made = new Map<string, string>();
  switches.forEach((one, at) => {
    const bars = barsPlayed(beat, one, switches[at + 1]?.at ?? end);
    const pattern = beat.patterns.find(({ id }) => id === one.patternId);
    if (!pattern || bars < 1 || order.length >= SONG.places || sections.length >= SONG.sections) return;
    const key = `${pattern.id} ${bars}`;
    let sectionId = made.get(key);
    if (!sectionId) {
      sectionId = newId();
      made.set(key, sectionId);
      const name = freeSectionName({ sections }, pattern.name);
      const section: Section = {
        id: sectionId,
        name,
        pigment: pattern.pigment ?? colourOf(name),
        entries: [{ ...newEntry(newId(), pattern.id), bars: clamp(bars, 1, SONG.bars) }],
        silent: [],
      };
      sections.push(section);
    }
    order.push({ id: newId(), sectionId, times: 1 });
  });
  return { sections, order };
};
