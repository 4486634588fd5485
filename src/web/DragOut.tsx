import { asItIs } from '../ui/onlyInBrowser';
import type * as Web from './DragOut.web';

export const DragOut: typeof Web.DragOut = asItIs;
