import type { ReactNode } from 'react';
import { Button } from './Button';
import { Tipped } from './Tipped';

interface ActionProps {
  /** What it does, in words: shown, or heard where only an icon is shown. */
  label: string;
  onPress: () => void;
  icon?: ReactNode;
  kind?: 'filled' | 'outline' | 'clear';
  tone?: 'plain' | 'danger';
  iconOnly?: boolean;
  disabled?: boolean;
  /** For a button that is on or off. */
  pressed?: boolean;
}

/** A button with an icon, its words beside it, or heard and shown where a pointer rests on it. */
export const Action = ({ label, icon, iconOnly, ...rest }: ActionProps) =>
  iconOnly ? (
    <Tipped tip={label}>
      <Button {...rest} label={label} icon={icon}>
        {''}
      </Button>
    </Tipped>
  ) : (
    <Button {...rest} icon={icon}>
      {label}
    </Button>
  );
