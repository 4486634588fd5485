import type { ReactNode } from 'react';
import { Button } from './Button';

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

/** A button with an icon, its words beside it or only heard. */
export const Action = ({ label, icon, iconOnly, ...rest }: ActionProps) => (
  <Button {...rest} {...(iconOnly && { label })} icon={icon}>
    {iconOnly ? '' : label}
  </Button>
);
