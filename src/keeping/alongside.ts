import type { Beat } from '../../core/document/schema';
import { comesAlong } from '../../core/edit/comesAlong';
import { words } from '../words/state';
import type { DocState } from '../store/doc';
import { noticed } from '../store/slices';
import type { Store } from '../store/store';

/** So long, in ms, nothing is edited before it is told: what a drag passes over is no news. */
const REST_MS = 400;

/** A key as it is called. @example keyName('KeyQ') // "Q" */
export const keyName = (code: string): string =>
  code.replace(/^(Key|Digit)/, '').replace('Numpad', 'Numpad ');

/** Whether one only went back or forth in the history, or to another beat. */
const isElsewhere = (before: DocState, { beat }: DocState): boolean =>
  !before.beat ||
  !beat ||
  before.beat.id !== beat.id ||
  beat === before.past.at(-1) ||
  beat === before.future[0];

/**
 * Says what an edit did besides what was asked for, once the hand rests. Undo and redo are not told.
 *
 * @returns what ends it
 */
export const tellAlongside = (
  store: Pick<Store, 'subscribe' | 'getState' | 'dispatch'>,
  restMs = REST_MS,
): (() => void) => {
  let seen = store.getState().doc;
  let from: Beat | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const say = (text: string, subject: string) => store.dispatch(noticed({ text, subject }));
  const tell = () => {
    const { beat } = store.getState().doc;
    const before = from;
    from = null;
    if (!before || !beat) return;
    const { hidden, alike, keys } = comesAlong(before, beat);
    if (hidden) say(words.wentBeyondTheEnd(hidden), 'steps');
    const [pair] = alike;
    if (pair) {
      const [{ name, note, channel }, other] = pair;
      say(words.areOneNote(name, other.name, note, channel, alike.length - 1), 'alike');
    }
    for (const { code, has, lost } of keys) say(words.keyWentOver(keyName(code), has, lost), 'key');
  };
  const stop = store.subscribe(() => {
    const { doc } = store.getState();
    const before = seen;
    seen = doc;
    if (doc.beat === before.beat) return;
    clearTimeout(timer);
    if (isElsewhere(before, doc)) {
      from = null;
      return;
    }
    from ??= before.beat;
    timer = setTimeout(tell, restMs);
  });
  return () => {
    stop();
    clearTimeout(timer);
  };
};
