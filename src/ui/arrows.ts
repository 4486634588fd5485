import type * as Web from './arrows.web';

/** Without keys to walk by there are none to hear. */
export const onArrows: typeof Web.onArrows = () => ({});
