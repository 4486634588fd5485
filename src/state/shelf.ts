import { catalogueOf, type Catalogue } from '../../core/groove/catalogue';
import type { Groove, GrooveRow } from '../../core/groove/groove';
import { grooveOfFile, type Indexed } from '../../core/groove/importing';
import { builtInGrooves } from '../../core/groove/library';
import { likenessOf, type Likeness } from '../../core/groove/likeness';
import { examplesFrom } from '../../core/groove/perform';
import { GENERAL_MIDI, type DrumMap } from '../../core/midi/drumMap';
import type { Example } from '../../core/midi/guessMap';
import MiniSearch from 'minisearch';
import { folderBytes, readFolder, type FolderState } from './folder';
import { forgetFiles, keepIndexed, readFile, readImported } from './importedFiles';
import { groovesChanged, type GroovesState } from './grooves';
import type { KeyValue } from './storage';
import type { Store } from './store';

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
  matching(query: string): Uint8Array | null;
  groove(id: string): Promise<Groove | null>;
  bytes(id: string): Promise<Uint8Array | null>;
  likeness(id: string): Likeness | null;
  indexed(id: string): Indexed | null;
  add(indexed: Indexed[]): void;
  /** Reads a file anew with another map, or its tempos followed or not. */
  readAnew(id: string, change: { map?: string; followTempo?: boolean }): Promise<void>;
  forget(ids: string[]): Promise<void>;
  mapNamed(name: string): DrumMap;
  examples(): Example[];
  /** Looks at the server's folder again. */
  lookAgain(): Promise<void>;
}

const SETTINGS = 'grooves/settings';
const SAVE_AFTER = 400;
const LOOK_AGAIN = 15_000;

const searchable = ({ id, name, style, tags, path }: GrooveRow) => ({
  id,
  name,
  style,
  tags: tags.join(' '),
  path: path.join(' '),
});

const indexOf = (): MiniSearch =>
  new MiniSearch({
    fields: ['name', 'style', 'tags', 'path'],
    searchOptions: { prefix: true, combineWith: 'AND' },
    autoVacuum: false,
  });

export const createShelf = (store: Store, storage: KeyValue, folderUrl: string): ShelfKeeper => {
  const listeners = new Set<() => void>();
  const builtIn = new Map<string, Groove>();
  const imported = new Map<string, Indexed>();
  const inFolder = new Map<string, Indexed>();
  const alike = new Map<string, Likeness>();
  let search = indexOf();
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
  /** The list is there at once; the words of many rows are made ready to be searched bit by bit. */
  const rebuild = (change: Partial<Shelf> = {}) => {
    const catalogue = catalogueOf(rowsNow());
    building += 1;
    const mine = building;
    const next = indexOf();
    const documents = catalogue.rows.map(searchable);
    if (documents.length < 1000) next.addAll(documents);
    else
      void next.addAllAsync(documents, { chunkSize: 200 }).then(() => {
        if (mine !== building) return;
        search = next;
        tell({});
      });
    if (documents.length < 1000) search = next;
    tell({ catalogue, ...change });
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
    });
    return read.ok ? read.groove : null;
  };

  const lookAgain = async () => {
    const found = await readFolder(folderUrl);
    if (found.kind === 'there') {
      inFolder.clear();
      for (const one of found.indexed) inFolder.set(one.row.id, one);
      rebuild({ folder: found.state });
    } else if (found.state.kind !== shelf.folder.kind) tell({ folder: found.state });
    if (found.kind !== 'none') setTimeout(() => void lookAgain(), LOOK_AGAIN);
  };

  const restoreSettings = async () => {
    try {
      const kept = JSON.parse((await storage.getItem(SETTINGS)) ?? '{}') as Partial<GroovesState>;
      store.dispatch(groovesChanged(kept));
    } catch {
      // What cannot be read is as if nothing had been chosen yet.
    }
    let saved = store.getState().grooves;
    let timer: ReturnType<typeof setTimeout> | null = null;
    store.subscribe(() => {
      const { grooves } = store.getState();
      if (grooves === saved) return;
      saved = grooves;
      timer ??= setTimeout(() => {
        timer = null;
        void storage.setMany({ [SETTINGS]: JSON.stringify(store.getState().grooves) });
      }, SAVE_AFTER);
    });
  };

  const load = async () => {
    await restoreSettings();
    for (const one of builtInGrooves()) builtIn.set(one.id, one);
    rebuild();
    for (const one of await readImported(storage)) imported.set(one.row.id, one);
    rebuild({ status: 'ready' });
    void lookAgain();
  };

  return {
    now: () => shelf,
    listen: (told) => {
      listeners.add(told);
      return () => listeners.delete(told);
    },
    load: () => (loading ??= load()),
    matching: (query) => {
      if (!query.trim()) return null;
      const mask = new Uint8Array(shelf.catalogue.rows.length);
      for (const { id } of search.search(query)) {
        const at = shelf.catalogue.byId.get(id as string);
        if (at !== undefined) mask[at] = 1;
      }
      return mask;
    },
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
      rebuild();
    },
    readAnew: async (id, change) => {
      const known = indexed(id);
      const file = known && (await bytes(id));
      if (!known || !file) return;
      const source = known.row.source as 'imported' | 'folder';
      const map = mapNamed(change.map ?? known.map);
      const followTempo = change.followTempo ?? known.followTempo;
      const read = grooveOfFile(file, { path: id.slice(source.length + 1), source, map, followTempo });
      if (!read.ok) return;
      if (source === 'imported') await keepIndexed(storage, read.taken.indexed);
      (source === 'imported' ? imported : inFolder).set(id, read.taken.indexed);
      rebuild();
    },
    forget: async (ids) => {
      await forgetFiles(storage, ids);
      for (const id of ids) imported.delete(id);
      rebuild();
    },
    mapNamed,
    examples: () => (examples ??= examplesFrom([...builtIn.values()])),
    lookAgain,
  };
};
