import { Icon, type IconName } from './Icon';

interface IconButtonProps {
  /** What it does, in words: heard, and shown by the pointer. */
  label: string;
  icon: IconName;
  onPress: () => void;
  disabled?: boolean;
  /** For a button that is on or off. */
  pressed?: boolean;
}

/** A button that shows an icon alone, as large as a thumb. */
export const IconButton = ({ label, icon, onPress, disabled, pressed }: IconButtonProps) => (
  <button
    type="button"
    className="icon-button"
    aria-label={label}
    title={label}
    aria-pressed={pressed}
    disabled={disabled}
    onClick={onPress}
  >
    <Icon name={icon} />
  </button>
);
