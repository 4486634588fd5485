import type { GrooveRow } from '../../core/groove/groove';
import { restoredEntry, type FolderPage } from '../../core/groove/folderPage';
import type { Indexed, LeftOut } from '../../core/groove/importing';

/** How it stands with the server's folder of grooves. */
export type FolderState =
  | { kind: 'looking' }
  /** A server without one, or no server of ours. */
  | { kind: 'none' }
  | { kind: 'away' }
  | { kind: 'there'; grooves: number; left: LeftOut[] };

export type FoundFolder =
  | { kind: 'there'; state: FolderState; indexed: Indexed[]; version: string }
  | { kind: 'same' }
  | { kind: 'away' | 'none'; state: FolderState };

const PER_PAGE = 500;

const pageOf = async (url: string, page: number): Promise<FolderPage | 'none'> => {
  const response = await fetch(`${url}?page=${page}&per=${PER_PAGE}`, {
    signal: AbortSignal.timeout(10_000),
  });
  if (response.status === 404) return 'none';
  if (!response.ok) throw new Error(String(response.status));
  return (await response.json()) as FolderPage;
};

/**
 * Reads the whole list of the server's folder, page by page; it never throws.
 *
 * @param known the version that is at hand: where it is still so, nothing more is read
 */
export const readFolder = async (url: string, known: string | null): Promise<FoundFolder> => {
  try {
    const first = await pageOf(url, 1);
    if (first === 'none') return { kind: 'none', state: { kind: 'none' } };
    if (first.version === known) return { kind: 'same' };
    const all = [...first.grooves];
    for (let page = 2; page <= first.pages; page++) {
      const next = await pageOf(url, page);
      if (next !== 'none') all.push(...next.grooves);
    }
    const state: FolderState = { kind: 'there', grooves: all.length, left: first.left };
    return { kind: 'there', state, indexed: all.map(restoredEntry), version: first.version };
  } catch {
    return { kind: 'away', state: { kind: 'away' } };
  }
};

/** The bytes of one file of the folder; null where it is out of reach. */
export const folderBytes = async (url: string, id: GrooveRow['id']): Promise<Uint8Array | null> => {
  try {
    const response = await fetch(`${url}/file?id=${encodeURIComponent(id)}`, {
      signal: AbortSignal.timeout(10_000),
    });
    return response.ok ? new Uint8Array(await response.arrayBuffer()) : null;
  } catch {
    return null;
  }
};
