import type { Beat } from '../../core/document/schema';
import { anyNeedsEdits } from './entry';
import { readLogged, type LogItem } from './log';
import { soundBeat } from './readBack';
import type { BeatSummary } from '../store/slices';
import type { KeyValue } from './storage';
import { words } from '../words/state';

/** What reads beats, and what is left of damaged ones. */
export type Formats = Pick<typeof import('../../core/formats'), 'readBeat' | 'isNewer' | 'mendBeat'>;

/** What reads a beat: both are large, and fetched when there is something to read. */
interface PeekParts {
  fileFormat: () => Promise<Formats>;
  loadEdits: () => Promise<void>;
}

/** What lies at a beat's place. */
export type Peeked =
  | { kind: 'none' }
  | { kind: 'there'; beat: Beat; seq: number; lost: (LogItem | null)[]; text: string }
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
  const there = items.filter((item) => item !== null);
  if (!there.length) return { kind: 'there', beat, seq, lost: items, text };
  if (anyNeedsEdits(there.map(({ entry }) => entry))) await parts.loadEdits();
  const reads = (one: Beat) => readBeat(JSON.stringify(one)).ok;
  const sound = soundBeat(beat, there, ({ entry }) => entry, reads);
  const unread = items.filter((item) => item === null);
  return { kind: 'there', beat: sound.beat, seq, lost: [...unread, ...sound.left], text };
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
