import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './TemplatePicture.web';

export const TemplatePicture: typeof Web.TemplatePicture = onlyInBrowser(words.templatePicture);
