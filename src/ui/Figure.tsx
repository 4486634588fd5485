import { bounds, RANGES } from '../../core/document/ranges';
import { figure, PAN, panText, percent, PERCENT, type FigureWritten } from './figures';
import { Range } from './Range';
import type { SliderProps } from './Slider';

/** How a figure of the document is set by hand. */
interface How {
  /** By how much one press of a key, or one point of a drag, changes it. */
  step: number;
  /** How it is told and typed, where that is another figure. */
  written?: FigureWritten;
  text: (value: number) => string;
}

const SHARE: How = { step: 0.01, written: PERCENT, text: percent };
const WHOLE: How = { step: 1, text: String };

/** Each figure once: its range stands in the document's own list, under the same name. */
const HOW = {
  velocity: WHOLE,
  chance: SHARE,
  share: SHARE,
  level: SHARE,
  amount: SHARE,
  decay: SHARE,
  echoSlope: SHARE,
  sparkFactor: SHARE,
  scale: { ...SHARE, step: 0.05 },
  nudge: SHARE,
  pan: { step: 0.01, written: PAN, text: panText },
  tune: { step: 0.5, text: (value) => figure(value) },
  slide: { step: 5, text: (value) => figure(value) },
  curve: { step: 0.05, text: (value) => figure(value) },
  follow: { step: 0.1, text: (value) => figure(value) },
  clock: { step: 0.1, text: (value) => figure(value) },
  interval: WHOLE,
  echoes: WHOLE,
  crossFade: WHOLE,
  lean: WHOLE,
  graceBefore: WHOLE,
} satisfies Partial<Record<keyof typeof RANGES, How>>;

interface FigureProps extends Pick<SliderProps, 'label' | 'value' | 'onChange' | 'rest' | 'written'> {
  of: keyof typeof HOW;
  /** What is shown of its name. */
  short: string;
  /** The value in words, where a bare figure says less. */
  shown?: string;
  /** Coarser than it is elsewhere. */
  step?: number;
}

/**
 * The control of a figure: its range, its step, how it is told and typed come with its name.
 *
 * @example <Figure of="chance" label="Chance" short="Chance" value={0.5} onChange={set} />
 */
export const Figure = ({ of, shown, ...given }: FigureProps) => {
  const { text, ...how }: How = HOW[of];
  return <Range {...bounds(RANGES[of])} {...how} shown={shown ?? text(given.value)} {...given} />;
};
