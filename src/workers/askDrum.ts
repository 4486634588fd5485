import type { InstrumentId } from '../../core/document/instruments';
import type { KitId } from '../../core/document/schema';
import { createCaller } from './caller';
import type { drumPicture, DrumDrawn } from './drumPicture';

const call = createCaller<{ drumPicture: typeof drumPicture }>(
  () => new Worker(new URL('./soundWorker', window.location.href)),
  30_000,
);

const there = new Map<string, DrumDrawn>();

/** What a drum of a kit looks like, measured beside the page once; null where that failed. */
export const askDrum = async (kit: KitId, instrument: InstrumentId): Promise<DrumDrawn | null> => {
  const name = `${kit}/${instrument}`;
  const known = there.get(name);
  if (known) return known;
  const answer = await call((far) => far.drumPicture(kit, instrument) as Promise<DrumDrawn>);
  if (!answer.ok) return null;
  there.set(name, answer.value);
  return answer.value;
};
