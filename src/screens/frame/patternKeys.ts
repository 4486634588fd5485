import { createPatternStarts } from '../../store/patternStarts';
import type { Store } from '../../store/store';

/** Begins patterns by their keys on the computer's keyboard. @param togglePlay begins and ends play */
export const createPatternKeys = (store: Pick<Store, 'dispatch' | 'getState'>, togglePlay: () => void) =>
  createPatternStarts(
    store,
    (code: string) => {
      const pattern = store.getState().doc.beat?.patterns.find(({ key }) => key?.code === code);
      return pattern?.key && { pattern, ...pattern.key };
    },
    togglePlay,
  );
