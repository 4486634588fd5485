import type { Indexed } from '../../core/groove/importing';
import type { Likeness } from '../../core/groove/likeness';
import type { KeyValue } from './storage';

/** Files of other people's grooves, kept in the browser as they came; beside them, in pieces, the list of what they are. */
const KEY = {
  file: (id: string) => `groove/${id}`,
  list: (piece: string) => `grooves/list/${piece}`,
};
const LIST = 'grooves/list/';

interface Stored extends Omit<Indexed, 'likeness'> {
  likeness: Omit<Likeness, 'cells' | 'late'> & { cells: string; late: string };
}

const CHUNK = 0x2000;

/** Bytes as a text of one character each: what the storage takes. */
const asText = (bytes: Uint8Array | Int8Array): string => {
  const raw = new Uint8Array(bytes.buffer, bytes.byteOffset, bytes.length);
  let out = '';
  for (let at = 0; at < raw.length; at += CHUNK) out += String.fromCharCode(...raw.subarray(at, at + CHUNK));
  return btoa(out);
};

const asBytes = (text: string): Uint8Array => {
  const raw = atob(text);
  const out = new Uint8Array(raw.length);
  for (let i = 0; i < raw.length; i++) out[i] = raw.charCodeAt(i);
  return out;
};

const stored = ({ likeness, ...rest }: Indexed): Stored => ({
  ...rest,
  likeness: { ...likeness, cells: asText(likeness.cells), late: asText(likeness.late) },
});

const restored = ({ likeness, ...rest }: Stored): Indexed => ({
  ...rest,
  likeness: {
    ...likeness,
    cells: asBytes(likeness.cells),
    late: new Int8Array(asBytes(likeness.late).buffer),
  },
});

let last = 0;
/** Pieces come later in the list the later they were made; what came later holds. */
const pieceName = (): string => {
  last = Math.max(Date.now(), last + 1);
  return String(last).padStart(16, '0');
};

/**
 * Keeps files and what they are.
 *
 * @throws what the storage throws when it is full
 */
export const keepFiles = async (
  storage: KeyValue,
  indexed: Indexed[],
  files: { bytes: Uint8Array }[],
): Promise<void> => {
  const entries: Record<string, string> = {};
  indexed.forEach(({ row }, at) => (entries[KEY.file(row.id)] = asText(files[at]!.bytes)));
  entries[KEY.list(pieceName())] = JSON.stringify(indexed.map(stored));
  await storage.setMany(entries);
};

/** Changes what is said of a file that is kept. */
export const keepIndexed = (storage: KeyValue, indexed: Indexed): Promise<void> =>
  storage.setMany({ [KEY.list(pieceName())]: JSON.stringify([stored(indexed)]) });

/** All files that are kept, by id; what is damaged in the list is passed over. */
export const readImported = async (storage: KeyValue): Promise<Indexed[]> => {
  const keys = (await storage.getAllKeys()).filter((key) => key.startsWith(LIST)).sort();
  const got = await storage.getMany(keys);
  const byId = new Map<string, Indexed>();
  for (const key of keys) {
    try {
      for (const one of JSON.parse(got[key] ?? '[]') as Stored[]) byId.set(one.row.id, restored(one));
    } catch {
      continue;
    }
  }
  // Many small pieces become one, so that the next start reads but one.
  if (keys.length > 64)
    await storage
      .setMany({ [KEY.list(pieceName())]: JSON.stringify([...byId.values()].map(stored)) })
      .then(() => storage.removeMany(keys));
  return [...byId.values()];
};

/** The bytes of a file that is kept. */
export const readFile = async (storage: KeyValue, id: string): Promise<Uint8Array | null> => {
  const text = await storage.getItem(KEY.file(id));
  return text === null ? null : asBytes(text);
};

/** Forgets files. */
export const forgetFiles = async (storage: KeyValue, ids: string[]): Promise<void> => {
  const gone = new Set(ids);
  const rest = (await readImported(storage)).filter(({ row }) => !gone.has(row.id));
  const keys = (await storage.getAllKeys()).filter((key) => key.startsWith(LIST));
  await storage.setMany({ [KEY.list(pieceName())]: JSON.stringify(rest.map(stored)) });
  await storage.removeMany([...keys, ...ids.map(KEY.file)]);
};
