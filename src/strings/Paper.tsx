import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './Paper.web';

export const Paper: typeof Web.Paper = onlyInBrowser(words.paper);
