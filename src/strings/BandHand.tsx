import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './BandHand.web';

export const BandHand: typeof Web.BandHand = onlyInBrowser(words.bandHand);
export type { BandProps } from './BandHand.web';
