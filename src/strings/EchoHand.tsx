import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './EchoHand.web';

export const EchoHand: typeof Web.EchoHand = onlyInBrowser(words.echoHand);
