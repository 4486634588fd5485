import type { Beat } from '../../core/document/schema';
import { samplesOfBeat } from '../../core/sound/beatSamples';
import type { BytesStore } from './indexedBytes';
import { keptKits } from './keptKits';
import type { KeyValue } from './storage';

/** What takes room in the browser, and what of it nothing needs any more. */

export const ROOMS = ['beats', 'grooves', 'kits', 'played', 'other'] as const;
export type RoomKind = (typeof ROOMS)[number];

export interface Room {
  texts: { kind: RoomKind; count: number; bytes: number }[];
  samples: { count: number; bytes: number };
  /**
   * Samples that no beat, no step of the open one's history and no kept kit plays; null where that cannot be told, since some
   * beats cannot be read.
   */
  unused: { names: string[]; bytes: number } | null;
}

const KIND_OF: [RegExp, RoomKind][] = [
  [/^(beat|state|revision|log|aside)\//, 'beats'],
  [/^(groove|grooves)\//, 'grooves'],
  [/^kit\//, 'kits'],
  [/^played\//, 'played'],
];

const kindOf = (key: string): RoomKind => KIND_OF.find(([pattern]) => pattern.test(key))?.[1] ?? 'other';

/** So many texts are looked at at once: all of them together may be large. */
const AT_ONCE = 200;

interface RoomParts {
  storage: KeyValue;
  bytes: Pick<BytesStore, 'names' | 'sizes'>;
  /** All beats that are kept, and whatever else an undo may bring back; null where some of them cannot be read. */
  beats: () => Promise<Beat[] | null>;
}

const textsOf = async (storage: KeyValue): Promise<Room['texts']> => {
  const found = new Map(ROOMS.map((kind) => [kind, { kind, count: 0, bytes: 0 }]));
  const keys = await storage.getAllKeys();
  for (let at = 0; at < keys.length; at += AT_ONCE) {
    const some = keys.slice(at, at + AT_ONCE);
    const texts = await storage.getMany(some);
    for (const key of some) {
      const one = found.get(kindOf(key))!;
      one.count += 1;
      one.bytes += key.length + (texts[key]?.length ?? 0);
    }
  }
  return [...found.values()];
};

/**
 * Looks what takes room.
 *
 * @throws what the storage throws where it cannot be read: then nothing is called unused
 */
export const roomUsed = async ({ storage, bytes, beats }: RoomParts): Promise<Room> => {
  const [texts, names, kits, all] = await Promise.all([
    textsOf(storage),
    bytes.names(),
    keptKits(storage),
    beats(),
  ]);
  const sizes = await bytes.sizes(names);
  const needed = new Set([
    ...(all ?? []).flatMap((beat) => samplesOfBeat(beat).map(({ id }) => id)),
    ...kits.flatMap(({ own }) => samplesOfBeat({ own, lanes: [] }).map(({ id }) => id)),
  ]);
  const sum = (of: string[]) => of.reduce((total, name) => total + (sizes[names.indexOf(name)] ?? 0), 0);
  const unused = names.filter((name) => !needed.has(name));
  return {
    texts,
    samples: { count: names.length, bytes: sum(names) },
    unused: all && { names: unused, bytes: sum(unused) },
  };
};
