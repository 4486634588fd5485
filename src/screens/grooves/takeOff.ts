import { offer } from '../../store/offers';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { stopHearing } from './audition';
import { shelf } from './shelf';
import { words } from '../../words/grooves';

/**
 * Takes imported grooves off the list, all at once, with a way back.
 *
 * @param what what they are called together, as “Rain” or “412 grooves”
 */
export const takeOff = async (ids: string[], what: string): Promise<void> => {
  stopHearing();
  const bringBack = await shelf.forget(ids);
  store.dispatch(
    noticed({
      text: words.whatOffTheListWhat(what, ids.length),
      subject: 'groove',
      action: { label: words.undo, does: offer(() => void bringBack()) },
    }),
  );
};
