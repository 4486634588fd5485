import type { Section } from '../document/schema';
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
