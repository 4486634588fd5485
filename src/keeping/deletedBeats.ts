import { idsIn } from './idsIn';
import type { KeyValue } from './storage';

/** The ids of beats that a person deleted: for a folder that is kept in step, which must not bring them back. */
const KEY = 'deleted';
/** So many are remembered. */
const MOST = 500;

export const deletedBeats = async (storage: KeyValue): Promise<string[]> => idsIn(await storage.getItem(KEY));

const change = (storage: KeyValue, to: (ids: string[]) => string[]): Promise<void> =>
  storage.change({ read: [KEY], has: [] }, ({ values }) => ({
    [KEY]: JSON.stringify(to(idsIn(values[KEY])).slice(-MOST)),
  }));

export const noteDeleted = (storage: KeyValue, id: string): Promise<void> =>
  change(storage, (ids) => [...ids.filter((one) => one !== id), id]);

/** It is there again. */
export const noteRestored = (storage: KeyValue, id: string): Promise<void> =>
  change(storage, (ids) => ids.filter((one) => one !== id));
