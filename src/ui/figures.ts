import { noteName, noteOfName, type NoteNames } from '../../core/document/noteName';

/** A figure without needless places. @example figure(58.50) // "58.5" */
export const figure = (value: number): string => String(Math.round(value * 100) / 100);

/** @example percent(0.415) // "42 %" */
export const percent = (value: number): string => `${Math.round(value * 100)} %`;

/** @example hertzText(10700) // "10.7 kHz" */
export const hertzText = (hertz: number): string =>
  hertz >= 1000 ? `${(hertz / 1000).toFixed(1)} kHz` : `${Math.round(hertz)} Hz`;

/** How far to a side. @param pan -1 on the left to 1 on the right */
export const panText = (pan: number): string => {
  const percent = Math.round(Math.abs(pan) * 100);
  if (!percent) return 'centre';
  return `${percent} % ${pan < 0 ? 'L' : 'R'}`;
};

/** How the value of a slider is told, and typed, where that is another figure than the value itself. */
export interface FigureWritten {
  /** The figure that a person sees. */
  figure: (value: number) => number;
  /** The value that a figure stands for. */
  value: (figure: number) => number;
  /** The finest figure that is kept of what is typed. */
  grain: number;
  /** Reads more than a bare figure. NaN: it is none. */
  read?: (text: string) => number;
  /** How a figure is shown, where that is no number. */
  text?: (figure: number) => string;
}

/** What a person typed as a number: a comma counts as a point, a unit behind it is passed over. */
export const typedFigure = (text: string): number =>
  Number.parseFloat(text.trim().replace(',', '.').replace(/^−/, '-'));

/** A multiple of the value is told. @example times(125, 0.1).figure(0.5) // 62.5 */
export const times = (factor: number, grain = 1): FigureWritten => ({
  figure: (value) => value * factor,
  value: (told) => told / factor,
  grain,
});

/** A share told in per cent. */
export const PERCENT = times(100);

/** Counted from one. */
export const FROM_ONE: FigureWritten = { figure: (value) => value + 1, value: (told) => told - 1, grain: 1 };

/** A pitch on a slider of octaves, told in hertz; "8k" and "8 kHz" are 8000. */
export const HERTZ: FigureWritten = {
  figure: (value) => 2 ** value,
  value: Math.log2,
  grain: 1,
  read: (text) => typedFigure(text) * (/\dk|\d k/i.test(text) ? 1000 : 1),
};

/** A place from left to right, told in per cent; "30 L" is to the left. */
export const PAN: FigureWritten = {
  ...PERCENT,
  read: (text) => typedFigure(text) * (/l/i.test(text) ? -1 : 1),
};

/** Notes by their names, where they have any; a number is read too. */
export const notes = (names: NoteNames): FigureWritten => ({
  ...times(1),
  read: (text) => noteOfName(text, names),
  ...(names !== 'none' && { text: (note) => noteName(note, names) }),
});
