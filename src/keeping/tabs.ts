import { namedIn } from '../../core/namedIn';
import { isEntry } from './entry';
import type { LogItem } from './log';

/** What the tabs of one browser tell each other. */
export type TabWord =
  | { type: 'opened'; id: string }
  | { type: 'here'; id: string }
  /** Edits that were written, from this number of the beat's log on. */
  | { type: 'edits'; id: string; from: number; items: LogItem[] }
  /** A beat was written anew, added or renamed: the list of beats is another. */
  | { type: 'saved'; id: string }
  | { type: 'removed'; id: string }
  /** Which samples the others can still bring back, asked and answered. */
  | { type: 'reach?'; tab: string }
  | { type: 'reach'; to: string; tab: string; ids: string[] };

const isTexts = (all: unknown): boolean => Array.isArray(all) && all.every((one) => typeof one === 'string');

const isItem = (one: unknown): boolean => {
  const { tab, n, entry } = (one ?? {}) as Partial<LogItem>;
  return typeof tab === 'string' && typeof n === 'number' && isEntry(entry);
};

const FITS: Record<TabWord['type'], (word: Record<string, unknown>) => boolean> = {
  opened: ({ id }) => typeof id === 'string',
  here: ({ id }) => typeof id === 'string',
  edits: ({ id, from, items }) =>
    typeof id === 'string' && typeof from === 'number' && Array.isArray(items) && items.every(isItem),
  saved: ({ id }) => typeof id === 'string',
  removed: ({ id }) => typeof id === 'string',
  'reach?': ({ tab }) => typeof tab === 'string',
  reach: ({ to, tab, ids }) => typeof to === 'string' && typeof tab === 'string' && isTexts(ids),
};

/**
 * Whether what came over the channel is a word of a tab: an older or a newer build, or anything else of the same address, may
 * say what this one does not know, and is passed over.
 */
export const isTabWord = (word: unknown): word is TabWord => {
  if (typeof word !== 'object' || word === null) return false;
  const { type } = word as { type?: unknown };
  return typeof type === 'string' && (namedIn(FITS, type)?.(word as Record<string, unknown>) ?? false);
};

/** A way to all other tabs. */
export interface TabsChannel {
  say(word: TabWord): void;
  listen(hear: (word: TabWord) => void): void;
}

/** The browser's channel; silent where there is none. */
export const browserTabs = (): TabsChannel => {
  if (typeof BroadcastChannel === 'undefined') return { say: () => undefined, listen: () => undefined };
  const channel = new BroadcastChannel('ruddik');
  return {
    say: (word) => channel.postMessage(word),
    listen: (hear) => {
      channel.onmessage = ({ data }: MessageEvent<unknown>) => {
        if (isTabWord(data)) hear(data);
      };
    },
  };
};
