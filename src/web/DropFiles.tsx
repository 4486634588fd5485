import { asItIs } from '../ui/onlyInBrowser';
import type * as Web from './DropFiles.web';

export const DropFiles: typeof Web.DropFiles = asItIs;
