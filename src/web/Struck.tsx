import { asItIs } from '../ui/onlyInBrowser';
import type * as Web from './Struck.web';

export const Struck: typeof Web.Struck = asItIs;
