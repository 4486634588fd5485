import { idsIn } from './idsIn';
import type { KeyValue } from './storage';

/**
 * The demo beats that a first start still has to write, kept until the last of them lies there: a start that is cut short
 * is finished by the next one.
 */
const KEY = 'demos';

/** Notes what a first start is about to write, with what it opens, before any of it lies there. */
export const beginFirstVisit = (
  storage: KeyValue,
  ids: readonly string[],
  opens: Record<string, string>,
): Promise<void> => storage.setMany({ [KEY]: JSON.stringify(ids), ...opens });

/** The demo beats that a start before this one did not come to write. */
export const demosLeft = async (storage: KeyValue): Promise<string[]> => idsIn(await storage.getItem(KEY));

/** A demo beat has been written, by this page or another one. */
export const demoWritten = (storage: KeyValue, id: string): Promise<void> =>
  storage.change({ read: [KEY], has: [] }, ({ values }) => {
    const left = idsIn(values[KEY]);
    return left.includes(id) ? { [KEY]: JSON.stringify(left.filter((one) => one !== id)) } : {};
  });
