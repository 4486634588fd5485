import { ThemeProvider } from '@rneui/themed/dist/config';
import type { ReactNode } from 'react';
import { rneTheme } from './rneTheme';

/** Gives RNE's components their theme. Not around the whole app: the first screen is there sooner without it. */
export const Themed = ({ children }: { children: ReactNode }) => (
  <ThemeProvider theme={rneTheme}>{children}</ThemeProvider>
);
