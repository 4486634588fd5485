import type { OwnLayers } from '../../core/samples/own';
import type { SoundShape } from '../../core/samples/shape';
import type { Sound } from '../../core/samples/voiceSound';
import { createCaller, createPool } from './caller';
import type { Desk } from './soundDesk';

/** From its own address, not by way of the page: it has a policy of its own, by which it may compile what decodes audio. */
const worker = () => new Worker(require.unstable_resolveWorker('./soundWorker'));

/** A loop of ten minutes takes its time. */
const MOST_MS = 60_000;

/** The page and the audio thread want a core too; more than four would only wait for the storage. */
const MOST_WORKERS = Math.max(2, Math.min(4, (globalThis.navigator?.hardwareConcurrency ?? 2) - 1));

/** Those of the one kind work on what is to be heard, so that it does not wait for what is looked at. */
const heard = createPool<Desk>(worker, MOST_MS, MOST_WORKERS);
const desk = createCaller<Desk>(worker, MOST_MS);

/** A sound of one's own at a rate; null where none of its samples is there. @throws where the worker fails */
export const askOwn = async (own: OwnLayers, shape: SoundShape, rate: number): Promise<Sound | null> => {
  const answer = await heard((far) => far.ownSound(own, shape, rate) as Promise<Sound | null>);
  if (!answer.ok) throw new Error(answer.why);
  return answer.value;
};

/** Asks the desk; null where it fails or takes too long. */
export const askDesk = async <T>(call: Parameters<typeof desk<T>>[0]): Promise<T | null> => {
  const answer = await desk<T>(call);
  return answer.ok ? answer.value : null;
};
