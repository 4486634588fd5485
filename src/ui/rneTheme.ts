import { createTheme } from '@rneui/themed/dist/config';

/** RNE reckons with its colours, so these are plain; each component gets its dyes by style. */
export const rneTheme = createTheme({
  mode: 'dark',
  lightColors: { primary: '#2C6591', disabled: '#5B6A64' },
  darkColors: { primary: '#7FB2D6', disabled: '#A9B5AE' },
});
