import { builtInGrooves } from '../../../../../core/groove/library';
import type { Groove } from '../../../../../core/groove/groove';

/** The grooves of the library, read when they are first wanted; a turn of the page later, so that a press is seen first. */
export const loadLibrary = (): Promise<Groove[]> =>
  new Promise((resolve) => setTimeout(() => resolve(builtInGrooves())));
