import { catalogueOf, catalogueSteps, type Catalogue } from '../../core/groove/catalogue';
import type { Groove, GrooveRow } from '../../core/groove/groove';
import { grooveOfFile, importFile, type Indexed } from '../../core/groove/importing';
import { likenessOf, type Likeness } from '../../core/groove/likeness';
import { examplesFrom } from '../../core/groove/perform';
import { GENERAL_MIDI, type DrumMap } from '../../core/midi/drumMap/drumMap';
import type { Example } from '../../core/analysis/guessMap';
import { builtIn as readBuiltIn } from './builtIn';
import { folderBytes, readFolder, type FolderState } from './folder';
import { forgetFiles, keepFiles, keepIndexed, readFile, readImported } from './importedFiles';
import { createFinder, type Found } from '../../core/groove/finder';
import { keepGrooveSettings } from './groovesKept';
import type { KeyValue } from '../keeping/storage';
import type { Store } from '../store/store';
import { breath, unhurried } from './unhurried';

/** What the page knows of all grooves, wherever they lie. Too much for the store: rows by the ten thousand. */
export interface Shelf {
  catalogue: Catalogue;
  status: 'loading' | 'ready';
  folder: FolderState;
}

export interface ShelfKeeper {
  now(): Shelf;
  listen(told: () => void): () => void;
  /** Reads what is kept; begun once. */
  load(): Promise<void>;
  /** Rows that match words, as a mask; null where all do. */
  found(query: string): Found | null;
  groove(id: string): Promise<Groove | null>;
  bytes(id: string): Promise<Uint8Array | null>;
  likeness(id: string): Likeness | null;
  indexed(id: string): Indexed | null;
  add(indexed: Indexed[]): void;
  /** Reads a file anew with another map, its tempos followed or not, or other tracks and channels of it. */
  readAnew(id: string, change: { map?: string; followTempo?: boolean; only?: string[] }): Promise<void>;
  /** @returns what brings them back as they were */
  forget(ids: string[]): Promise<() => Promise<void>>;
  /** Looks whether all files that are kept are listed. @returns how many were not, and are now */
  check(): Promise<number>;
  /** Files that were read with a map go on being read with it under its new name. */
  renameMap(from: string, to: string): Promise<void>;
  mapNamed(name: string): DrumMap;
  examples(): Example[];
  /** Looks at the server's folder again. */
  lookAgain(): Promise<void>;
}

const LOOK_AGAIN = 15_000;

/** So many rows are made ready at once before something else may happen. */
const AT_ONCE = 1000;

export const createShelf = (store: Store, storage: KeyValue, folderUrl: string): ShelfKeeper => {
  const listeners = new Set<() => void>();
  const builtIn = new Map<string, Groove>();
  const imported = new Map<string, Indexed>();
  const inFolder = new Map<string, Indexed>();
  const alike = new Map<string, Likeness>();
  const finder = createFinder();
  let examples: Example[] | null = null;
  let loading: Promise<void> | null = null;
  let shelf: Shelf = { catalogue: catalogueOf([]), status: 'loading', folder: { kind: 'looking' } };

  const tell = (change: Partial<Shelf>) => {
    shelf = { ...shelf, ...change };
    listeners.forEach((told) => told());
  };

  const rowsNow = (): GrooveRow[] => [
    ...builtIn.values(),
    ...[...imported.values()].map(({ row }) => row),
    ...[...inFolder.values()].map(({ row }) => row),
  ];

  let building = 0;
  /** A short list is there at once; a long one is made ready bit by bit, and is shown when it is. */
  const rebuild = async (change: Partial<Shelf> = {}): Promise<void> => {
    building += 1;
    const mine = building;
    const isStale = () => mine !== building;
    const rows = rowsNow();
    if (rows.length <= AT_ONCE) {
      for (const _ of finder.steps(rows));
      tell({ catalogue: catalogueOf(rows), ...change });
      return;
    }
    tell(change);
    const catalogue = await unhurried(catalogueSteps(rows), isStale);
    if (!catalogue || isStale()) return;
    tell({ catalogue });
    await unhurried(finder.steps(rows), isStale);
    if (!isStale()) tell({ catalogue: { ...catalogue } });
  };

  const mapNamed = (name: string): DrumMap =>
    store.getState().grooves.maps.find((map) => map.name === name) ?? GENERAL_MIDI;

  const indexed = (id: string): Indexed | null => imported.get(id) ?? inFolder.get(id) ?? null;

  const bytes = async (id: string): Promise<Uint8Array | null> => {
    if (imported.has(id)) return readFile(storage, id);
    return inFolder.has(id) ? folderBytes(folderUrl, id) : null;
  };

  const groove = async (id: string): Promise<Groove | null> => {
    const own = builtIn.get(id);
    if (own) return own;
    const known = indexed(id);
    const file = known && (await bytes(id));
    if (!known || !file) return null;
    const source = known.row.source as 'imported' | 'folder';
    const read = grooveOfFile(file, {
      path: id.slice(source.length + 1),
      source,
      map: mapNamed(known.map),
      followTempo: known.followTempo,
      ...(known.only && { only: known.only }),
    });
    return read.ok ? read.groove : null;
  };

  let folderVersion: string | null = null;
  const lookAgain = async () => {
    const known = shelf.folder.kind === 'there' ? folderVersion : null;
    const found = await readFolder(folderUrl, known);
    if (found.kind === 'there') {
      folderVersion = found.version;
      inFolder.clear();
      for (const one of found.indexed) inFolder.set(one.row.id, one);
      void rebuild({ folder: found.state });
    } else if (found.kind !== 'same' && found.state.kind !== shelf.folder.kind) tell({ folder: found.state });
    if (found.kind !== 'none') setTimeout(() => void lookAgain(), LOOK_AGAIN);
  };

  /** Files that the list says nothing of are read anew, a few at a time. @returns how many there were */
  const readKept = async (): Promise<number> => {
    const { indexed: listed, unlisted } = await readImported(storage);
    for (const one of listed) imported.set(one.row.id, one);
    const found: Indexed[] = [];
    for (const id of unlisted) {
      const file = await readFile(storage, id);
      const read =
        file &&
        importFile(file, { path: id.slice('imported/'.length), source: 'imported', map: GENERAL_MIDI });
      if (read?.ok) found.push(read.value.indexed);
      await breath();
    }
    for (const one of found) imported.set(one.row.id, one);
    if (found.length) await keepIndexed(storage, found);
    return found.length;
  };

  const load = async () => {
    await keepGrooveSettings(store, storage);
    for (const one of await readBuiltIn()) builtIn.set(one.id, one);
    // All of them are new to it, which takes longer than what is done with them at once.
    await unhurried(finder.steps(rowsNow()), () => false);
    await rebuild();
    await readKept().catch(() => 0);
    await rebuild({ status: 'ready' });
    void lookAgain();
  };

  return {
    now: () => shelf,
    listen: (told) => {
      listeners.add(told);
      return () => listeners.delete(told);
    },
    load: () => (loading ??= load()),
    found: (query) => finder.find(shelf.catalogue.rows, query),
    groove,
    bytes,
    likeness: (id) => {
      const own = builtIn.get(id);
      if (!own) return indexed(id)?.likeness ?? null;
      const there = alike.get(id) ?? likenessOf(own);
      alike.set(id, there);
      return there;
    },
    indexed,
    add: (added) => {
      for (const one of added) imported.set(one.row.id, one);
      void rebuild();
    },
    readAnew: async (id, change) => {
      const known = indexed(id);
      const file = known && (await bytes(id));
      if (!known || !file) return;
      const source = known.row.source as 'imported' | 'folder';
      const map = mapNamed(change.map ?? known.map);
      const followTempo = change.followTempo ?? known.followTempo;
      const only = change.only ?? known.only;
      const path = id.slice(source.length + 1);
      const read = grooveOfFile(file, { path, source, map, followTempo, ...(only && { only }) });
      if (!read.ok) return;
      if (source === 'imported') await keepIndexed(storage, [read.taken.indexed]);
      (source === 'imported' ? imported : inFolder).set(id, read.taken.indexed);
      await rebuild();
    },
    forget: async (ids) => {
      const gone = ids.flatMap((id) => imported.get(id) ?? []);
      const files = await Promise.all(gone.map(({ row }) => readFile(storage, row.id)));
      await forgetFiles(storage, ids);
      for (const id of ids) imported.delete(id);
      await rebuild();
      return async () => {
        const back = gone.filter((_, at) => files[at]);
        await keepFiles(
          storage,
          back,
          files.flatMap((bytes) => (bytes ? [{ bytes }] : [])),
        );
        for (const one of back) imported.set(one.row.id, one);
        await rebuild();
      };
    },
    check: async () => {
      const mended = await readKept();
      if (mended) await rebuild();
      return mended;
    },
    mapNamed,
    renameMap: async (from, to) => {
      const renamed = [...imported.values()]
        .filter(({ map }) => map === from)
        .map((one) => ({ ...one, map: to }));
      for (const one of renamed) imported.set(one.row.id, one);
      if (renamed.length) await keepIndexed(storage, renamed);
    },
    examples: () => (examples ??= examplesFrom([...builtIn.values()])),
    lookAgain,
  };
};
