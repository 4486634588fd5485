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

/** Does what was offered, once. */
export const accept = (id: string): void => {
  const does = offers.get(id);
  offers.delete(id);
  does?.();
};
