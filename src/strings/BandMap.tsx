import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './BandMap.web';

export const BandMap: typeof Web.BandMap = onlyInBrowser(words.bandMap);
export type { MapPlayer, MapThread } from './BandMap.web';
