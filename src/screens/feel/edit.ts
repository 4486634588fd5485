import type { FeelEdit } from '../../../core/edit/edits';
import { feelEdited } from '../../store/doc';
import { store } from '../../keeping/session';

/** Changes the feel of the pattern shown; moves of one drag are one step of the history. */
export const editShownFeel = (edit: FeelEdit, gesture?: string): void => {
  const { patternId } = store.getState().focus;
  store.dispatch(feelEdited({ patternId, edit, ...(gesture && { gesture }) }));
};
