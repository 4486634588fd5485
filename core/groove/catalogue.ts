import { INSTRUMENTS } from '../beat/instruments';
import { meterText } from '../beat/meter';
import { feelWords, type GrooveRow } from './groove';

/** What a list can be narrowed by. */
export const FIELDS = ['style', 'feel', 'meter', 'keeper', 'kind', 'bars', 'source', 'tag'] as const;
export type Field = (typeof FIELDS)[number];

export const FIELD_NAMES: Record<Field, string> = {
  style: 'Style',
  feel: 'Feel',
  meter: 'Time signature',
  keeper: 'Timekeeper',
  kind: 'Kind',
  bars: 'Bars',
  source: 'Source',
  tag: 'Tag',
};

/** What a list can be sorted by. */
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

export const keeperWords = ({ timekeeper }: GrooveRow): string =>
  timekeeper ? INSTRUMENTS[timekeeper].name : 'None';

const FEELS = { straight: 'Straight', swung: 'Swung', triplet: 'Triplet' } as const;

/** What a row has in a field, in the words that are shown. */
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
    case 'tag':
      return row.tags;
    default:
      return [row[field]];
  }
};

/** Rows made ready to be narrowed and sorted at every keystroke: words as numbers, and the order of each sort. */
export interface Catalogue {
  rows: GrooveRow[];
  /** The words of each field, in order. */
  words: Record<Field, string[]>;
  /** For each row which of them it has. */
  codes: Record<Field, number[][]>;
  /** Rows in the order of each sort. */
  orders: Record<Sort, Uint32Array>;
  byId: Map<string, number>;
}

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

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

/** Words get their rank once, so that rows are sorted by numbers. */
const ranked = (keys: (string | number)[]): number[] => {
  if (typeof keys[0] === 'number') return keys as number[];
  const unique = [...new Set(keys as string[])].sort(collator.compare);
  const ranks = new Map(unique.map((word, at) => [word, at]));
  return keys.map((key) => ranks.get(key as string)!);
};

/** Equal ones stand by name. */
const ordered = (rows: GrooveRow[], by: Sort, names: number[]): Uint32Array => {
  const keys = by === 'name' ? names : ranked(rows.map(SORT_KEYS[by]));
  return Uint32Array.from(rows.keys()).sort((a, b) => keys[a]! - keys[b]! || names[a]! - names[b]! || a - b);
};

const codesOf = (rows: GrooveRow[], field: Field): { words: string[]; codes: number[][] } => {
  const all = rows.map((row) => wordsOf(row, field));
  const words = [...new Set(all.flat())].sort(collator.compare);
  const code = new Map(words.map((word, at) => [word, at]));
  // Most rows share their few words: so do their codes.
  const shared = new Map<string, number[]>();
  const codes = all.map((own) => {
    const key = own.join('\n');
    const there = shared.get(key) ?? own.map((word) => code.get(word)!);
    shared.set(key, there);
    return there;
  });
  return { words, codes };
};

const each = <K extends string, T>(keys: readonly K[], of: (key: K) => T): Record<K, T> =>
  Object.fromEntries(keys.map((key) => [key, of(key)])) as Record<K, T>;

export const catalogueOf = (rows: GrooveRow[]): Catalogue => {
  const fields = each(FIELDS, (field) => codesOf(rows, field));
  const names = ranked(rows.map(({ name }) => name));
  return {
    rows,
    words: each(FIELDS, (field) => fields[field].words),
    codes: each(FIELDS, (field) => fields[field].codes),
    orders: each(SORTS, (sort) => ordered(rows, sort, names)),
    byId: new Map(rows.map(({ id }, at) => [id, at])),
  };
};

export type Filters = Partial<Record<Field, string>>;

/** What of a catalogue is wanted. */
export interface Wanted {
  /** Only these rows, by place; null is all. */
  among: Uint8Array | null;
  filters: Filters;
  sort: Sort;
  down: boolean;
}

/** What of a catalogue is shown. */
export interface Shown {
  /** Rows by place, in order. */
  order: number[];
  /** For each field how many rows there would be with each of its words, all other filters as they are. */
  counts: Record<Field, Uint32Array>;
}

/**
 * Narrows and sorts.
 *
 * @example browse(catalogue, { among: null, filters: { feel: 'Triplet' }, sort: 'bpm', down: true }).order
 */
export const browse = (catalogue: Catalogue, { among, filters, sort, down }: Wanted): Shown => {
  const wanted = FIELDS.flatMap((field) => {
    const word = filters[field];
    return word === undefined ? [] : [{ field, code: catalogue.words[field].indexOf(word) }];
  });
  const counts = each(FIELDS, (field) => new Uint32Array(catalogue.words[field].length));
  const count = (field: Field, at: number) => {
    for (const code of catalogue.codes[field][at]!) counts[field][code]! += 1;
  };
  const passes = new Uint8Array(catalogue.rows.length);
  for (let at = 0; at < catalogue.rows.length; at++) {
    if (among && !among[at]) continue;
    const failed = wanted.filter(({ field, code }) => !catalogue.codes[field][at]!.includes(code));
    if (failed.length > 1) continue;
    if (failed.length === 1) {
      count(failed[0]!.field, at);
      continue;
    }
    passes[at] = 1;
    for (const field of FIELDS) count(field, at);
  }
  const order: number[] = [];
  for (const at of catalogue.orders[sort]) if (passes[at]) order.push(at);
  return { order: down ? order.reverse() : order, counts };
};

/** A folder and what lies in it, however deep. */
export interface Folder {
  name: string;
  path: string[];
  grooves: number;
}

/** Whether a place lies in a folder, however deep. */
export const isWithin = (place: string[], folder: string[]): boolean =>
  folder.every((name, at) => place[at] === name);

/** The folders right within one, by name. */
export const foldersIn = (rows: GrooveRow[], path: string[]): Folder[] => {
  const found = new Map<string, number>();
  for (const row of rows) {
    if (row.path.length <= path.length || !isWithin(row.path, path)) continue;
    const name = row.path[path.length]!;
    found.set(name, (found.get(name) ?? 0) + 1);
  }
  return [...found]
    .map(([name, grooves]) => ({ name, path: [...path, name], grooves }))
    .sort((a, b) => collator.compare(a.name, b.name));
};
