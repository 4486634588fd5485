/** What the tabs of one browser tell each other. */
export type TabWord =
  | { type: 'opened'; id: string }
  | { type: 'here'; id: string }
  | { type: 'saved'; id: string; revision: number };

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
