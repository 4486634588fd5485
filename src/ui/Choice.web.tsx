import type { ComponentProps } from 'react';
import { Options } from './Options';

interface ChoiceProps<T extends string> extends ComponentProps<typeof Options<T>> {
  /** What is chosen, shown. */
  short: string;
}

/** One of several, named, with its name before it. */
export const Choice = <T extends string>({ short, ...options }: ChoiceProps<T>) => (
  <label className="choice-field">
    <span>{short}</span>
    <Options {...options} />
  </label>
);
