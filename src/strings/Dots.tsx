import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './Dots.web';

export const Dots: typeof Web.Dots = onlyInBrowser(words.dots);
