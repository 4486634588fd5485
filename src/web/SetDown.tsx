import type * as Web from './SetDown.web';

/** Nothing is dragged there: nothing is over it. */
export const SetDown: typeof Web.SetDown = ({ children }) => <>{children(false)}</>;
