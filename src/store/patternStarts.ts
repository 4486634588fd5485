import type { SwitchAt } from './transport';
import type { Pattern } from '../../core/document/schema';
import { patternShown } from './focus';
import type { Store } from './store';

/** How a pattern begins by something that is pressed: when, and whether only as long as it is held. */
export interface Start {
  pattern: Pattern;
  at: SwitchAt;
  held: boolean;
}

/** What a press did: from which pattern it led, and whether it set play going. */
interface Pressed<Key> {
  key: Key;
  from: string | null;
  began: boolean;
}

/**
 * Begins patterns by what is pressed, keys of the computer or of a device: one press begins, another leads back to the pattern
 * before; where it is to be held, letting go of it leads back.
 *
 * @param startOf what a press begins; undefined where it is nothing
 * @param togglePlay begins and ends play
 */
export const createPatternStarts = <Key>(
  store: Pick<Store, 'dispatch' | 'getState'>,
  startOf: (key: Key) => Start | undefined,
  togglePlay: () => void,
): { down: (key: Key) => boolean; up: (key: Key) => boolean } => {
  let pressed: Pressed<Key> | null = null;

  const show = (patternId: string | null, { at }: Start) => store.dispatch(patternShown(patternId, at));

  const back = (start: Start): void => {
    const { from, began } = pressed!;
    pressed = null;
    const { transport, doc } = store.getState();
    if (began && transport.playing) togglePlay();
    if (doc.beat?.patterns.some(({ id }) => id === from)) show(from, start);
  };

  return {
    /** @returns whether it begins a pattern */
    down: (key) => {
      const start = startOf(key);
      if (!start) return false;
      const { focus, transport, doc } = store.getState();
      if (!start.held && pressed?.key === key && focus.patternId === start.pattern.id) {
        back(start);
        return true;
      }
      pressed = { key, from: focus.patternId ?? doc.beat!.patterns[0]!.id, began: !transport.playing };
      show(start.pattern.id, start);
      if (!transport.playing) togglePlay();
      return true;
    },
    up: (key) => {
      const start = startOf(key);
      if (!start?.held || pressed?.key !== key) return false;
      back(start);
      return true;
    },
  };
};
