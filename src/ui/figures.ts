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
