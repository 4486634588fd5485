import type { OwnLayers } from '../../core/samples/own';
import type { SoundShape } from '../../core/samples/shape';
import type { Sound } from '../../core/samples/voiceSound';
import type { Watched } from '../workers/watched';
import type { FromWorker, ToWorker } from './messages';

type AskOwn = (own: OwnLayers, shape: SoundShape, rate: number) => Promise<Sound | null>;
let ownMaker: (() => Promise<AskOwn>) | null = null;

/** Says who works out sounds of one's own: it is fetched with the screens that come after the first. */
export const ownSoundsFrom = (fetched: () => Promise<AskOwn>): void => {
  ownMaker = fetched;
};

/** A sound of one's own is worked out beside the page, and handed on; how that is done is fetched when the first one is wanted. */
export const giveOwn = async (
  { name, own, shape, rate }: Extract<FromWorker, { type: 'want' }>,
  to: Watched,
): Promise<void> => {
  const give = (message: ToWorker, transfer: Transferable[] = []) => to.worker.postMessage(message, transfer);
  try {
    const ask = await ownMaker!();
    const sound = await ask(own, shape, rate);
    give({ type: 'own', name, sound }, sound?.buffers.map(({ buffer }) => buffer) ?? []);
  } catch {
    give({ type: 'own', name, failed: true });
  }
};
