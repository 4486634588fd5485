import { createAsyncStorage } from '@react-native-async-storage/async-storage';
import { meterText } from '../../core/document/meter';
import type { Beat } from '../../core/document/schema';
import { browserJournal, type Journal } from './journal';
import IndexedStorage, { type StorageAsked, type Got } from './indexedStorage';
import { alone, begin, logKeys, rewrite } from './log';
import type { BeatSummary, SetAside } from '../store/slices';
import { words } from '../words/state';

/** What this needs of AsyncStorage, so that tests can give it another. */
export interface KeyValue {
  getItem(key: string): Promise<string | null>;
  getMany(keys: string[]): Promise<Record<string, string | null>>;
  setMany(entries: Record<string, string>): Promise<void>;
  /** Writes what is found out from what lies there, with nothing of another page in between. */
  change(asked: StorageAsked, work: (got: Got) => Record<string, string>): Promise<void>;
  removeMany(keys: string[]): Promise<void>;
  getAllKeys(): Promise<string[]>;
}

/** Small things that are written when they change, and may still be on their way when the page goes. */
const SMALL = new Set(['settings', 'open', 'grooves/settings', 'export/kept', 'feel/blind']);
const LATE = 'late/';

/**
 * A storage in front of which small things lie in the journal until it has them: what is read is what was written last,
 * though the page went before it was kept.
 */
export const withJournal = (storage: KeyValue, journal: Journal): KeyValue => {
  const late = (key: string): string | null => (SMALL.has(key) ? journal.read(LATE + key) : null);
  return {
    ...storage,
    getItem: async (key) => late(key) ?? storage.getItem(key),
    getMany: async (keys) => {
      const got = await storage.getMany(keys);
      return Object.fromEntries(keys.map((key) => [key, late(key) ?? got[key] ?? null]));
    },
    setMany: async (entries) => {
      const small = Object.entries(entries).filter(([key]) => SMALL.has(key));
      for (const [key, text] of small) journal.write(LATE + key, text);
      await storage.setMany(entries);
      for (const [key, text] of small) if (late(key) === text) journal.remove(LATE + key);
    },
  };
};

const NAME = 'ruddik';

/** What reads and writes of the browser's storage. Its connection is opened again where it was closed underneath. */
export const browserStorage = (): KeyValue => {
  const { getItem, getMany, setMany, removeMany, getAllKeys } = createAsyncStorage(NAME);
  const { changeValues: change } = new IndexedStorage(NAME);
  return withJournal({ getItem, getMany, setMany, change, removeMany, getAllKeys }, browserJournal());
};

const KEY = {
  summary: (id: string) => `summary/${id}`,
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

const parsedOr = <T>(text: string | null | undefined, otherwise: T): T => {
  try {
    return text ? (JSON.parse(text) as T) : otherwise;
  } catch {
    return otherwise;
  }
};

/**
 * Adds a beat that is not kept yet.
 *
 * @param seen what of a tab's edits is in it already
 * @returns the number of its last entry; null where a beat of that id is there already
 * @throws what the storage throws when it is full
 */
export const addBeat = (
  storage: KeyValue,
  beat: Beat,
  now: number,
  seen: Record<string, number> = {},
): Promise<number | null> =>
  begin(
    storage,
    beat.id,
    JSON.stringify(beat),
    { [KEY.summary(beat.id)]: JSON.stringify(summaryOf(beat, now)) },
    seen,
  );

/** Writes a beat anew as it is after an entry of its log; false where more entries have come since. */
export const rewriteBeat = (storage: KeyValue, beat: Beat, seq: number, now: number): Promise<boolean> =>
  rewrite(storage, beat.id, seq, JSON.stringify(beat), {
    [KEY.summary(beat.id)]: JSON.stringify(summaryOf(beat, now)),
  });

const isSummary = (value: unknown): value is Omit<BeatSummary, 'id'> => {
  const { name, tempo, meter, bars, saved } = (value ?? {}) as Partial<BeatSummary>;
  return (
    typeof name === 'string' &&
    typeof meter === 'string' &&
    [tempo, bars, saved].every((one) => typeof one === 'number' && Number.isFinite(one))
  );
};

/**
 * All that is in the library, without reading the beats themselves. What the list says of a beat is only a copy: where it
 * is missing or junk the beat is listed all the same, and named among those that are to be looked at.
 */
export const readLibrary = async (
  storage: KeyValue,
): Promise<{ beats: BeatSummary[]; aside: SetAside[]; unlisted: string[] }> => {
  const keys = await storage.getAllKeys();
  const got = await storage.getMany(keys.filter((key) => /^(summary|aside)\//.test(key)));
  const beats: BeatSummary[] = [];
  const aside: SetAside[] = [];
  const unlisted: string[] = [];
  for (const key of keys) {
    const id = idOf(key, 'beat');
    if (id !== null) {
      const summary = parsedOr<unknown>(got[KEY.summary(id)], null);
      if (isSummary(summary)) beats.push({ ...summary, id });
      else {
        unlisted.push(id);
        beats.push({ id, name: words.aBeatWithoutAName, tempo: 0, meter: '', bars: 0, saved: 0 });
      }
    }
    if (idOf(key, 'aside') !== null) {
      const read = parsedOr<unknown>(got[key], null) as Partial<SetAside> | null;
      const text = (one: unknown, otherwise: string) => (typeof one === 'string' ? one : otherwise);
      aside.push({
        key,
        name: text(read?.name, words.damagedData),
        reason: text(read?.reason, ''),
        isBeat: isBeatText((read as { text?: unknown } | null)?.text),
      });
    }
  }
  return { beats, aside, unlisted };
};

/** Whether a text says at its start that it is a beat. */
const isBeatText = (text: unknown): boolean =>
  typeof text === 'string' && /^\s*\{\s*"kind":\s*"ruddik\.beat"/.test(text.slice(0, 200));

/** A key for what is set aside that nothing lies at: a clock that was set back must not bring one onto another. */
const freeAside = async (storage: KeyValue, id: string): Promise<string> => {
  const taken = new Set(await storage.getAllKeys());
  let at = 1;
  while (taken.has(KEY.aside(id, at))) at++;
  return KEY.aside(id, at);
};

/** Keeps a text that could not be read, under a name that says so. */
export const keepAside = async (
  storage: KeyValue,
  id: string,
  what: { name: string; reason: string; text: string },
): Promise<SetAside> => {
  const key = await freeAside(storage, id);
  await storage.setMany({ [key]: JSON.stringify(what) });
  return { key, name: what.name, reason: what.reason, isBeat: isBeatText(what.text) };
};

/** Puts a beat that could not be read out of the way, with the edits that came after it; nothing of it is lost. */
export const setAside = async (
  storage: KeyValue,
  id: string,
  text: string,
  reason: string,
): Promise<SetAside> => {
  const got = await storage.getMany([KEY.summary(id)]);
  const summary = parsedOr<unknown>(got[KEY.summary(id)], null);
  const name = isSummary(summary) ? summary.name : words.aBeat;
  const kept = await keepAside(storage, id, { name: words.nameDamagedSetAside(name), reason, text });
  await removeBeat(storage, id);
  return kept;
};

/** The text of what was set aside, as it was found. */
export const asideText = async (storage: KeyValue, key: string): Promise<string> =>
  parsedOr<{ text: string }>(await storage.getItem(key), { text: '' }).text;

export const removeAside = (storage: KeyValue, key: string): Promise<void> => storage.removeMany([key]);

export const removeBeat = async (storage: KeyValue, id: string): Promise<void> =>
  alone(`log/${id}`, async () => storage.removeMany([KEY.summary(id), ...(await logKeys(storage, id))]));

const isOpen = (value: unknown): value is Open => {
  const { beatId, patternId } = (value ?? {}) as Partial<Open>;
  return typeof beatId === 'string' && (patternId === null || typeof patternId === 'string');
};

export const readOpen = async (storage: KeyValue): Promise<Open | null> => {
  const read = parsedOr<unknown>(await storage.getItem(KEY.open), null);
  return isOpen(read) ? read : null;
};

/** What is written to say which beat is open. */
export const openEntry = (open: Open): Record<string, string> => ({ [KEY.open]: JSON.stringify(open) });

export const writeOpen = (storage: KeyValue, open: Open): Promise<void> => storage.setMany(openEntry(open));

/** The settings as they were kept, and the text of what is no settings. */
export const readSettings = async (storage: KeyValue): Promise<{ kept: object; junk: string | null }> => {
  const text = await storage.getItem(KEY.settings);
  const read = parsedOr<unknown>(text, undefined);
  const isKept = typeof read === 'object' && read !== null && !Array.isArray(read);
  return isKept ? { kept: read, junk: null } : { kept: {}, junk: text };
};

export const writeSettings = (storage: KeyValue, settings: object): Promise<void> =>
  storage.setMany({ [KEY.settings]: JSON.stringify(settings) });
