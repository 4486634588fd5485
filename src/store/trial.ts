import { beatEdited } from './doc';
import { editShown } from './editing';
import { type Trial, trialBegun, trialEnded } from './focus';
import { selectPattern, type Store } from './store';

type Stored = Pick<Store, 'dispatch' | 'getState'>;

/** Tries an edit: it is heard and drawn, and not made until it is used. */
export const attempt = (store: Stored, name: string, edit: Trial['edit']): void => {
  const pattern = selectPattern(store.getState());
  if (pattern) store.dispatch(trialBegun({ name, patternId: pattern.id, edit }));
};

export const leaveTrial = (store: Stored): void => {
  store.dispatch(trialEnded());
};

/** Makes what is tried an edit. */
export const acceptTrial = (store: Stored, { edit }: Trial): void => {
  if (edit.kind === 'pattern') editShown(store, edit.edit);
  else store.dispatch(beatEdited({ edit: edit.edit }));
  leaveTrial(store);
};
