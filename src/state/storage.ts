import { createAsyncStorage } from '@react-native-async-storage/async-storage';
import { meterText } from '../../core/beat/meter';
import type { Beat } from '../../core/beat/schema';
import type { BeatSummary, SetAside } from './slices';

/** What this needs of AsyncStorage, so that tests can give it another. */
export interface KeyValue {
  getItem(key: string): Promise<string | null>;
  getMany(keys: string[]): Promise<Record<string, string | null>>;
  setMany(entries: Record<string, string>): Promise<void>;
  removeMany(keys: string[]): Promise<void>;
  getAllKeys(): Promise<string[]>;
}

export const browserStorage = (): KeyValue => createAsyncStorage('ruddik');

const KEY = {
  beat: (id: string) => `beat/${id}`,
  summary: (id: string) => `summary/${id}`,
  revision: (id: string) => `revision/${id}`,
  aside: (id: string, at: number) => `aside/${id}/${at}`,
  settings: 'settings',
  open: 'open',
};

const idOf = (key: string, kind: string): string | null =>
  key.startsWith(`${kind}/`) ? key.slice(kind.length + 1) : null;

/** What the app comes back to. */
export interface Open {
  beatId: string;
  patternId: string | null;
}

export const summaryOf = (beat: Beat, saved: number): BeatSummary => ({
  id: beat.id,
  name: beat.name,
  tempo: beat.tempo,
  meter: meterText(beat.patterns[0]!.meter),
  bars: beat.patterns.reduce((sum, pattern) => sum + pattern.bars, 0),
  saved,
});

export type SaveResult = { kind: 'saved'; revision: number } | { kind: 'conflict'; revision: number };

const parsedOr = <T>(text: string | null | undefined, otherwise: T): T => {
  try {
    return text ? (JSON.parse(text) as T) : otherwise;
  } catch {
    return otherwise;
  }
};

/** Saving is one at a time across tabs, so that nobody writes between another's look and write. */
const alone = <T>(id: string, work: () => Promise<T>): Promise<T> =>
  typeof navigator !== 'undefined' && navigator.locks
    ? (navigator.locks.request(`ruddik/save/${id}`, work) as Promise<T>)
    : work();

/**
 * Saves a beat, unless another tab has saved it since revision `known`.
 *
 * @param known the revision that this tab read or wrote last; 0 for a beat that was never saved
 * @throws what the storage throws when it is full
 */
export const saveBeat = (storage: KeyValue, beat: Beat, known: number, now: number): Promise<SaveResult> =>
  alone(beat.id, async () => {
    const stored = Number((await storage.getItem(KEY.revision(beat.id))) ?? 0);
    if (stored !== known) return { kind: 'conflict', revision: stored };
    const revision = stored + 1;
    await storage.setMany({
      [KEY.beat(beat.id)]: JSON.stringify(beat),
      [KEY.summary(beat.id)]: JSON.stringify(summaryOf(beat, now)),
      [KEY.revision(beat.id)]: String(revision),
    });
    return { kind: 'saved', revision };
  });

export interface StoredBeat {
  text: string | null;
  revision: number;
}

export const loadBeatText = async (storage: KeyValue, id: string): Promise<StoredBeat> => {
  const got = await storage.getMany([KEY.beat(id), KEY.revision(id)]);
  return { text: got[KEY.beat(id)] ?? null, revision: Number(got[KEY.revision(id)] ?? 0) };
};

/** All that is in the library, without reading the beats themselves. */
export const readLibrary = async (
  storage: KeyValue,
): Promise<{ beats: BeatSummary[]; aside: SetAside[] }> => {
  const keys = await storage.getAllKeys();
  const got = await storage.getMany(keys.filter((key) => /^(summary|aside)\//.test(key)));
  const beats: BeatSummary[] = [];
  const aside: SetAside[] = [];
  for (const key of keys) {
    const id = idOf(key, 'beat');
    if (id) {
      const unnamed = { id, name: 'A beat without a name', tempo: 0, meter: '', bars: 0, saved: 0 };
      beats.push(parsedOr(got[KEY.summary(id)], unnamed));
    }
    if (idOf(key, 'aside')) {
      const { name, reason } = parsedOr(got[key], { name: 'damaged beat', reason: '' });
      aside.push({ key, name, reason });
    }
  }
  return { beats, aside };
};

/** Puts what could not be read out of the way, under a name that says so; nothing of it is lost. */
export const setAside = async (
  storage: KeyValue,
  id: string,
  text: string,
  reason: string,
  now: number,
): Promise<SetAside> => {
  const got = await storage.getMany([KEY.summary(id)]);
  const { name } = parsedOr(got[KEY.summary(id)], { name: id });
  const key = KEY.aside(id, now);
  const kept = { name: `${name} (damaged, set aside)`, reason, text };
  await storage.setMany({ [key]: JSON.stringify(kept) });
  await removeBeat(storage, id);
  return { key, name: kept.name, reason };
};

/** The text of what was set aside, as it was found. */
export const asideText = async (storage: KeyValue, key: string): Promise<string> =>
  parsedOr<{ text: string }>(await storage.getItem(key), { text: '' }).text;

export const removeAside = (storage: KeyValue, key: string): Promise<void> => storage.removeMany([key]);

export const removeBeat = (storage: KeyValue, id: string): Promise<void> =>
  storage.removeMany([KEY.beat(id), KEY.summary(id), KEY.revision(id)]);

export const readOpen = async (storage: KeyValue): Promise<Open | null> =>
  parsedOr<Open | null>(await storage.getItem(KEY.open), null);

export const writeOpen = (storage: KeyValue, open: Open): Promise<void> =>
  storage.setMany({ [KEY.open]: JSON.stringify(open) });

export const readSettings = async <T extends object>(storage: KeyValue, defaults: T): Promise<T> => ({
  ...defaults,
  ...parsedOr<Partial<T>>(await storage.getItem(KEY.settings), {}),
});

export const writeSettings = (storage: KeyValue, settings: object): Promise<void> =>
  storage.setMany({ [KEY.settings]: JSON.stringify(settings) });
