import { noticed, subjectClosed } from '../store/slices';
import type { Store } from '../store/store';
import { words } from '../words/state';

/** Says something to who is at work, with more of what a notice can hold. */
export type Say = (text: string, more?: Partial<Parameters<typeof noticed>[0]>) => void;

export const TAKE_IT = { label: words.saveBeatToAFile, does: { kind: 'saveBeat' } } as const;

/** What the persistence says: in general, and of a storage that does not take something. */
export const createTrouble = (
  store: Store,
  isFull: () => Promise<boolean | null>,
): { say: Say; full: (fault: unknown) => void; over: () => void } => {
  const say: Say = (text, more = {}) => store.dispatch(noticed({ text, ...more }));

  const full = (fault: unknown) => {
    const tell = (why: string) => {
      const text = words.theBrowsersStorageWhyYour(why);
      // It is tried again every few seconds, and need not be said each time.
      if (store.getState().notices.some((one) => one.text === text)) return;
      say(text, { tone: 'danger', lasting: true, subject: 'storage', action: TAKE_IT });
    };
    if (/quota|full|space|room/i.test(String(fault))) return tell(words.isFull);
    tell(words.doesNotTakeIt);
    void isFull().then((known) => {
      const stands = store.getState().notices.some(({ subject }) => subject === 'storage');
      if (known && stands) tell(words.isFull);
    });
  };

  return { say, full, over: () => void store.dispatch(subjectClosed('storage')) };
};
