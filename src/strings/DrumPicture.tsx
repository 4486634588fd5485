import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './DrumPicture.web';

export const DrumPicture: typeof Web.DrumPicture = onlyInBrowser(words.drumPicture);
