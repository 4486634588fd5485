import type { Middleware } from '@reduxjs/toolkit';
import { giveEdits, hasEdits, needsEdits } from './doc';

/**
 * The edits beyond a tap on a step are fetched once the first screen stands. An edit that is asked for before waits for
 * them, and those behind it wait too, so that none overtakes another.
 */
let loading: Promise<void> | null = null;

export const loadEdits = (): Promise<void> =>
  (loading ??= import('../../core/pattern/edits').then(giveEdits));

export const lateEdits: Middleware = () => (next) => {
  let waiting = Promise.resolve<unknown>(null);
  return (action) => {
    if (hasEdits() || !needsEdits(action)) return next(action);
    waiting = Promise.all([waiting, loadEdits()]).then(() => next(action));
    return action;
  };
};
