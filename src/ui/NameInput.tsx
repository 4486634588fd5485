import { TextField } from './TextField';

interface NameInputProps {
  label: string;
  value: string;
  /** Gets the new name, trimmed and not empty, once it is left or Enter is pressed. */
  onName: (name: string) => void;
}

/** A name to be changed in its place: Enter or leaving it takes it, Escape leaves it as it was. */
export const NameInput = ({ label, value, onName }: NameInputProps) => (
  <TextField
    label={label}
    value={value}
    onDone={(text) => {
      const name = text.trim();
      if (name && name !== value) onName(name);
    }}
  />
);
