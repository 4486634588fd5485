import { Index } from 'flexsearch';
import type { GrooveRow } from '../../core/groove/groove';
import { findable, isMadeFor, readQuery } from '../../core/groove/search';

const MOST_FOUND = 100_000;

/** Finds grooves by words, and by the figures in their names, tempos and meters. */
export interface Finder {
  /** Takes rows in, one at each step; one that is known is taken in again only where its words changed. */
  steps(rows: readonly GrooveRow[]): Generator<void, void, void>;
  /** Which rows match what was typed, 1 or 0 for each; null where all do. A row that was not taken in yet matches nothing. */
  matching(rows: readonly GrooveRow[], query: string): Uint8Array | null;
}

export const createFinder = (): Finder => {
  /** Rows go by numbers there, which are found and told apart faster than names. */
  const search = new Index({ tokenize: 'forward' });
  const numbers = new Map<string, number>();
  /** Which rows have a number in their name, as their tempo or as their meter: found as a whole. */
  const byFigure = new Map<string, Set<number>>();
  const searchables = new Map<string, string>();
  let placed: { rows: readonly GrooveRow[]; places: Int32Array; known: number } | null = null;

  /** The number of each row; -1 while it cannot be searched yet. */
  const placesOf = (rows: readonly GrooveRow[]): Int32Array => {
    if (placed?.rows !== rows || placed.known !== numbers.size)
      placed = {
        rows,
        places: Int32Array.from(rows, ({ id }) => numbers.get(id) ?? -1),
        known: numbers.size,
      };
    return placed.places;
  };

  const takeIn = (row: GrooveRow): boolean => {
    const { words, numbers: figures } = findable(row);
    const known = searchables.get(row.id);
    const text = `${words}\n${figures.join(' ')}`;
    if (known === text) return false;
    const number = numbers.get(row.id) ?? numbers.size;
    numbers.set(row.id, number);
    if (known === undefined) search.add(number, words);
    else {
      search.update(number, words);
      for (const rowsWith of byFigure.values()) rowsWith.delete(number);
    }
    for (const figure of figures) {
      const rowsWith = byFigure.get(figure);
      if (rowsWith) rowsWith.add(number);
      else byFigure.set(figure, new Set([number]));
    }
    searchables.set(row.id, text);
    return true;
  };

  return {
    *steps(rows) {
      for (const row of rows) if (takeIn(row)) yield;
    },
    matching: (rows, query) => {
      if (!query.trim()) return null;
      const found = new Uint8Array(numbers.size);
      const { words, numbers: figures, tempos } = readQuery(query);
      if (words)
        for (const number of search.search(words, { limit: MOST_FOUND })) found[number as number] = 1;
      else found.fill(1);
      for (const figure of figures) {
        const rowsWith = byFigure.get(figure);
        for (let number = 0; number < found.length; number++) if (!rowsWith?.has(number)) found[number] = 0;
      }
      const places = placesOf(rows);
      const mask = new Uint8Array(rows.length);
      for (let at = 0; at < mask.length; at++)
        mask[at] = tempos.every((tempo) => isMadeFor(rows[at]!, tempo)) ? (found[places[at]!] ?? 0) : 0;
      return mask;
    },
  };
};
