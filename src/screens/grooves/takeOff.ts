import { offer } from '../../state/offers';
import { store } from '../../state/session';
import { noticed } from '../../state/slices';
import { stopHearing } from './audition';
import { shelf } from './shelf';

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
      text: `${what} ${ids.length === 1 ? 'is' : 'are'} off the list. What was brought into beats stays there.`,
      subject: 'groove',
      action: { label: 'Undo', does: offer(() => void bringBack()) },
    }),
  );
};
