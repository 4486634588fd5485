import { barTicks, beatTicks, isCompound, type Meter } from '../../core/document/meter';
import type { Ticks } from '../../core/units';

export interface Count {
  at: Ticks;
  text: string;
  /** Whether it is a beat rather than what lies between beats. */
  strong: boolean;
}

const SIXTEENTH: Ticks = 240;

/** What is said between beats, by how many sixteenths a beat has; nothing where all of it would be too much. */
const BETWEEN: Record<number, string[]> = {
  2: ['&'],
  4: ['e', '&', 'a'],
  6: ['', '&', '', 'a', ''],
  8: ['', 'e', '', '&', '', 'a', ''],
};

/**
 * How one bar is counted above the strings, a word for each sixteenth: `1 e & a 2 e & a`; each eighth in 7/8, dotted quarters
 * in 6/8, 9/8 and 12/8, halves in 3/2.
 *
 * @example countBar({ beats: 7, unit: 8 }).map(({ text }) => text).join(' ') // "1 & 2 & 3 & 4 & 5 & 6 & 7 &"
 * @example countBar({ beats: 6, unit: 8 }).map(({ text }) => text).join(' ') // "1  &  a  2  &  a "
 */
export const countBar = (meter: Meter): Count[] => {
  const beat = isCompound(meter) ? beatTicks(meter) : Math.max(SIXTEENTH, beatTicks(meter));
  const words = BETWEEN[beat / SIXTEENTH] ?? [];
  return Array.from({ length: Math.round(barTicks(meter) / SIXTEENTH) }, (_, at) => {
    const place = at % (beat / SIXTEENTH);
    return {
      at: at * SIXTEENTH,
      text: place ? (words[place - 1] ?? '') : String(Math.floor((at * SIXTEENTH) / beat) + 1),
      strong: place === 0,
    };
  });
};
