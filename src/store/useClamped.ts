import { clamp } from '../../core/units';
import { noticed } from './slices';
import { useDo } from './store';
import { words } from '../words/state';

/** Holds what was asked for to its range, to a hundredth, and says so where it had to be. */
export const useClamped = () => {
  const act = useDo();
  return (asked: number, least: number, most: number, what: string): number => {
    const kept = clamp(Math.round(asked * 100) / 100, least, most);
    if (kept !== Math.round(asked * 100) / 100)
      act(
        noticed({
          text: words.whatGoesFromLeastTo(what, least, most, asked, kept),
          subject: what,
        }),
      );
    return kept;
  };
};
