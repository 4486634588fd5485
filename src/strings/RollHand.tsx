import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './RollHand.web';

export const RollHand: typeof Web.RollHand = onlyInBrowser(words.rollHand);
