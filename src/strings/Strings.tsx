import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './Strings.web';

export const Strings: typeof Web.Strings = onlyInBrowser(words.strings);
