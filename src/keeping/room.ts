import type { BytesStore } from './indexedBytes';
import { samplesNamed } from './reach';
import type { KeyValue } from './storage';

/** What takes room in the browser, and what of it nothing needs any more. */

export const ROOMS = ['beats', 'grooves', 'kits', 'played', 'other'] as const;
export type RoomKind = (typeof ROOMS)[number];

export interface Room {
  texts: { kind: RoomKind; count: number; bytes: number }[];
  samples: { count: number; bytes: number };
  /**
   * Samples that no beat, no history, no deleted beat and no kept kit plays, in any window; null where another window does not
   * say what it needs.
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
  /** The samples that some window can still bring back, though nothing that is kept names them; null where that is not known. */
  inReach: () => Promise<ReadonlySet<string> | null>;
}

/** Which edits of a beat its text has already: they say no more than it does. */
const basesOf = async (storage: KeyValue, keys: string[]): Promise<Map<string, number>> => {
  const texts = await storage.getMany(keys.filter((key) => key.startsWith('state/')));
  return new Map(
    Object.entries(texts).map(([key, text]) => {
      const base = Number(/"base":(\d+)/.exec(text ?? '')?.[1] ?? -1);
      return [key.slice('state/'.length), base];
    }),
  );
};

const LOG = /^log\/(.*)\/(\d+)$/;

/** What all texts take, and the samples that they name. */
const lookedThrough = async (storage: KeyValue): Promise<{ texts: Room['texts']; named: Set<string> }> => {
  const found = new Map(ROOMS.map((kind) => [kind, { kind, count: 0, bytes: 0 }]));
  const keys = await storage.getAllKeys();
  const bases = await basesOf(storage, keys);
  const named = new Set<string>();
  const isInText = (key: string): boolean => {
    const [, id, seq] = LOG.exec(key) ?? [];
    return id !== undefined && Number(seq) <= (bases.get(id) ?? -1);
  };
  for (let at = 0; at < keys.length; at += AT_ONCE) {
    const some = keys.slice(at, at + AT_ONCE);
    const texts = await storage.getMany(some);
    for (const key of some) {
      const one = found.get(kindOf(key))!;
      one.count += 1;
      one.bytes += key.length + (texts[key]?.length ?? 0);
      if (!isInText(key)) for (const id of samplesNamed(texts[key] ?? '')) named.add(id);
    }
  }
  return { texts: [...found.values()], named };
};

/**
 * Looks what takes room. A sample is in use where anything that is kept names it, readable or not, or a window can still bring
 * it back.
 *
 * @throws what the storage throws where it cannot be read: then nothing is called unused
 */
export const roomUsed = async ({ storage, bytes, inReach }: RoomParts): Promise<Room> => {
  const [{ texts, named }, names, reach] = await Promise.all([
    lookedThrough(storage),
    bytes.names(),
    inReach(),
  ]);
  const sizes = await bytes.sizes(names);
  const sum = (of: string[]) => of.reduce((total, name) => total + (sizes[names.indexOf(name)] ?? 0), 0);
  const unused = names.filter((name) => !named.has(name) && !reach?.has(name));
  return {
    texts,
    samples: { count: names.length, bytes: sum(names) },
    unused: reach && { names: unused, bytes: sum(unused) },
  };
};
