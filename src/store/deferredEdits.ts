import type { Middleware, UnknownAction } from '@reduxjs/toolkit';
import { beatOpened, docMerged, giveEdits, hasEdits, isDocAction, needsEdits } from './doc';
import { noticed, subjectClosed } from './slices';
import { words } from '../words/state';

let loading: Promise<void> | null = null;

/** Fetches the edits beyond a tap on a step, where they are not there yet; after a failure it can be asked again. */
export const loadEdits = (): Promise<void> => {
  if (hasEdits()) return Promise.resolve();
  loading ??= import('../../core/edit/edits').then(giveEdits).catch((fault: unknown) => {
    loading = null;
    throw fault;
  });
  return loading;
};

/** The edits themselves, for what is told before one is made. Rejects where they cannot be fetched. */
export const lateEdits = async () => {
  await loadEdits();
  return import('../../core/edit/edits');
};

const SUBJECT = 'edits';
const FIRST_WAIT = 500;
const LONGEST_WAIT = 15_000;

interface Parts {
  load: () => Promise<void>;
  wait: (ms: number) => Promise<void>;
}

const later = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * The edits beyond a tap on a step are fetched once the first screen stands. An edit that is asked for before waits for
 * them in one queue with all that is done to the document after it, the opening of another one included, so that none
 * overtakes another and none lands in another document. What is said of an edit waits with it. A fetch that fails is
 * tried again until it is there, and it is told.
 */
export const createDeferredEdits = ({ load, wait }: Parts = { load: loadEdits, wait: later }) => {
  const queue: { action: unknown; next: (action: unknown) => unknown }[] = [];
  let draining: Promise<void> | null = null;

  const waits = (action: UnknownAction): boolean => {
    if (!queue.length) return needsEdits(action) && !hasEdits();
    if (noticed.match(action)) return action.payload.subject !== SUBJECT;
    return isDocAction(action) || beatOpened.match(action) || docMerged.match(action);
  };

  const drain = async (dispatch: (action: UnknownAction) => unknown): Promise<void> => {
    for (let pause = FIRST_WAIT; !hasEdits(); pause = Math.min(LONGEST_WAIT, pause * 2)) {
      try {
        await load();
      } catch {
        dispatch(
          noticed({
            text: words.aPartOfRuddikCould,
            tone: 'danger',
            lasting: true,
            subject: SUBJECT,
          }),
        );
        await wait(pause);
      }
    }
    dispatch(subjectClosed(SUBJECT));
    for (let first = queue[0]; first; first = queue[0]) {
      first.next(first.action);
      queue.shift();
    }
  };

  const middleware: Middleware =
    ({ dispatch }) =>
    (next) =>
    (action) => {
      if (!waits(action as UnknownAction)) return next(action);
      queue.push({ action, next });
      draining ??= drain(dispatch).finally(() => (draining = null));
      return action;
    };

  return {
    middleware,
    /** Until all that waits has been done. */
    settled: (): Promise<void> => draining ?? Promise.resolve(),
  };
};
