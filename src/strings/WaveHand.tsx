import { onlyInBrowser } from '../ui/onlyInBrowser';
import { words } from '../words/native';
import type * as Web from './WaveHand.web';

export const WaveHand: typeof Web.WaveHand = onlyInBrowser(words.waveHand);
export type { DrawnWave, WaveMark } from './WaveHand.web';
