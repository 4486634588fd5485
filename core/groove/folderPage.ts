import type { Indexed, LeftOut } from './importing';
import type { Likeness } from './likeness';

/** One groove of the server's folder: what a list shows, and what it is like, in numbers. */
export interface FolderEntry extends Omit<Indexed, 'likeness'> {
  likeness: Omit<Likeness, 'cells' | 'late'> & { cells: number[]; late: number[] };
}

/** A page of the folder's list. */
export interface FolderPage {
  /** How many there are in all that were asked for. */
  total: number;
  /** Another one as soon as anything in the folder has changed. */
  version: string;
  /** From 1. */
  page: number;
  pages: number;
  /** Files are still being read. */
  indexing: boolean;
  grooves: FolderEntry[];
  left: LeftOut[];
}

/**  @example restoredEntry(storedEntry(indexed)).row.id === indexed.row.id // true */
export const storedEntry = ({ likeness, ...rest }: Indexed): FolderEntry => ({
  ...rest,
  likeness: { ...likeness, cells: [...likeness.cells], late: [...likeness.late] },
});

/** An entry of the server’s list with its likeness as bytes again. */
export const restoredEntry = ({ likeness, ...rest }: FolderEntry): Indexed => ({
  ...rest,
  likeness: { ...likeness, cells: Uint8Array.from(likeness.cells), late: Int8Array.from(likeness.late) },
});
