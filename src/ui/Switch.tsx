import { Switch as RneSwitch } from '@rneui/base/dist/Switch';
import { useRne } from './Themed';
import { colour } from './tokens';

interface SwitchProps {
  /** What is on or off. */
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
  disabled?: boolean;
}

/** Something that is on or off at once. */
export const Switch = ({ label, value, onChange, disabled }: SwitchProps) => (
  <RneSwitch
    {...useRne()}
    value={value}
    onValueChange={onChange}
    disabled={disabled ?? false}
    {...({
      'aria-label': label,
      activeTrackColor: colour.woad,
      activeThumbColor: colour.ground,
      thumbColor: colour.quiet,
      trackColor: colour.line,
    } as object)}
  />
);
