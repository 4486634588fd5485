import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './TimelineView.web';

export const TimelineView: typeof Web.TimelineView = onlyInBrowser(words.timelineView);
export const placeWords: typeof Web.placeWords = (_layout, tick) => String(tick);
