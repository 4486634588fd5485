import { asItIs } from '../ui/onlyInBrowser';
import type * as Web from './DropEntries.web';

export const DropEntries: typeof Web.DropEntries = asItIs;
