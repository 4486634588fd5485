import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './BeadPicture.web';

export const BeadPicture: typeof Web.BeadPicture = onlyInBrowser(words.beadPicture);
