import type { PatternEdit } from '../../../../core/edit/edits';
import {
  readyForHits,
  readyForLanes,
  type ReadyForHits,
  type ReadyForLanes,
} from '../../../../core/edit/ready';
import type { Spot } from '../../../../core/edit/spots';
import { store } from '../../../keeping/session';
import { editShown } from '../../../store/editing';

/** Sends an edit to the pattern shown and those edited with it. @param anew told from where the gesture began */
export const edit = <E extends PatternEdit['edit']>(
  name: E,
  args: Extract<PatternEdit, { edit: E }>['args'],
  gesture?: string,
  anew?: boolean,
): void => editShown(store, { edit: name, args } as PatternEdit, gesture, anew);

/** A ready edit of hits or of lanes. */
export const onHits = (name: ReadyForHits, spots: Spot[]): void =>
  editShown(store, readyForHits(name, spots));
export const onLanes = (name: ReadyForLanes, laneIds: string[]): void =>
  editShown(store, readyForLanes(name, laneIds));
