import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { Router, type Request } from 'express';
import {
  browse,
  catalogueOf,
  FIELDS,
  SORTS,
  type Catalogue,
  type Filters,
  type Sort,
} from '../core/groove/catalogue';
import type { FolderEntry, FolderPage } from '../core/groove/folderPage';
import type { LeftOut } from '../core/groove/importing';
import { FILE_BOUNDS } from '../core/midi/read/limits';
import type { FromGrooves } from './grooveWorker';
import { readPlain } from './plainFile';

/** A folder of grooves as it is known now. */
export interface GrooveFolder {
  page(wanted: PageWanted): FolderPage;
  /** The bytes of one file that is listed; null for anything else. */
  bytes(id: string): Promise<Buffer | null>;
  /** Resolves once the folder has been gone through. */
  ready: Promise<void>;
  close(): Promise<void>;
}

export interface PageWanted {
  page: number;
  per: number;
  sort: Sort;
  down: boolean;
  query: string;
  filters: Filters;
}

const EVERY_MS = 4000;
/** How many files that could not be read are named. */
const MOST_LEFT = 200;

/** What the words of a search are looked for in, row by row. */
const textsOf = ({ rows }: Catalogue): string[] =>
  rows.map(({ name, tags, path: folders }) => [name, ...tags, ...folders].join(' ').toLowerCase());

const matching = (texts: string[], query: string): Uint8Array | null => {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  if (!words.length) return null;
  return Uint8Array.from(texts, (text) => (words.every((word) => text.includes(word)) ? 1 : 0));
};

/** The list as it is between two changes of the folder: orders that were asked for are found again at once. */
interface Listing {
  catalogue: Catalogue;
  texts: string[];
  entries: FolderEntry[];
  orders: Map<string, ArrayLike<number>>;
}

const MOST_ORDERS = 64;

const listingOf = (all: Iterable<FolderEntry>): Listing => {
  const entries = [...all];
  const catalogue = catalogueOf(entries.map(({ row }) => row));
  const byId = new Map(entries.map((entry) => [entry.row.id, entry]));
  return {
    catalogue,
    texts: textsOf(catalogue),
    entries: catalogue.rows.map(({ id }) => byId.get(id)!),
    orders: new Map(),
  };
};

const orderOf = (
  { catalogue, texts, orders }: Listing,
  { sort, down, query, filters }: PageWanted,
): ArrayLike<number> => {
  const key = JSON.stringify([sort, down, query, filters]);
  const known = orders.get(key);
  if (known) return known;
  const { order } = browse(catalogue, { among: matching(texts, query), filters, sort, down });
  if (orders.size >= MOST_ORDERS) orders.clear();
  orders.set(key, order);
  return order;
};

/**
 * Watches over a folder of MIDI files on this machine. A thread of its own reads them, and looks again every few seconds.
 *
 * @param keptIn where what is known of the files is kept for the next start; null keeps nothing
 * @param every how long it waits between two looks, in ms
 */
export const watchFolder = (folder: string, keptIn: string | null, every = EVERY_MS): GrooveFolder => {
  const entries = new Map<string, FolderEntry>();
  const left = new Map<string, LeftOut>();
  let listing: Listing | null = null;
  let indexing = true;
  const begun = Date.now();
  let changes = 0;
  let isReady: () => void = () => undefined;
  const ready = new Promise<void>((resolve) => (isReady = resolve));
  const worker = new Worker(path.join(__dirname, 'grooveThread.js'), {
    workerData: { folder, every, keptIn },
    execArgv: [],
  });
  worker.unref();
  const forget = (at: string) => {
    entries.delete(at);
    left.delete(at);
    listing = null;
    changes += 1;
  };
  worker.on('message', (message: FromGrooves) => {
    if (message.type === 'through') {
      indexing = false;
      isReady();
      return;
    }
    forget(message.path);
    if (message.type === 'found') entries.set(message.path, message.entry);
    if (message.type === 'left') left.set(message.path, { path: message.path, why: message.why });
  });
  // Without its thread the folder stays as it was last known.
  worker.on('error', isReady);

  return {
    ready,
    page: (wanted) => {
      const { page, per } = wanted;
      listing ??= listingOf(entries.values());
      const now = listing;
      const order = orderOf(now, wanted);
      const pages = Math.max(1, Math.ceil(order.length / per));
      const at = Math.min(page, pages);
      return {
        total: order.length,
        version: `${begun}-${changes}`,
        page: at,
        pages,
        indexing,
        grooves: Array.from(order)
          .slice((at - 1) * per, at * per)
          .map((one) => now.entries[one]!),
        left: [...left.values()].slice(0, MOST_LEFT),
      };
    },
    bytes: async (id) => {
      const at = id.replace(/^folder\//, '');
      return entries.has(at) ? readPlain(folder, at, FILE_BOUNDS.bytes) : null;
    },
    close: async () => {
      await worker.terminate();
    },
  };
};

const wordOf = (value: unknown, most = 400): string =>
  typeof value === 'string' ? value.slice(0, most) : '';

/** No path of a file is longer. */
const LONGEST_PATH = 4096;

const numberOf = (value: unknown, otherwise: number, most: number): number => {
  const number = Number(wordOf(value) || otherwise);
  return Number.isInteger(number) && number >= 1 ? Math.min(number, most) : otherwise;
};

const MOST_PER_PAGE = 500;

/** What a request asks of the list; what makes no sense is as if it had not been said. */
export const wantedOf = ({ query }: Pick<Request, 'query'>): PageWanted => {
  const filters: Filters = {};
  for (const field of FIELDS) if (wordOf(query[field])) filters[field] = wordOf(query[field]);
  return {
    page: numberOf(query['page'], 1, 1_000_000),
    per: numberOf(query['per'], 100, MOST_PER_PAGE),
    sort: SORTS.find((sort) => sort === query['sort']) ?? 'name',
    down: query['down'] === '1',
    query: wordOf(query['q']),
    filters,
  };
};

/** The folder for the app: `/` its list, page by page, `/file?id=` one file. */
export const grooveRoutes = (folder: GrooveFolder): Router => {
  const router = Router();
  router.get('/', (request, response) => {
    response.set('Cache-Control', 'no-store').json(folder.page(wantedOf(request)));
  });
  router.get('/file', async (request, response) => {
    const bytes = await folder.bytes(wordOf(request.query['id'], LONGEST_PATH));
    if (!bytes) return void response.status(404).type('text/plain').send('There is no such groove.\n');
    response.set('Cache-Control', 'no-store').type('audio/midi').send(bytes);
  });
  return router;
};
