import type { BeatEdit } from '../../../core/edit/edits';
import { beatEdited } from '../../store/doc';
import { store } from '../../keeping/session';

/** Makes one edit of the song or the tray. */
export const editSong = (one: BeatEdit, gesture?: string): void => {
  store.dispatch(beatEdited({ edit: one, ...(gesture && { gesture }) }));
};
