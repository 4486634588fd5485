import type { Beat } from '../../core/document/schema';
import { samplesOfBeat } from '../../core/samples/beatSamples';
import type { DocState } from '../store/doc';
import type { TabWord, TabsChannel } from './tabs';

/** Which samples something can still bring back: what is played now, what an undo, a journal or another window has of them. */

/** Samples are named by the SHA-256 of their bytes: wherever such a name stands in a text, the sample is in reach of it. */
export const samplesNamed = (text: string): string[] =>
  text.match(/(?<![0-9a-f])[0-9a-f]{64}(?![0-9a-f])/g) ?? [];

const idsOf = (beat: Pick<Beat, 'own' | 'lanes'>): string[] => samplesOfBeat(beat).map(({ id }) => id);

/** What was taken away and is offered back, by what it is. */
const offered = new Map<string, string[]>();
/** @param key what it is; @param of what plays the samples */
export const holdSamples = (key: string, of: Pick<Beat, 'own' | 'lanes'>): void =>
  void offered.set(key, idsOf(of));

/** Samples that this page can bring back. */
export const samplesInReach = ({ beat, past, future }: DocState, texts: readonly string[]): Set<string> =>
  new Set([
    ...[...past, ...future, ...(beat ? [beat] : [])].flatMap(idsOf),
    ...texts.flatMap(samplesNamed),
    ...[...offered.values()].flat(),
  ]);

/** Other windows answer in a moment, unless the browser has put them to sleep. */
const MOST_MS = 1500;

/**
 * Asks all other windows what they can bring back.
 *
 * @param others the windows that live
 * @returns null where one of them does not answer: then nobody knows what it needs
 */
export const createAsking = (tabs: TabsChannel, tab: string, others: () => Promise<string[]>) => {
  let answers = new Map<string, string[]>();
  let heard: () => void = () => undefined;

  return {
    hear: (word: TabWord, reach: () => Promise<Set<string>>): void => {
      if (word.type === 'reach?')
        void reach().then((ids) => tabs.say({ type: 'reach', to: word.tab, tab, ids: [...ids] }));
      if (word.type === 'reach' && word.to === tab) {
        answers.set(word.tab, word.ids);
        heard();
      }
    },
    ask: async (): Promise<Set<string> | null> => {
      const living = await others();
      answers = new Map();
      const all = () => living.every((one) => answers.has(one));
      const answered = new Promise<void>((resolve) => (heard = () => all() && resolve()));
      tabs.say({ type: 'reach?', tab });
      heard();
      await Promise.race([answered, new Promise((resolve) => setTimeout(resolve, MOST_MS))]);
      return all() ? new Set([...answers.values()].flat()) : null;
    },
  };
};
