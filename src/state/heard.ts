import type { Beat } from '../../core/beat/schema';
import { compared } from '../../core/feel/compare';
import { selectPattern, type RootState } from './store';

let last: { key: unknown[]; beat: Beat } | null = null;

/** The beat as it is heard and drawn: as it is, or while one compares without its feel or with another. */
export const selectHeard = (state: RootState): Beat | null => {
  const { beat } = state.doc;
  const { compare, b } = state.view;
  const pattern = selectPattern(state);
  if (!beat || !pattern || compare === null) return beat;
  const key = [beat, pattern, compare, b];
  if (!last || key.some((one, at) => one !== last!.key[at]))
    last = { key, beat: compared(beat, pattern, compare, b?.feel ?? null) };
  return last.beat;
};
