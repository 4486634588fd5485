import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './SlotEditor.web';

export const SlotEditor: typeof Web.SlotEditor = onlyInBrowser(words.slotEditor);
