import type { Catalogue, Folder } from '../../../core/groove/catalogue';
import type { GrooveRow } from '../../../core/groove/groove';

/** A line of the list. */
export type GrooveLine = { kind: 'folder'; folder: Folder } | { kind: 'groove'; row: GrooveRow };

/** Lines by the ten thousand: each is made when it comes into sight. */
export interface Lines {
  count: number;
  at(index: number): GrooveLine | undefined;
  /** Where a groove stands; -1 where it does not. */
  placeOf(id: string | null): number;
}

const known = new WeakMap<GrooveRow, GrooveLine>();

/** The same row is the same line, so that nothing is drawn anew for it. */
const lineOf = (row: GrooveRow): GrooveLine => {
  const line = known.get(row) ?? { kind: 'groove', row };
  known.set(row, line);
  return line;
};

/**
 * Folders, and after them the grooves of a catalogue in the order given.
 *
 * @example linesOf([], [2, 0], catalogue).at(0) // { kind: 'groove', row: catalogue.rows[2] }
 */
export const linesOf = (folders: Folder[], order: readonly number[], catalogue: Catalogue): Lines => {
  const first = folders.map((folder): GrooveLine => ({ kind: 'folder', folder }));
  return {
    count: first.length + order.length,
    at: (index) => {
      if (index < first.length) return first[index];
      const row = catalogue.rows[order[index - first.length] ?? -1];
      return row && lineOf(row);
    },
    placeOf: (id) => {
      const row = id === null ? undefined : catalogue.byId.get(id);
      const place = row === undefined ? -1 : order.indexOf(row);
      return place < 0 ? -1 : first.length + place;
    },
  };
};
