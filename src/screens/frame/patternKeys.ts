import type { Pattern } from '../../../core/document/schema';
import { viewChanged } from '../../state/slices';
import type { Store } from '../../state/store';

/** What a key did: from which pattern it led, and whether it set play going. */
interface Pressed {
  code: string;
  from: string | null;
  began: boolean;
}

/**
 * Begins patterns by their keys: one press begins, another leads back to the pattern before; where the key is to be held,
 * letting go of it leads back.
 *
 * @param togglePlay begins and ends play
 */
export const createPatternKeys = (
  store: Pick<Store, 'dispatch' | 'getState'>,
  togglePlay: () => void,
): { down: (code: string) => boolean; up: (code: string) => boolean } => {
  let pressed: Pressed | null = null;

  const show = (patternId: string | null, { at }: NonNullable<Pattern['key']>) =>
    store.dispatch(viewChanged({ patternId, beginsAt: at, selection: [], cursor: null }));

  const keyed = (code: string): Pattern | undefined =>
    store.getState().doc.beat?.patterns.find(({ key }) => key?.code === code);

  const back = (pattern: Pattern): void => {
    const { from, began } = pressed!;
    pressed = null;
    const { view, doc } = store.getState();
    if (began && view.playing) togglePlay();
    if (doc.beat?.patterns.some(({ id }) => id === from)) show(from, pattern.key!);
  };

  return {
    /** @returns whether a pattern has this key */
    down: (code) => {
      const pattern = keyed(code);
      if (!pattern?.key) return false;
      const { view, doc } = store.getState();
      if (!pattern.key.held && pressed?.code === code && view.patternId === pattern.id) {
        back(pattern);
        return true;
      }
      pressed = { code, from: view.patternId ?? doc.beat!.patterns[0]!.id, began: !view.playing };
      show(pattern.id, pattern.key);
      if (!view.playing) togglePlay();
      return true;
    },
    up: (code) => {
      const pattern = keyed(code);
      if (!pattern?.key?.held || pressed?.code !== code) return false;
      back(pattern);
      return true;
    },
  };
};
