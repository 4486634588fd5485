import { INSTRUMENTS } from '../document/instruments';
import { meterText } from '../document/meter';
import { atOnce } from '../atOnce';
import { feelWords, type GrooveRow } from './groove';

/** The fields that a list can be narrowed by. */
export const FIELDS = ['style', 'feel', 'meter', 'keeper', 'kind', 'bars', 'hands', 'source', 'tag'] as const;
export type Field = (typeof FIELDS)[number];

export const FIELD_NAMES: Record<Field, string> = {
  style: 'Style',
  feel: 'Feel',
  meter: 'Time signature',
  keeper: 'Timekeeper',
  kind: 'Kind',
  bars: 'Bars',
  hands: 'Playable',
  source: 'Source',
  tag: 'Tag',
};

/** The fields that a list can be sorted by. */
export const SORTS = ['name', 'style', 'feel', 'meter', 'bpm', 'bars', 'keeper', 'tag', 'source'] as const;
export type Sort = (typeof SORTS)[number];

export const SORT_NAMES: Record<Sort, string> = {
  name: 'Name',
  style: 'Style',
  feel: 'Feel',
  meter: 'Time signature',
  bpm: 'BPM',
  bars: 'Bars',
  keeper: 'Timekeeper',
  tag: 'Tags',
  source: 'Source',
};

/**
 * The timekeeper of a groove, by the name of its instrument, or "None".
 *
 * @example keeperWords({ ...groove, timekeeper: 'ride' }) // "Ride"
 */
export const keeperWords = ({ timekeeper }: GrooveRow): string =>
  timekeeper ? INSTRUMENTS[timekeeper].name : 'None';

const FEELS = { straight: 'Straight', swung: 'Swung', triplet: 'Triplet' } as const;

/** The value of a row in a field, in the words that are shown. */
export const wordsOf = (row: GrooveRow, field: Field): string[] => {
  switch (field) {
    case 'style':
      return row.style ? [row.style] : [];
    case 'feel':
      return [FEELS[row.feel.kind]];
    case 'meter':
      return [meterText(row.meter)];
    case 'keeper':
      return [keeperWords(row)];
    case 'bars':
      return [String(row.bars)];
    case 'hands':
      return row.playable === undefined ? [] : [row.playable ? 'By one drummer' : 'By more than one'];
    case 'tag':
      return row.tags;
    default:
      return [row[field]];
  }
};

/** Which words of a field each row has: those of row i stand from `starts[i]` up to `starts[i + 1]`. */
interface Codes {
  words: string[];
  starts: Uint32Array;
  codes: Uint16Array;
}

/** Rows made ready to be narrowed and sorted at every keystroke: words as numbers, and the order of each sort. */
export interface Catalogue {
  rows: GrooveRow[];
  /** The words of each field, in order, and which rows have them. */
  fields: Record<Field, Codes>;
  /** Rows in the order of each sort. */
  orders: Record<Sort, Uint32Array>;
  byId: Map<string, number>;
}

/** The order of texts: neither case nor accents count, and 9 comes before 10. */
const sortKey = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/\d+/g, (digits) => digits.padStart(8, '0'));

const SORT_KEYS: Record<Sort, (row: GrooveRow) => string | number> = {
  name: ({ name }) => name,
  style: ({ style }) => style,
  feel: ({ feel }) => feelWords(feel),
  meter: ({ meter }) => (meter.beats * 16) / meter.unit + meter.unit / 1000,
  bpm: ({ bpm }) => bpm,
  bars: ({ bars }) => bars,
  keeper: keeperWords,
  tag: ({ tags }) => tags[0] ?? '',
  source: ({ source }) => source,
};

const byKey = (words: string[]): string[] =>
  words
    .map((word) => ({ word, key: sortKey(word) }))
    .sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0))
    .map(({ word }) => word);

/** Keys as numbers in the same order. */
const ranked = (keys: (string | number)[]): number[] => {
  const unique = [...new Set(keys)];
  const sorted =
    typeof unique[0] === 'number' ? (unique as number[]).sort((a, b) => a - b) : byKey(unique as string[]);
  const ranks = new Map<string | number, number>(sorted.map((key, at) => [key, at]));
  return keys.map((key) => ranks.get(key)!);
};

/** Rows by a rank; equal ones stand by name. Two numbers are sorted as one, since numbers alone are sorted fastest. */
const ordered = (ranks: number[], places: Uint32Array, byName: Uint32Array): Uint32Array => {
  const count = ranks.length;
  const keys = Float64Array.from(ranks, (rank, at) => rank * count + places[at]!).sort();
  return Uint32Array.from(keys, (key) => byName[key % count]!);
};

const codesOf = (rows: GrooveRow[], field: Field): Codes => {
  const all = rows.map((row) => wordsOf(row, field));
  const words = byKey([...new Set(all.flat())]);
  const code = new Map(words.map((word, at) => [word, at]));
  const starts = new Uint32Array(rows.length + 1);
  all.forEach((own, at) => (starts[at + 1] = starts[at]! + own.length));
  const codes = new Uint16Array(starts[rows.length]!);
  all.forEach((own, at) => own.forEach((word, i) => (codes[starts[at]! + i] = code.get(word)!)));
  return { words, starts, codes };
};

/** Makes rows ready, in steps short enough for something else to happen in between. */
export function* catalogueSteps(rows: GrooveRow[]): Generator<void, Catalogue, void> {
  const fields = {} as Record<Field, Codes>;
  for (const field of FIELDS) {
    fields[field] = codesOf(rows, field);
    yield;
  }
  const names = ranked(rows.map(({ name }) => name));
  yield;
  const byName = Uint32Array.from(rows.keys()).sort((a, b) => names[a]! - names[b]! || a - b);
  const places = new Uint32Array(rows.length);
  byName.forEach((row, place) => (places[row] = place));
  yield;
  const orders = { name: byName } as Record<Sort, Uint32Array>;
  for (const sort of SORTS) {
    if (sort === 'name') continue;
    orders[sort] = ordered(ranked(rows.map(SORT_KEYS[sort])), places, byName);
    yield;
  }
  return { rows, fields, orders, byId: new Map(rows.map(({ id }, at) => [id, at])) };
}

/**
 * Rows made ready: words of each field as numbers, and the order of each sort.
 *
 * @example catalogueOf([groove]).rows.length // 1
 */
export const catalogueOf = (rows: GrooveRow[]): Catalogue => atOnce(catalogueSteps(rows));

export type Filters = Partial<Record<Field, string>>;

/** The query for a catalogue. */
export interface Wanted {
  /** Only these rows, by place; null is all. */
  among: Uint8Array | null;
  filters: Filters;
  sort: Sort;
  down: boolean;
  /** How well each row fits what was asked for: the best first, equal ones in the order of the sort. */
  scores?: Float32Array;
}

/** The rows of a catalogue that are shown. */
export interface Shown {
  /** Rows by place, in order. */
  order: number[];
  failures: Failures;
}

/** For each row how many filters it fails, and the last of them. */
interface Failures {
  failed: Uint8Array;
  last: Uint8Array;
}

/** Rows that are not among those asked for fail all. */
const failuresOf = ({ rows, fields }: Catalogue, among: Uint8Array | null, filters: Filters): Failures => {
  const failed = new Uint8Array(rows.length);
  const last = new Uint8Array(rows.length);
  if (among) for (let at = 0; at < rows.length; at++) if (!among[at]) failed[at] = FIELDS.length + 1;
  FIELDS.forEach((field, which) => {
    const word = filters[field];
    if (word === undefined) return;
    const { words, starts, codes } = fields[field];
    const wanted = words.indexOf(word);
    for (let at = 0; at < rows.length; at++) {
      let has = false;
      for (let i = starts[at]!; i < starts[at + 1]!; i++) if (codes[i] === wanted) has = true;
      if (has) continue;
      failed[at]! += 1;
      last[at] = which;
    }
  });
  return { failed, last };
};

/**
 * Narrows and sorts.
 *
 * @example browse(catalogueOf([groove]), { among: null, filters: {}, sort: 'bpm', down: true }).order // [0]
 */
export const browse = (catalogue: Catalogue, { among, filters, sort, down, scores }: Wanted): Shown => {
  const failures = failuresOf(catalogue, among, filters);
  const { failed } = failures;
  const order: number[] = [];
  for (const at of catalogue.orders[sort]) if (failed[at] === 0) order.push(at);
  if (down) order.reverse();
  return { order: scores ? order.sort((a, b) => scores[b]! - scores[a]!) : order, failures };
};

/**
 * How many rows there would be with each word of a field, all other filters as they are. Asked for where it is
 * shown: a list that is searched has no time to count what nobody sees.
 */
export const countsOf = (
  catalogue: Catalogue,
  { failures: { failed, last } }: Shown,
  field: Field,
): Uint32Array => {
  const which = FIELDS.indexOf(field);
  const { words, starts, codes } = catalogue.fields[field];
  const counts = new Uint32Array(words.length);
  for (let at = 0; at < failed.length; at++) {
    const counted = failed[at] === 0 || (failed[at] === 1 && last[at] === which);
    if (counted) for (let i = starts[at]!; i < starts[at + 1]!; i++) counts[codes[i]!]! += 1;
  }
  return counts;
};

/** A folder and what lies in it, however deep. */
export interface Folder {
  name: string;
  path: string[];
  grooves: number;
}

/** Whether a place lies in a folder, however deep. @example isWithin(['Harbour', 'Night'], ['Harbour']) // true */
export const isWithin = (place: string[], folder: string[]): boolean =>
  folder.every((name, at) => place[at] === name);

/**
 * The folders right within one, by name.
 *
 * @example foldersIn([{ ...groove, path: ['Harbour'] }], []).map(({ name }) => name) // ["Harbour"]
 */
export const foldersIn = (rows: GrooveRow[], path: string[]): Folder[] => {
  const found = new Map<string, number>();
  for (const row of rows) {
    if (row.path.length <= path.length || !isWithin(row.path, path)) continue;
    const name = row.path[path.length]!;
    found.set(name, (found.get(name) ?? 0) + 1);
  }
  return [...found]
    .map(([name, grooves]) => ({ name, path: [...path, name], grooves }))
    .sort((a, b) => (sortKey(a.name) < sortKey(b.name) ? -1 : 1));
};
