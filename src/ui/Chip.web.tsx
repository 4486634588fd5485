import type { ReactNode } from 'react';

interface ChipProps {
  children: ReactNode;
  onPress: () => void;
  /** Heard where what is shown is too short. */
  label?: string;
  pressed?: boolean;
  disabled?: boolean;
  tone?: 'plain' | 'danger';
}

/** A small button with a word on it, as high as a thumb. */
export const Chip = ({ children, onPress, label, pressed, disabled, tone = 'plain' }: ChipProps) => (
  <button
    type="button"
    className={tone === 'danger' ? 'chip danger' : 'chip'}
    aria-label={label}
    aria-pressed={pressed}
    disabled={disabled}
    onClick={onPress}
  >
    {children}
  </button>
);
