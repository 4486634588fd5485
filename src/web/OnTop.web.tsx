// What lies over all of the page must stand beside it: React Native has only sheets for that, which take the focus.
import type { ReactNode } from 'react';
import { createPortal } from 'react-dom';

/** Lays something over the page, wherever it is told. */
export const OnTop = ({ children }: { children: ReactNode }) => createPortal(children, document.body);

/** The height of the page, in points. */
export const pageHeight = (): number => window.innerHeight;
