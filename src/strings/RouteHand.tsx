import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './RouteHand.web';

export const RouteHand: typeof Web.RouteHand = onlyInBrowser(words.routeHand);
