import { Path, Svg } from 'react-native-svg';
import type { InstrumentId } from '../../core/document/instruments';

/**
 * A small drawing for each instrument, on a field of 24 by 24. Relatives share a drawing and differ by a mark: a wedge up or
 * down for high and low, a bar between for the middle, a dot for the second of its kind, a stroke for muted or short.
 */

const CYMBAL = 'M2 9c5-3 15-3 20 0-5 3-15 3-20 0Z';
const STAND = 'M12 11v10M8 21h8';
const SHELL = 'M4 9v8c0 1.7 3.6 3 8 3s8-1.3 8-3V9';
const HEAD = 'M4 9c0-1.7 3.6-3 8-3s8 1.3 8 3-3.6 3-8 3-8-1.3-8-3Z';
const SNARE = `M3 10c0-1.7 4-3 9-3s9 1.3 9 3-4 3-9 3-9-1.3-9-3ZM3 10v5c0 1.7 4 3 9 3s9-1.3 9-3v-5`;
const TALL = 'M7 5c0-1.1 2.2-2 5-2s5 .9 5 2-2.2 2-5 2-5-.9-5-2ZM7 5c-1.5 6-.5 12 1.5 16h7c2-4 3-10 1.5-16';
const PAIR =
  'M3 9c0-1.1 2-2 4.500-2s4.500.9 4.500 2-2 2-4.500 2S3 10.100 3 9ZM3 9l.6 8h7.800L12 9M13 8c0-.9 1.800-1.600 4-1.600s4 .7 4 1.600-1.800 1.600-4 1.600-4-.7-4-1.600ZM13 8l.6 6.500h6.800L21 8';
const BELL = 'M9 4h6l4 14H5ZM9 4l3-2 3 2';
const BLOCK = 'M3 10h18v7H3ZM6 13.500h12';
const TRIANGLE = 'M12 4 4 19h15';
const SCRAPER = 'M3 14c4-4 14-4 18 0-4 4-14 4-18 0ZM8 11.500v5M11 11v6M14 11v6M17 11.500v5';
const WHISTLE = 'M3 9h11v3h7v-3M14 12a5 5 0 1 1-9-1.500';

type Mark = 'up' | 'down' | 'mid' | 'dot' | 'cut';

const MARKS: Record<Mark, string> = {
  up: 'm18 5 2-3 2 3',
  down: 'm18 2 2 3 2-3',
  mid: 'M18 3.500h4',
  dot: 'M20 3h.01M21 3h.01M20.500 3.500h.01',
  cut: 'm18 5 4-3',
};

const BARS = 'M3 5v14M8 6v12M13 7v10M18 8v8M1 9h20M1 15h20';

const DRAWN: Record<InstrumentId, [path: string, mark?: Mark]> = {
  kick: ['M12 3a9 9 0 1 1 0 18 9 9 0 0 1 0-18ZM12 8a4 4 0 1 1 0 8 4 4 0 0 1 0-8ZM5 20l-2 2M19 20l2 2'],
  'kick.second': [
    'M12 3a9 9 0 1 1 0 18 9 9 0 0 1 0-18ZM12 8a4 4 0 1 1 0 8 4 4 0 0 1 0-8ZM5 20l-2 2M19 20l2 2',
    'dot',
  ],
  snare: [`${SNARE}M5 17l2 2 2-2 2 2 2-2 2 2 2-2`],
  'snare.second': [`${SNARE}M5 17l2 2 2-2 2 2 2-2 2 2 2-2`, 'dot'],
  'snare.sideStick': [`${SNARE}M2 8.500 22 8`],
  'snare.rimshot': [`${SNARE}M22 2 10 10`],
  clap: ['M7 21c-3-3-4-8-3-12l3 5V4l3 8 1-8 1 9M17 21c3-3 4-8 3-12l-3 5V4l-3 8'],
  'tom.floorLow': [`${SHELL}${HEAD}M5 19v4M19 19v4M12 20v3`],
  'tom.floor': [`${SHELL}${HEAD}M5 19v4M19 19v4`],
  'tom.low': [`${SHELL}${HEAD}`, 'down'],
  'tom.mid': [`${SHELL}${HEAD}`, 'mid'],
  'tom.highMid': [`${SHELL}${HEAD}M12 6V4`, 'mid'],
  'tom.high': [`${SHELL}${HEAD}`, 'up'],
  'hat.closed': ['M2 9c5-3 15-3 20 0H2ZM2 10.500c5 3 15 3 20 0H2ZM12 13v8M8 21h8M12 3v3'],
  'hat.open': ['M2 7c5-3 15-3 20 0H2ZM2 12.500c5 3 15 3 20 0H2ZM12 7v14M8 21h8M12 2v2'],
  'hat.half': ['M2 8c5-3 15-3 20 0H2ZM2 11c5 3 15 3 20 0H2ZM12 8v13M8 21h8M12 2v3'],
  'hat.pedal': ['M2 8c5-3 15-3 20 0H2ZM2 9.500c5 3 15 3 20 0H2ZM12 12v6M5 22l12-4'],
  crash: [`M3 12c4-5 13-8 18-7-3 5-12 8-18 7ZM13 9v12M9 21h8`],
  'crash.second': [`M3 12c4-5 13-8 18-7-3 5-12 8-18 7ZM13 9v12M9 21h8`, 'dot'],
  ride: [`${CYMBAL}${STAND}M9.500 6.800c.8-1.600 4.200-1.600 5 0`],
  'ride.second': [`${CYMBAL}${STAND}M9.500 6.800c.8-1.600 4.200-1.600 5 0`, 'dot'],
  'ride.bell': [`${CYMBAL}${STAND}M9.500 6.800c.8-2.600 4.200-2.600 5 0M22 2l-8 3`],
  china: [`M2 6c2 4 5 2 10 2s8 2 10-2c-1 6-5 5-10 5S3 12 2 6Z${STAND}`],
  splash: [`M7 9c3-2 7-2 10 0-3 2-7 2-10 0ZM12 10v11M9 21h6`],
  tambourine: [
    'M12 4a8 8 0 1 1 0 16 8 8 0 0 1 0-16ZM12 3v3M12 18v3M3 12h3M18 12h3M5.600 5.600l2 2M16.400 16.400l2 2M5.600 18.400l2-2M16.400 7.600l2-2',
  ],
  cowbell: [BELL],
  vibraslap: ['M3 20 12 5l8 9M19 13h3v6h-5v-4ZM2 18a2 2 0 1 1 0 4'],
  'bongo.high': [PAIR, 'up'],
  'bongo.low': [PAIR, 'down'],
  'conga.mute': [TALL, 'cut'],
  'conga.open': [TALL],
  'conga.low': [TALL, 'down'],
  'timbale.high': [`${PAIR}M7.500 17v5M17 14.500V22`, 'up'],
  'timbale.low': [`${PAIR}M7.500 17v5M17 14.500V22`, 'down'],
  'agogo.high': ['M3 6l8 3M3 6l8-1v5ZM11 18l9-4M11 18l10 1-1-6ZM11 8c4 1 4 8 1 9', 'up'],
  'agogo.low': ['M3 6l8 3M3 6l8-1v5ZM11 18l9-4M11 18l10 1-1-6ZM11 8c4 1 4 8 1 9', 'down'],
  cabasa: ['M7 3h10v8H7ZM7 5.700h10M7 8.300h10M10 3v8M14 3v8M12 11v11'],
  maracas: [
    'M8 3a4 5 0 1 1 0 10 4 5 0 0 1 0-10ZM8 13l-3 9M17 4a4 5 0 1 1 0 10 4 5 0 0 1 0-10ZM16.500 14 15 22',
  ],
  shaker: ['M5 14 15 4a4 4 0 0 1 5 5L10 19a4 4 0 0 1-5-5ZM9 13h.01M12 10h.01M12 13h.01M15 8h.01M15 11h.01'],
  'whistle.short': [WHISTLE, 'cut'],
  'whistle.long': [WHISTLE],
  'guiro.short': [SCRAPER, 'cut'],
  'guiro.long': [SCRAPER],
  claves: ['M3 17 18 5l2 2L5 19ZM4 6l2-2 14 12-2 2Z'],
  marimba: [BARS],
  kalimba: ['M4 8h16v13H4ZM6 3v12M9 3v14M12 3v15M15 3v14M18 3v12'],
  steelPan: ['M3 8a9 4 0 1 0 18 0 9 4 0 1 0-18 0ZM3 8c0 8 4 12 9 12s9-4 9-12M12 4.500v7M7 6l4 2M17 6l-4 2'],
  logDrum: ['M3 9h18v9H3ZM6 12h5v3H6ZM11 13.500h3M14 12h4v3h-4Z'],
  'kick.tuned': [
    'M12 3a9 9 0 1 1 0 18 9 9 0 0 1 0-18ZM12 8a4 4 0 1 1 0 8 4 4 0 0 1 0-8ZM5 20l-2 2M19 20l2 2',
    'up',
  ],
  'woodblock.high': [BLOCK, 'up'],
  'woodblock.low': [BLOCK, 'down'],
  'cuica.mute': [`${SHELL}${HEAD}M12 12v11`, 'cut'],
  'cuica.open': [`${SHELL}${HEAD}M12 12v11`],
  'triangle.mute': [TRIANGLE, 'cut'],
  'triangle.open': [TRIANGLE],
};

interface InstrumentIconProps {
  of: InstrumentId;
  size?: number;
}

/** What an instrument looks like; its name stands beside it, so it is not read out. */
export const InstrumentIcon = ({ of, size = 22 }: InstrumentIconProps) => {
  const [path, mark] = DRAWN[of];
  return (
    <Svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.6}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      <Path d={path} />
      {mark ? <Path d={MARKS[mark]} strokeWidth={mark === 'dot' ? 3 : 1.6} /> : null}
    </Svg>
  );
};
