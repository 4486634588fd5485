import { keepsGroove, type Favourites } from '../../../../../core/groove/favourites';
import type { Groove } from '../../../../../core/groove/groove';
import { builtIn } from '../../../../grooves/builtIn';
import { shelf } from '../../../../grooves/pageShelf';

/** Where the grooves come from that a whole beat is made after. */
export const GROOVES_FROM = ['library', 'kept', 'imported'] as const;
export type GroovesFrom = (typeof GROOVES_FROM)[number];

/** So many files are read for a beat to be made after them; the first of the list. */
const MOST_READ = 200;

/**
 * The grooves of the library, those that the user marked, or those that are files; read when they are first wanted, a turn of
 * the page later, so that a press is seen first.
 */
export const loadGrooves = async (from: GroovesFrom, keepers: Favourites): Promise<Groove[]> => {
  await new Promise((resolve) => setTimeout(resolve));
  if (from === 'library') return builtIn();
  await shelf.load();
  const rows = shelf
    .now()
    .catalogue.rows.filter(({ id, source }) =>
      from === 'kept' ? keepsGroove(keepers, id) : source !== 'built-in',
    );
  const read = await Promise.all(rows.slice(0, MOST_READ).map(({ id }) => shelf.groove(id)));
  return read.filter((groove) => groove !== null);
};
