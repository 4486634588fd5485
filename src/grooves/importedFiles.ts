import { splitPath, type Indexed } from '../../core/groove/importing';
import { hashText } from '../../core/random/draw';
import type { Likeness } from '../../core/groove/likeness';
import { alone } from '../keeping/log';
import type { KeyValue } from '../keeping/storage';

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

/** Pieces come later in the list the later they were made: by a counter, since clocks are set back. */
const nextPiece = async (storage: KeyValue): Promise<string> => {
  const numbers = (await storage.getAllKeys())
    .filter((key) => key.startsWith(LIST))
    .map((key) => Number(key.slice(LIST.length)))
    .filter((n) => Number.isSafeInteger(n));
  const last = numbers.reduce((most, n) => Math.max(most, n), 0);
  return KEY.list(String(last + 1).padStart(16, '0'));
};

/** One at a time, in whichever tab or worker: the list is read and written anew. */
const withList = <T>(work: () => Promise<T>): Promise<T> => alone('grooves', work);

/** Tells texts apart, nearly always: what seems the same is compared. */
const markOf = (text: string): string => `${text.length} ${hashText(text)}`;

/** Files that are kept, by what tells their bytes apart. */
export type KnownFiles = Map<string, Indexed[]>;

/** So many files are looked at at once. */
const AT_ONCE = 200;

/** All files that are kept, for an import to know again what it reads, wherever it lies now. */
export const knownFiles = async (storage: KeyValue): Promise<KnownFiles> => {
  const { indexed } = await readList(storage);
  const known: KnownFiles = new Map();
  const put = (mark: string, one: Indexed) => known.set(mark, [...(known.get(mark) ?? []), one]);
  // What was kept before files had marks is read once more.
  const unmarked = indexed.filter(({ mark }) => mark === undefined);
  for (let at = 0; at < unmarked.length; at += AT_ONCE) {
    const some = unmarked.slice(at, at + AT_ONCE);
    const texts = await storage.getMany(some.map(({ row }) => KEY.file(row.id)));
    for (const one of some) {
      const text = texts[KEY.file(one.row.id)];
      if (typeof text === 'string') put(markOf(text), one);
    }
  }
  for (const one of indexed) if (one.mark !== undefined) put(one.mark, one);
  return known;
};

/** A place beside another of the same name. @example beside('a/fill.mid', 2) // "a/fill (2).mid" */
const beside = (id: string, n: number): string => id.replace(/(\.midi?)?$/i, (ending) => ` (${n})${ending}`);

/**
 * Keeps files and what they are. A file is known by what is in it: another one of the same name gets a number, the same
 * one again is kept once, though it comes from another folder now.
 *
 * @param known the files that are kept already; those that are kept now are put there too
 * @returns what they are, under the names that they are kept by
 * @throws what the storage throws when it is full
 */
export const keepFiles = (
  storage: KeyValue,
  indexed: Indexed[],
  files: { bytes: Uint8Array }[],
  known: KnownFiles = new Map(),
): Promise<Indexed[]> =>
  withList(async () => {
    const there = await storage.getMany(indexed.map(({ row }) => KEY.file(row.id)));
    const entries: Record<string, string> = {};
    const kept: Indexed[] = [];
    const listed: Indexed[] = [];
    /** The same file under the same name in another folder. */
    const lyingElsewhere = async (one: Indexed, text: string, all: Indexed[]): Promise<Indexed | null> => {
      for (const other of all) {
        const { id, name } = other.row;
        if (id === one.row.id || name !== one.row.name) continue;
        if ((entries[KEY.file(id)] ?? (await storage.getItem(KEY.file(id)))) === text) return other;
      }
      return null;
    };
    for (const [at, one] of indexed.entries()) {
      const text = asText(files[at]!.bytes);
      const mark = markOf(text);
      const before = await lyingElsewhere(one, text, known.get(mark) ?? []);
      if (before) {
        kept.push(before);
        continue;
      }
      let { id } = one.row;
      const lies = async () =>
        entries[KEY.file(id)] ?? there[KEY.file(id)] ?? (await storage.getItem(KEY.file(id)));
      for (let n = 2, found = await lies(); found !== null && found !== text; n++, found = await lies())
        id = beside(one.row.id, n);
      entries[KEY.file(id)] = text;
      const name = id === one.row.id ? one.row.name : splitPath(id).name;
      const fresh = { ...one, mark, row: { ...one.row, id, name } };
      kept.push(fresh);
      listed.push(fresh);
      known.set(mark, [...(known.get(mark) ?? []).filter(({ row }) => row.id !== id), fresh]);
    }
    if (listed.length) entries[await nextPiece(storage)] = JSON.stringify(listed.map(stored));
    await storage.setMany(entries);
    return kept;
  });

/** Changes what is said of a file that is kept. */
export const keepIndexed = (storage: KeyValue, indexed: Indexed[]): Promise<void> =>
  withList(async () => storage.setMany({ [await nextPiece(storage)]: JSON.stringify(indexed.map(stored)) }));

const isStored = (value: unknown): value is Stored => {
  const { row, likeness, map, hits } = (value ?? {}) as Partial<Stored>;
  return (
    typeof row?.id === 'string' &&
    typeof row.name === 'string' &&
    Array.isArray(row.path) &&
    Array.isArray(row.instruments) &&
    Array.isArray(row.tags) &&
    typeof row.meter?.beats === 'number' &&
    typeof likeness?.cells === 'string' &&
    typeof likeness.late === 'string' &&
    typeof map === 'string' &&
    typeof hits === 'number'
  );
};

const piece = (text: string | null | undefined): Indexed[] => {
  try {
    const read = JSON.parse(text ?? '[]') as unknown;
    return Array.isArray(read) ? read.filter(isStored).map(restored) : [];
  } catch {
    return [];
  }
};

/** What is kept: what the list says, and the files that it says nothing of, though they are there. */
export interface Kept {
  indexed: Indexed[];
  unlisted: string[];
}

const FILE = 'groove/';

const readList = async (storage: KeyValue): Promise<Kept & { pieces: string[] }> => {
  const keys = await storage.getAllKeys();
  const pieces = keys.filter((key) => key.startsWith(LIST)).sort();
  const got = await storage.getMany(pieces);
  const byId = new Map<string, Indexed>();
  for (const key of pieces) for (const one of piece(got[key])) byId.set(one.row.id, one);
  const files = new Set(keys.filter((key) => key.startsWith(FILE)).map((key) => key.slice(FILE.length)));
  return {
    indexed: [...byId.values()].filter(({ row }) => files.has(row.id)),
    unlisted: [...files].filter((id) => !byId.has(id)),
    pieces,
  };
};

/** The list in one piece. */
const writeList = async (storage: KeyValue, indexed: Indexed[], pieces: string[]): Promise<void> => {
  await storage.setMany({ [await nextPiece(storage)]: JSON.stringify(indexed.map(stored)) });
  await storage.removeMany(pieces);
};

/** All files that are kept; the list is only a copy of what lies in them. */
export const readImported = async (storage: KeyValue): Promise<Kept> => {
  const { pieces, ...kept } = await readList(storage);
  // Many small pieces become one, so that the next start reads but one.
  if (pieces.length > 64)
    await withList(async () => {
      const now = await readList(storage);
      await writeList(storage, now.indexed, now.pieces);
    });
  return kept;
};

/** The bytes of a file that is kept; null where there is none, or what lies there is none. */
export const readFile = async (storage: KeyValue, id: string): Promise<Uint8Array | null> => {
  const text = await storage.getItem(KEY.file(id));
  try {
    return text === null ? null : asBytes(text);
  } catch {
    return null;
  }
};

/** Forgets files. */
export const forgetFiles = (storage: KeyValue, ids: string[]): Promise<void> =>
  withList(async () => {
    const gone = new Set(ids);
    const { indexed, pieces } = await readList(storage);
    await writeList(
      storage,
      indexed.filter(({ row }) => !gone.has(row.id)),
      pieces,
    );
    await storage.removeMany(ids.map(KEY.file));
  });
