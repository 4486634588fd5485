import type { InstrumentId } from '../document/instruments';
import type { Beat, KitId } from '../document/schema';
import { kitOf, standIn } from '../synthesis/kits';
import { makeSound } from '../synthesis/layers';
import { ownOf, type SoundingKit, type OwnLayers, type SoundingLane } from './own';
import { isPlainShape, shapeLayers, soundShapeOf, type SoundShape } from './shape';
import { drumPlan, type Sound } from './voiceSound';

export type { SoundingKit as Kit, OwnLayers as OwnSound, SoundingLane };

/** A drum in its layers, from the softest strike to the hardest. */
export type Layers = Float32Array[];

/** How one drum of a kit is come by: synthesized as it is now, read from a store or a file as it may be. */
export type LoadSound = (kit: KitId, id: InstrumentId, rate: number) => Promise<Layers>;

/** How sounds of one's own are come by; null where none of their samples is there. */
export type LoadOwn = (own: OwnLayers, shape: SoundShape, rate: number) => Promise<Sound | null>;

/** All sounds come from here: to live playback, to a bounce, to the command line. Each is made once. */
export interface Sounds {
  /** Samples a second. */
  rate: number;
  /** The sound of a lane in a kit; lanes of one key share it. @throws what loading throws; it can be asked for again */
  soundsFor: (kit: SoundingKit, lane: SoundingLane) => Promise<Sound>;
  /** The same where it is there already, at once; otherwise null. */
  ready: (kit: SoundingKit, lane: SoundingLane) => Sound | null;
  /** Drops what was shaped for lanes that are not among these keys: a slider that is dragged shapes a sound at every move. */
  forget: (keys: ReadonlySet<string>) => void;
}

/** Sounds of one's own are told by what they are, worked out once for each. */
const KEYS = new WeakMap<object, string>();
const textOf = (part: object): string => {
  const there = KEYS.get(part) ?? JSON.stringify(part);
  KEYS.set(part, there);
  return there;
};

const baseKey = (kit: KitId, { instrument }: SoundingLane): string =>
  `${kit}/${standIn(kitOf(kit), instrument)}`;

const ownKey = (own: OwnLayers): string => `own/x/${textOf('loop' in own ? own.loop : own.voice)}`;

/** Whether a key is of what was shaped, or of one's own: it is dropped once no lane asks for it. @example isOwnKey('quay/kick') // false */
export const isOwnKey = (key: string): boolean => key.split('/', 3).length > 2;

/**
 * The name of what a lane sounds like: lanes that sound alike share it.
 *
 * @example soundKey({ kit: 'quay' }, { instrument: 'kick' }) // "quay/kick"
 */
export const soundKey = (kit: SoundingKit, lane: SoundingLane): string => {
  const own = ownOf(kit, lane);
  const shape = soundShapeOf(lane);
  const base = own ? ownKey(own) : baseKey(kit.kit, lane);
  return isPlainShape(shape) ? base : `${base}/${JSON.stringify(shape)}`;
};

const synthesized: LoadSound = (kit, id, rate) => Promise.resolve(makeSound(kitOf(kit), id, rate).layers);
const none: LoadOwn = () => Promise.resolve(null);

const ofDrum = (buffers: Layers): Sound => ({ buffers, plan: drumPlan(buffers.length) });

/**
 * A store of sounds at a rate, in samples a second.
 *
 * @param load how a drum is come by; left out, it is synthesized
 * @param loadOwn how a sound of one's own is; where none of its samples is there, the kit's drum stands in
 * @example createSounds(8000).ready({ kit: 'quay' }, beat.lanes[0]!) // null
 */
export const createSounds = (
  rate: number,
  load: LoadSound = synthesized,
  loadOwn: LoadOwn = none,
): Sounds => {
  const made = new Map<string, Sound>();
  const coming = new Map<string, Promise<Sound>>();

  const loaded = (key: string, get: () => Promise<Sound>): Promise<Sound> => {
    const there = made.get(key);
    if (there) return Promise.resolve(there);
    const under = coming.get(key) ?? get().finally(() => coming.delete(key));
    coming.set(key, under);
    return under.then((sound) => {
      made.set(key, sound);
      return sound;
    });
  };

  const plain = (kit: KitId, lane: SoundingLane): Promise<Sound> =>
    loaded(baseKey(kit, lane), async () =>
      ofDrum(await load(kit, standIn(kitOf(kit), lane.instrument), rate)),
    );

  const drum = async (kit: KitId, lane: SoundingLane, shape: SoundShape): Promise<Sound> => {
    const sound = await plain(kit, lane);
    return isPlainShape(shape) ? sound : ofDrum(shapeLayers(sound.buffers, shape, rate));
  };

  return {
    rate,
    soundsFor: (kit, lane) => {
      const own = ownOf(kit, lane);
      const shape = soundShapeOf(lane);
      if (!own && isPlainShape(shape)) return plain(kit.kit, lane);
      return loaded(
        soundKey(kit, lane),
        async () => (own && (await loadOwn(own, shape, rate))) ?? drum(kit.kit, lane, shape),
      );
    },
    ready: (kit, lane) => made.get(soundKey(kit, lane)) ?? null,
    forget: (keys) => {
      for (const key of made.keys()) if (isOwnKey(key) && !keys.has(key)) made.delete(key);
    },
  };
};

/** The sounds of a beat's lanes, in their order. */
export const soundsOfBeat = (
  sounds: Sounds,
  { lanes, ...kit }: Pick<Beat, 'kit' | 'own' | 'lanes'>,
): Promise<Sound[]> => Promise.all(lanes.map((lane) => sounds.soundsFor(kit, lane)));
