import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './GroovePicture.web';

export const GroovePicture: typeof Web.GroovePicture = onlyInBrowser(words.groovePicture);
