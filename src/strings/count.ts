import { barTicks, beatTicks, isCompound, type Meter } from '../../core/beat/meter';
import type { Ticks } from '../../core/units';

export interface Count {
  at: Ticks;
  text: string;
  /** Whether it is a beat rather than what lies between beats. */
  strong: boolean;
}

const BETWEEN: Record<number, string[]> = { 2: ['', '&'], 4: ['', 'e', '&', 'a'] };

/**
 * How one bar is counted above the strings, a word for each sixteenth: `1 e & a 2 e & a`; eighths in x/8.
 *
 * @example countBar({ beats: 7, unit: 8 }).map(({ text }) => text).join(' ') // "1 & 2 & 3 & 4 & 5 & 6 & 7 &"
 */
export const countBar = (meter: Meter): Count[] => {
  const unit = 3840 / Math.max(4, meter.unit);
  const words = BETWEEN[unit / 240] ?? [''];
  const beat = isCompound(meter) ? beatTicks(meter) : unit;
  return Array.from({ length: Math.round(barTicks(meter) / 240) }, (_, at) => {
    const word = words[at % words.length]!;
    return {
      at: at * 240,
      text: word || String(Math.floor((at * 240) / unit) + 1),
      strong: (at * 240) % beat === 0,
    };
  });
};
