import type { arrangements } from '../../core/make/ring';
import { createCaller } from './caller';

const call = createCaller<{ arrangements: typeof arrangements }>(
  () => new Worker(new URL('./listWorker', window.location.href)),
  10_000,
);

/** Lists the arrangements of a long ring beside the page; null where that failed. */
export const listAside = async (slots: number, strikes: number): Promise<Uint32Array | null> => {
  const answer = await call((far) => far.arrangements(slots, strikes));
  return answer.ok ? answer.value : null;
};
