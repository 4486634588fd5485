import { fittingGrooves, groovesChanged } from '../store/grooves';
import type { KeyValue } from '../keeping/storage';
import type { Store } from '../store/store';

const SETTINGS = 'grooves/settings';
const SAVE_AFTER = 400;

/**
 * Brings back what was chosen on the list of grooves, and keeps it from then on: what is typed into the search a moment later,
 * all else at once.
 */
export const keepGrooveSettings = async (store: Store, storage: KeyValue): Promise<void> => {
  try {
    const kept = JSON.parse((await storage.getItem(SETTINGS)) ?? '{}') as unknown;
    store.dispatch(groovesChanged(fittingGrooves(kept)));
  } catch {
    // What cannot be read is as if nothing had been chosen yet.
  }
  let saved = store.getState().grooves;
  let timer: ReturnType<typeof setTimeout> | null = null;
  store.subscribe(() => {
    const { grooves } = store.getState();
    if (grooves === saved) return;
    const typed = grooves.query !== saved.query;
    saved = grooves;
    const keep = () => {
      timer = null;
      void storage.setMany({ [SETTINGS]: JSON.stringify(store.getState().grooves) }).catch(() => undefined);
    };
    if (timer) clearTimeout(timer);
    if (typed) timer = setTimeout(keep, SAVE_AFTER);
    else keep();
  });
};
