import { decodeAudio } from '../../core/samples/decode';
import type { OwnLayers } from '../../core/samples/own';
import { renderLoop, renderVoice, type LoadSample } from '../../core/samples/renderVoice';
import type { Audio } from '../../core/samples/sample';
import type { SoundShape } from '../../core/samples/shape';
import type { Sound } from '../../core/samples/voiceSound';
import type { BytesStore } from '../keeping/indexedBytes';

/** As much decoded audio is kept as was used last, in frames of all sides together: some 40 MB. */
const MOST_FRAMES = 10_000_000;
/** What has not been asked for so long gives its memory back: it is decoded anew when it is wanted. */
const RESTS_AFTER_MS = 20_000;

const framesOf = ({ channels }: Audio): number => channels.reduce((sum, { length }) => sum + length, 0);

/**
 * Samples by their ids, decoded; the last ones used are kept, since a control that is turned asks for the same again and
 * again, and let go after 20 s in which nothing was asked for.
 *
 * @param store where their bytes are
 */
export const createSamples = (store: Pick<BytesStore, 'get'>): LoadSample => {
  const kept = new Map<string, Audio>();
  const coming = new Map<string, Promise<Audio | null>>();
  let resting: ReturnType<typeof setTimeout> | undefined;
  const keep = (id: string, audio: Audio) => {
    clearTimeout(resting);
    resting = setTimeout(() => kept.clear(), RESTS_AFTER_MS);
    kept.delete(id);
    kept.set(id, audio);
    let all = [...kept.values()].reduce((sum, one) => sum + framesOf(one), 0);
    for (const [other, one] of kept) {
      if (all <= MOST_FRAMES || other === id) break;
      kept.delete(other);
      all -= framesOf(one);
    }
  };
  const fetched = async (id: string): Promise<Audio | null> => {
    const bytes = await store.get(id);
    const decoded = bytes && (await decodeAudio(bytes, id));
    if (!decoded?.ok) return null;
    keep(id, decoded.audio);
    return decoded.audio;
  };
  return (id) => {
    const there = kept.get(id);
    if (there) {
      keep(id, there);
      return Promise.resolve(there);
    }
    const under = coming.get(id) ?? fetched(id).finally(() => coming.delete(id));
    coming.set(id, under);
    return under;
  };
};

/** A sound of one's own at a rate; null where none of its samples is there. */
export const ownSound = (
  own: OwnLayers,
  shape: SoundShape,
  rate: number,
  load: LoadSample,
): Promise<Sound | null> =>
  'loop' in own ? renderLoop(own.loop, shape, rate, load) : renderVoice(own.voice, shape, rate, load);
