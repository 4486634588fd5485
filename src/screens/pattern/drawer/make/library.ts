import type { Groove } from '../../../../../core/groove/groove';

/** The grooves of the library: a large piece of text, fetched when it is first wanted. */
export const loadLibrary = (): Promise<Groove[]> =>
  import('../../../../../core/groove/library').then(({ builtInGrooves }) => builtInGrooves());
