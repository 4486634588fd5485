import type { KitOnKit } from '../../core/files/kitFile';
import { alone } from './log';
import { holdSamples } from './reach';
import type { KeyValue } from './storage';

/** Kits of one's own that are kept for all beats, each under a key of its own: no page can lose another's. */
export interface KeptKit extends KitOnKit {
  id: string;
}

const PREFIX = 'kit/';

type Formats = typeof import('../../core/formats');

const read = ({ ownKitSchema }: Formats, id: string, text: string | null): KeptKit | null => {
  try {
    const raw = JSON.parse(text ?? '') as { kit?: unknown; own?: unknown };
    const own = ownKitSchema.safeParse(raw.own);
    return own.success && typeof raw.kit === 'string' ? { id, kit: raw.kit, own: own.data } : null;
  } catch {
    return null;
  }
};

/** All that are kept, by name. What cannot be read is left where it is. */
export const keptKits = async (storage: KeyValue): Promise<KeptKit[]> => {
  const keys = (await storage.getAllKeys()).filter((key) => key.startsWith(PREFIX));
  const [texts, formats] = await Promise.all([storage.getMany(keys), import('../../core/formats')]);
  return keys
    .flatMap((key) => read(formats, key.slice(PREFIX.length), texts[key] ?? null) ?? [])
    .sort((a, b) => a.own.name.localeCompare(b.own.name));
};

/** Keeps one; another of the same name stays. @throws what the storage throws when it is full */
export const keepKit = (storage: KeyValue, { id, kit, own }: KeptKit): Promise<void> =>
  alone(`kits`, () => storage.setMany({ [PREFIX + id]: JSON.stringify({ kit, own }) }));

/**
 * Forgets one. Its samples stay in use while it can be had back.
 *
 * @returns what keeps it again as it was
 */
export const forgetKit = async (storage: KeyValue, kit: KeptKit): Promise<() => Promise<void>> => {
  holdSamples(PREFIX + kit.id, { own: kit.own, lanes: [] });
  await storage.removeMany([PREFIX + kit.id]);
  return () => keepKit(storage, kit);
};
