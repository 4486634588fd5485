import MiniSearch from 'minisearch';
import { meterText } from '../document/meter';
import type { GrooveRow } from './groove';
import { findable, isMadeFor, readQuery, SMALL_WORDS, tempoWithin, type Query } from './search';

/** Which rows were found, and how well each fits. */
export interface Found {
  /** For each row 0 where it was not found, else how well it fits: the more the better. */
  scores: Float32Array;
  /** Nothing was found by what was typed: these are near it. */
  near: boolean;
}

/** Finds grooves by words, and by the figures in their names, tempos and meters. */
export interface Finder {
  /** Takes rows in, one at each step; one that is known is taken in again only where its words changed. */
  steps(rows: readonly GrooveRow[]): Generator<void, void, void>;
  /** Which rows match what was typed; null where nothing was typed. A row that was not taken in yet matches nothing. */
  find(rows: readonly GrooveRow[], query: string): Found | null;
}

interface Document {
  id: number;
  style: string;
  name: string;
  kind: string;
  drums: string;
}

/** The weight of a word by where it stands: a style is what a groove is, its drums are what half of all grooves have. */
const BOOST = { style: 8, name: 4, kind: 3, drums: 1 };
/** A word that only begins as one of the groove's counts so much of what a whole one does. */
const BEGINNING = 0.15;
/** Of how many letters of a word one may be wrong where nothing is found. */
const SLIP = 0.25;

const letters = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}&]+/gu) ?? [];

/** How far two meters are from one another, in quarter notes of a bar. */
const meterApart = (a: string, b: string): number => {
  const [x, y] = [a, b].map((text) => {
    const [beats, unit] = text.split('/').map(Number) as [number, number];
    return (4 * beats) / unit;
  }) as [number, number];
  return Math.abs(x - y);
};

/** @example createFinder().find([], 'rain') // { scores: [], near: false } */
export const createFinder = (): Finder => {
  const index = new MiniSearch<Document>({
    fields: ['style', 'name', 'kind', 'drums'],
    tokenize: letters,
    processTerm: (term) => term,
  });
  /** Rows go by numbers there. */
  const numbers = new Map<string, number>();
  const figures = new Map<number, Set<string>>();
  const known = new Map<string, string>();

  const takeIn = (row: GrooveRow): boolean => {
    const { fields, numbers: own } = findable(row);
    const text = JSON.stringify([fields, own]);
    if (known.get(row.id) === text) return false;
    const number = numbers.get(row.id) ?? numbers.size;
    const document = { id: number, ...fields };
    if (known.has(row.id)) index.replace(document);
    else index.add(document);
    numbers.set(row.id, number);
    figures.set(number, new Set(own));
    known.set(row.id, text);
    return true;
  };

  /** How well each row fits some words; null where there are none. */
  const byWords = (words: string, how: 'all' | 'slips' | 'any'): Map<number, number> | null => {
    const asked = letters(words).filter((word) => !SMALL_WORDS.has(word));
    if (!asked.length) return null;
    const found = index.search(asked.join(' '), {
      boost: BOOST,
      prefix: true,
      weights: { prefix: BEGINNING, fuzzy: 0.1 },
      combineWith: how === 'any' ? 'OR' : 'AND',
      ...(how !== 'all' && { fuzzy: SLIP }),
    });
    return new Map(found.map(({ id, score }) => [id as number, score]));
  };

  const scored = (
    rows: readonly GrooveRow[],
    words: Map<number, number> | null,
    fits: Fits,
  ): Float32Array | null => {
    let any = false;
    const scores = new Float32Array(rows.length);
    rows.forEach((row, at) => {
      const number = numbers.get(row.id);
      if (number === undefined) return;
      const score = words ? (words.get(number) ?? 0) : 1;
      if (!score || !fits(row, figures.get(number)!)) return;
      scores[at] = score;
      any = true;
    });
    return any ? scores : null;
  };

  type Fits = (row: GrooveRow, own: Set<string>) => boolean;
  const fitting =
    (
      { numbers: asked, ranges, feel, kind }: Query,
      means: (row: GrooveRow, number: string) => boolean,
    ): Fits =>
    (row, own) =>
      asked.every((number) => own.has(number) || means(row, number)) &&
      ranges.every((range) => tempoWithin(row, range)) &&
      (!feel || row.feel.kind === feel) &&
      (!kind || row.kind === kind);
  const exactly = (query: Query): Fits => fitting(query, () => false);
  /** A bare number is a tempo where it is nothing else. */
  const loosely = (query: Query): Fits =>
    fitting(query, (row, number) => !number.includes('/') && isMadeFor(row, Number(number)));

  /** A meter that no groove has stands for the nearest one. */
  const nearestMeters = (rows: readonly GrooveRow[], query: Query): Query => {
    const meters = [...new Set(rows.map(({ meter }) => meterText(meter)))];
    return {
      ...query,
      numbers: query.numbers.map((number) => {
        if (!number.includes('/') || meters.includes(number) || !meters.length) return number;
        const unit = number.split('/')[1]!;
        const same = meters.filter((one) => one.endsWith(`/${unit}`));
        return (same.length ? same : meters).reduce((best, one) =>
          meterApart(one, number) < meterApart(best, number) ? one : best,
        );
      }),
    };
  };

  return {
    *steps(rows) {
      for (const row of rows) if (takeIn(row)) yield;
    },
    find: (rows, text) => {
      if (!text.trim()) return null;
      const query = readQuery(text);
      const all = byWords(query.words, 'all');
      // Beside what says a kind or a feel, a bare number is a tempo.
      const means = query.kind || query.feel ? loosely : exactly;
      const exact = scored(rows, all, means(query)) ?? scored(rows, all, loosely(query));
      if (exact) return { scores: exact, near: false };
      const close = nearestMeters(rows, query);
      const any = { ...close, ranges: [], feel: null, kind: null };
      const tries = [
        () => scored(rows, all, loosely(close)),
        () => scored(rows, byWords(query.words, 'slips'), loosely(close)),
        () => query.words && scored(rows, byWords(query.words, 'any'), loosely(any)),
      ];
      for (const one of tries) {
        const scores = one();
        if (scores) return { scores, near: true };
      }
      return { scores: new Float32Array(rows.length), near: false };
    },
  };
};
