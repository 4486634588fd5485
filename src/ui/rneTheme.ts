import { createTheme } from '@rneui/themed/dist/config';

/** RNE reckons with its colours, so these are plain; each part gets its dyes by style. Their values are those of the theme's sheet. */
export const rneTheme = createTheme({
  mode: 'dark',
  lightColors: {
    primary: '#2c6591',
    secondary: '#2c6591',
    background: '#f3efe6',
    white: '#fffdf7',
    black: '#1d2926',
    disabled: '#5b6a64',
    divider: '#cfc7b6',
    error: '#a8402a',
  },
  darkColors: {
    primary: '#7fb2d6',
    secondary: '#7fb2d6',
    background: '#17211f',
    white: '#20302c',
    black: '#efe9db',
    disabled: '#a9b5ae',
    divider: '#3a4b46',
    error: '#e07f66',
  },
});

/** The same by day. */
export const rneDay: typeof rneTheme = { ...rneTheme, mode: 'light' };
