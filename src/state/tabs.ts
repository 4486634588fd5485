import type { Item } from './log';

/** What the tabs of one browser tell each other. */
export type TabWord =
  | { type: 'opened'; id: string }
  | { type: 'here'; id: string }
  /** Edits that were written, from this number of the beat's log on. */
  | { type: 'edits'; id: string; from: number; items: Item[] }
  /** A beat was written anew, added or renamed: the list of beats is another. */
  | { type: 'saved'; id: string }
  | { type: 'removed'; id: string };

/** A way to all other tabs. */
export interface Tabs {
  say(word: TabWord): void;
  listen(hear: (word: TabWord) => void): void;
}

/** The browser's channel; silent where there is none. */
export const browserTabs = (): Tabs => {
  if (typeof BroadcastChannel === 'undefined') return { say: () => undefined, listen: () => undefined };
  const channel = new BroadcastChannel('ruddik');
  return {
    say: (word) => channel.postMessage(word),
    listen: (hear) => {
      channel.onmessage = ({ data }: MessageEvent<TabWord>) => hear(data);
    },
  };
};
