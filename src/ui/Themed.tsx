import { ThemeProvider, useTheme } from '@rneui/themed/dist/config';
import type { ReactNode } from 'react';
import { useColorScheme } from 'react-native';
import { rneDay, rneTheme } from './rneTheme';

/** Gives RNE's parts their theme, by night or by day: as chosen, or as the system has it. */
export const Themed = ({
  theme = 'system',
  children,
}: {
  theme?: 'system' | 'day' | 'night';
  children: ReactNode;
}) => {
  const system = useColorScheme();
  const day = theme === 'system' ? system === 'light' : theme === 'day';
  return <ThemeProvider theme={day ? rneDay : rneTheme}>{children}</ThemeProvider>;
};

/**
 * The theme for a part of RNE's. The parts are taken as they are and given it, and not through RNE's own wrapping of each,
 * which merges all their properties anew at every drawing: there are hundreds of them.
 */
export const useRne = (): { theme?: ReturnType<typeof useTheme>['theme'] } => {
  // Outside of a provider there is none.
  const { theme } = useTheme() as Partial<ReturnType<typeof useTheme>>;
  return theme ? { theme } : {};
};
