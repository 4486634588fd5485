import type { ComponentProps } from 'react';
import { Slider } from './Slider';

interface RangeProps extends ComponentProps<typeof Slider> {
  /** What is shown of its name. */
  short: string;
}

/** A slider with its name and figure. */
export const Range = ({ short, ...slider }: RangeProps) => (
  <label className="range">
    <span>{short}</span>
    <Slider {...slider} />
    <span className="figure">{slider.shown}</span>
  </label>
);
