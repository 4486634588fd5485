import type { Beat } from '../../core/document/schema';
import { anyNeedsEdits, beatWith } from './entry';
import { readLogged, type Item } from './log';
import type { BeatSummary } from './slices';
import type { KeyValue } from './storage';
import { words } from '../words/state';

/** What reads a beat: both are large, and fetched when there is something to read. */
interface PeekParts {
  fileFormat: () => Promise<Pick<typeof import('../../core/document/file'), 'readBeat' | 'isNewer'>>;
  loadEdits: () => Promise<void>;
}

/** What lies at a beat's place. */
export type Peeked =
  | { kind: 'none' }
  | { kind: 'there'; beat: Beat; seq: number; lost: (Item | null)[]; text: string }
  | { kind: 'newer'; text: string }
  | { kind: 'damaged'; text: string; error: string };

/** Reads a beat with all edits that were written after its text. */
export const peekAt = async (storage: KeyValue, id: string, parts: PeekParts): Promise<Peeked> => {
  const { text, items, seq } = await readLogged(storage, id);
  if (text === null) return { kind: 'none' };
  const { readBeat, isNewer } = await parts.fileFormat();
  const result = readBeat(text);
  if (!result.ok)
    return isNewer(text) ? { kind: 'newer', text } : { kind: 'damaged', text, error: result.error };
  const beat = { ...result.value, id };
  const entries = items.flatMap((item) => item?.entry ?? []);
  if (!entries.length) return { kind: 'there', beat, seq, lost: items, text };
  if (anyNeedsEdits(entries)) await parts.loadEdits();
  try {
    const made = beatWith(beat, entries);
    const sound = readBeat(JSON.stringify(made));
    if (sound.ok) return { kind: 'there', beat: made, seq, lost: items.filter((item) => !item), text };
  } catch {
    // An edit that cannot be done: the beat is as it was before it.
  }
  return { kind: 'there', beat, seq, lost: items, text };
};

/** The line in the list of a beat that a newer Ruddik wrote. */
export const newerSummary = (id: string, text: string): BeatSummary => {
  const { name } = JSON.parse(text) as { name?: unknown };
  return {
    id,
    name: typeof name === 'string' && name ? name.slice(0, 80) : words.aBeat,
    tempo: 0,
    meter: '',
    bars: 0,
    saved: 0,
    newer: true,
  };
};
