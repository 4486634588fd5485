import { viewChanged, type HintId } from './slices';
import type { Store } from './store';

/** A hint has done its work, or was put away: it is not shown again. */
export const hintDone = (store: Pick<Store, 'getState' | 'dispatch'>, id: HintId): void => {
  const { hintsDone } = store.getState().view;
  if (!hintsDone.includes(id)) store.dispatch(viewChanged({ hintsDone: [...hintsDone, id] }));
};
