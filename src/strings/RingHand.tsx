import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './RingHand.web';

export const RingHand: typeof Web.RingHand = onlyInBrowser(words.ringHand);
