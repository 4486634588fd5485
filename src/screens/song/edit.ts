import type { BeatEdit } from '../../../core/edit/edits';
import { beatEdited } from '../../state/doc';
import { store } from '../../state/session';

/** Makes one edit of the song or the tray. */
export const edit = (one: BeatEdit, gesture?: string): void => {
  store.dispatch(beatEdited({ edit: one, ...(gesture && { gesture }) }));
};
