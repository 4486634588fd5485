import type { InstrumentId } from '../document/instruments';
import type { Beat, KitId, Lane } from '../document/schema';
import { kitOf, standIn } from './kits';
import { makeSound } from './layers';
import { isPlain, shapeLayers, shapeOf } from './shape';

/** What of a lane decides how it sounds. */
export type SoundingLane = Pick<Lane, 'instrument' | 'tune' | 'decay' | 'lowPass' | 'highPass'>;

/** A sound in its layers, from the softest strike to the hardest. */
export type Layers = Float32Array[];

/** How one drum of a kit is come by: synthesized as it is now, read from a store or a file as it may be. */
export type LoadSound = (kit: KitId, id: InstrumentId, rate: number) => Promise<Layers>;

/** All sounds come from here: to live playback, to a bounce, to the command line. Each is made once. */
export interface Sounds {
  /** Samples a second. */
  rate: number;
  /** What a lane sounds like in a kit; lanes of one key share it. @throws what loading throws; it can be asked for again */
  soundsFor: (kit: KitId, lane: SoundingLane) => Promise<Layers>;
  /** The same where it is there already, at once; otherwise null. */
  ready: (kit: KitId, lane: SoundingLane) => Layers | null;
  /** Drops what was shaped for lanes that are not among these keys: a slider that is dragged shapes a sound at every move. */
  forget: (keys: ReadonlySet<string>) => void;
}

const baseKey = (kit: KitId, { instrument }: SoundingLane): string =>
  `${kit}/${standIn(kitOf(kit), instrument)}`;

/**
 * The name of what a lane sounds like: lanes that sound alike share it.
 *
 * @example soundKey('quay', { instrument: 'kick' }) // "quay/kick"
 */
export const soundKey = (kit: KitId, lane: SoundingLane): string => {
  const shape = shapeOf(lane);
  return isPlain(shape) ? baseKey(kit, lane) : `${baseKey(kit, lane)}/${JSON.stringify(shape)}`;
};

const synthesized: LoadSound = (kit, id, rate) => Promise.resolve(makeSound(kitOf(kit), id, rate).layers);

/**
 * A store of sounds at a rate, in samples a second.
 *
 * @param load how a drum is come by; left out, it is synthesized
 * @example createSounds(8000).ready('quay', beat.lanes[0]!) // null
 */
export const createSounds = (rate: number, load: LoadSound = synthesized): Sounds => {
  const made = new Map<string, Layers>();
  const coming = new Map<string, Promise<Layers>>();

  const loaded = (key: string, get: () => Promise<Layers>): Promise<Layers> => {
    const there = made.get(key);
    if (there) return Promise.resolve(there);
    const under = coming.get(key) ?? get().finally(() => coming.delete(key));
    coming.set(key, under);
    return under.then((layers) => {
      made.set(key, layers);
      return layers;
    });
  };

  const plain = (kit: KitId, lane: SoundingLane): Promise<Layers> =>
    loaded(baseKey(kit, lane), () => load(kit, standIn(kitOf(kit), lane.instrument), rate));

  return {
    rate,
    soundsFor: (kit, lane) => {
      const shape = shapeOf(lane);
      if (isPlain(shape)) return plain(kit, lane);
      return loaded(soundKey(kit, lane), async () => shapeLayers(await plain(kit, lane), shape, rate));
    },
    ready: (kit, lane) => made.get(soundKey(kit, lane)) ?? null,
    forget: (keys) => {
      for (const key of made.keys()) if (key.split('/').length > 2 && !keys.has(key)) made.delete(key);
    },
  };
};

/** What the lanes of a beat sound like, in their order. */
export const soundsOfBeat = (
  sounds: Sounds,
  { kit, lanes }: Pick<Beat, 'kit' | 'lanes'>,
): Promise<Layers[]> => Promise.all(lanes.map((lane) => sounds.soundsFor(kit, lane)));
