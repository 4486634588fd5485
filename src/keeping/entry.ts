import type { UnknownAction } from '@reduxjs/toolkit';
import type { Beat } from '../../core/document/schema';
import {
  beatPatched,
  docReducer,
  isBeatAction,
  needsEdits,
  redone,
  stepSet,
  undone,
  withHeld,
  type DocState,
} from '../store/doc';
import { difference } from '../store/patch';

/** One edit of a beat as it is kept and sent: plain data that does the same wherever it is done. */
export interface LogEntry {
  type: string;
  payload?: unknown;
}

/** Edits that lean on what only this page knows: its history, or where a gesture began. */
const leansOnPage = (action: UnknownAction): boolean => {
  if (undone.match(action) || redone.match(action)) return true;
  return (action as { payload?: { anew?: boolean } }).payload?.anew === true;
};

/** An edit as it is kept: itself where it does the same everywhere, else what came of it. */
export const logEntryOf = (before: DocState, action: UnknownAction, after: DocState): LogEntry =>
  leansOnPage(action)
    ? beatPatched({ patch: difference(before.beat, after.beat) })
    : stepSet.match(action) && action.payload.on
      ? withHeld(before, action)
      : (action as unknown as LogEntry);

/** Whether something read from a store can be an entry. */
export const isEntry = (value: unknown): value is LogEntry =>
  typeof value === 'object' &&
  value !== null &&
  typeof (value as LogEntry).type === 'string' &&
  isBeatAction(value as UnknownAction);

/** What entries make of a document, each a step of its history. */
export const withEntries = (doc: DocState, entries: readonly LogEntry[]): DocState =>
  entries.reduce((now, entry) => docReducer(now, entry as unknown as UnknownAction), doc);

/** What entries make of a beat. @throws where one of them cannot be done */
export const beatWith = (beat: Beat, entries: readonly LogEntry[]): Beat =>
  withEntries({ beat, past: [], future: [], gesture: null, off: {} }, entries).beat!;

export const anyNeedsEdits = (entries: readonly LogEntry[]): boolean => entries.some(needsEdits);
