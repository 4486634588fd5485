import { useState } from 'react';
import { Chip } from './Chip';

interface NameFieldProps {
  label: string;
  /** What the button says. */
  action: string;
  onGive: (name: string) => void;
}

/** A name, and what is done with it. */
export const NameField = ({ label, action, onGive }: NameFieldProps) => {
  const [name, setName] = useState('');
  const give = () => {
    if (!name.trim()) return;
    onGive(name.trim());
    setName('');
  };
  return (
    <form
      className="name-line"
      onSubmit={(event) => {
        event.preventDefault();
        give();
      }}
    >
      <input
        type="text"
        aria-label={label}
        placeholder={label}
        maxLength={80}
        value={name}
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setName('');
        }}
      />
      <Chip disabled={!name.trim()} onPress={give}>
        {action}
      </Chip>
    </form>
  );
};
