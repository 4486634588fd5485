import type { FeelEdit } from '../../../core/edit/edits';
import { feelEdited } from '../../state/doc';
import { store } from '../../state/session';

/** Changes the feel of the pattern shown; moves of one drag are one step of the history. */
export const editShownFeel = (edit: FeelEdit, gesture?: string): void => {
  const { patternId } = store.getState().view;
  store.dispatch(feelEdited({ patternId, edit, ...(gesture && { gesture }) }));
};
