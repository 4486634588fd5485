import type { ReactNode } from 'react';

/**
 * In the place of what writes a page's head from within: the page's own frame gives it, once and for all, and the
 * package for it would come to the first screen.
 */
export const HelmetProvider = ({ children }: { children: ReactNode }) => <>{children}</>;
export const Helmet = () => null;
