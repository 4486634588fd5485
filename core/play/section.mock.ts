import { EMPTY_LANE_PATTERN, newBeat } from '../document/defaults';
import type { Beat, Hit, LanePattern, Section } from '../document/schema';
import { newEntry } from '../edit/song';

/** A section of one pattern, for tests. @example plainSection('verse').entries[0]!.patternId // 'a' */
export const plainSection = (id: string, change: Partial<Section> = {}): Section => ({
  id,
  name: id,
  pigment: 'walnut',
  entries: [newEntry(`${id}-1`, 'a')],
  silent: [],
  ...change,
});

/** A beat whose first pattern has hits on the kick alone, on sixteenths where nothing else is said. */
export const kickBeat = (hits: Hit[], change: Partial<Beat> = {}, part: Partial<LanePattern> = {}): Beat => {
  const beat = { ...newBeat('b', 'Quay', 1), ...change };
  const kick = { ...EMPTY_LANE_PATTERN, hits, ...part };
  return { ...beat, patterns: [{ ...beat.patterns[0]!, parts: { kick } }] };
};
