import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './FilePick.web';

export const FilePick: typeof Web.FilePick = onlyInBrowser(words.choosingFiles);
