import type * as Web from './BandOver.web';

/** Nothing lies over a string that is not drawn. */
export const BandOver: typeof Web.BandOver = () => null;
