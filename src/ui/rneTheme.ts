import { createTheme } from '@rneui/themed/dist/config';
import { DYES } from './tokens';

/** RNE reckons with its colours, so these are plain; each part gets its dyes by style. */
const coloursOf = (when: 'night' | 'day') => ({
  primary: DYES.woad[when],
  secondary: DYES.woad[when],
  background: DYES.ground[when],
  white: DYES.raised[when],
  black: DYES.text[when],
  disabled: DYES.quiet[when],
  divider: DYES.line[when],
  error: DYES.ruddle[when],
});

export const rneTheme = createTheme({
  mode: 'dark',
  lightColors: coloursOf('day'),
  darkColors: coloursOf('night'),
});

/** The same by day. */
export const rneDay: typeof rneTheme = { ...rneTheme, mode: 'light' };
