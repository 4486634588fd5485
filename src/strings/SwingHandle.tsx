import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './SwingHandle.web';

export const SwingHandle: typeof Web.SwingHandle = onlyInBrowser(words.swingHandle);
