import { nanoid } from '@reduxjs/toolkit';
import type { NoticeAction } from './slices';

/** What notices offer to do that is no edit of the beat, and so cannot be undone as one. */
const offers = new Map<string, () => void>();

/** More are not on the screen at once; the oldest goes. */
const MOST = 20;

/** Something to be done if the person wishes it. */
export const offer = (does: () => void): NoticeAction => {
  const id = nanoid();
  offers.set(id, does);
  const [oldest] = offers.keys();
  if (offers.size > MOST) offers.delete(oldest!);
  return { kind: 'offer', id };
};

/** The last thing that was taken away, as long as nothing was edited since. */
let latest: { id: string; since: unknown } | null = null;

/**
 * Something that undo takes back as it does an edit, though it is none.
 *
 * @param since the open beat as it was: once it is another one, undo is for what was edited
 */
export const offerUndo = (does: () => void, since: unknown): NoticeAction & { kind: 'offer' } => {
  const action = offer(does) as NoticeAction & { kind: 'offer' };
  latest = { id: action.id, since };
  return action;
};

/** Takes back what was last taken away, where nothing was edited since. @returns whether there was such a thing */
export const undoLatest = (beat: unknown): boolean => {
  const there = latest !== null && latest.since === beat && offers.has(latest.id);
  if (there) accept(latest!.id);
  latest = null;
  return there;
};

/** Does what was offered, once. */
export const accept = (id: string): void => {
  const does = offers.get(id);
  offers.delete(id);
  does?.();
};
