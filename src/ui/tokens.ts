/**
 * The dyes by name, by night and by day. All that has a colour takes it from here: styles, the page's sheet, RNE's theme, what a
 * browser paints around the page. A test holds the files against it that cannot.
 */
export const DYES = {
  ground: { night: '#17211f', day: '#f3efe6' },
  raised: { night: '#20302c', day: '#fffdf7' },
  line: { night: '#3a4b46', day: '#cfc7b6' },
  text: { night: '#efe9db', day: '#1d2926' },
  quiet: { night: '#a9b5ae', day: '#5b6a64' },
  pip: { night: '#6b7d76', day: '#8a8373' },
  woad: { night: '#7fb2d6', day: '#2c6591' },
  ruddle: { night: '#e07f66', day: '#a8402a' },
  weld: { night: '#ddbb55', day: '#7f6410' },
  lichen: { night: '#93b572', day: '#4a6b2c' },
  madder: { night: '#d48ca0', day: '#97455c' },
  walnut: { night: '#c79b72', day: '#74502d' },
  heather: { night: '#a99bd6', day: '#5e4f99' },
  rule: { night: '#2b3a36', day: '#e0d9ca' },
} as const;

type Dye = keyof typeof DYES;
const NAMES = Object.keys(DYES) as Dye[];

/** Where there is a page's sheet, a change of theme needs no drawing anew; elsewhere it is night. */
const hasSheet = process.env['EXPO_OS'] !== 'android';

/** The dyes for styles written in code. */
export const colour = Object.fromEntries(
  NAMES.map((name) => [name, hasSheet ? `var(--${name})` : DYES[name].night]),
) as {
  readonly [K in Dye]: `var(--${K})`;
};

const sheetOf = (when: 'night' | 'day'): string =>
  [
    ...NAMES.map((name) => `--${name}:${DYES[name][when]}`),
    `color-scheme:${when === 'night' ? 'dark' : 'light'}`,
  ].join(';');

/** The dyes as the page's sheet has them: those of the system's choice, or of one's own. */
export const dyesSheet = (): string =>
  `:root{${sheetOf('night')}}` +
  `:root[data-theme='day']{${sheetOf('day')}}` +
  `@media (prefers-color-scheme:light){:root:not([data-theme='night']){${sheetOf('day')}}}`;

export const font = {
  words: "'Hanken Grotesk', system-ui, sans-serif",
  figures: "'Martian Mono', ui-monospace, monospace",
} as const;

export const CORNER = 10;
/** The least that a thumb can hit. */
export const TARGET = 44;
