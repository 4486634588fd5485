import { useRef } from 'react';

interface NameInputProps {
  label: string;
  value: string;
  /** Gets the new name, trimmed and not empty, once it is left or Enter is pressed. */
  onName: (name: string) => void;
  /** The id of a list of names to choose from. */
  list?: string;
}

const MOST_LETTERS = 80;

/** A name to be changed in its place: Enter or leaving it takes it, Escape leaves it as it was. */
export const NameInput = ({ label, value, onName, list }: NameInputProps) => {
  const dropped = useRef(false);
  return (
    <input
      key={value}
      type="text"
      list={list}
      aria-label={label}
      defaultValue={value}
      maxLength={MOST_LETTERS}
      onFocus={() => (dropped.current = false)}
      onBlur={(event) => {
        const name = event.target.value.trim();
        if (!dropped.current && name && name !== value) onName(name);
        else event.target.value = value;
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') {
          dropped.current = true;
          event.currentTarget.value = value;
          event.stopPropagation();
          event.currentTarget.select();
        }
        if (event.key === 'Enter') {
          dropped.current = false;
          event.currentTarget.blur();
          event.currentTarget.focus();
        }
        // Typed anew after Escape, it counts again.
        else if (event.key !== 'Escape') dropped.current = false;
      }}
    />
  );
};
