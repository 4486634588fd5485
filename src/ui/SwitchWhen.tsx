import { Choice } from './Choice';

const WHEN = [
  { value: 'now', name: 'at once' },
  { value: 'beat', name: 'at the next beat' },
  { value: 'end', name: 'at the pattern’s end' },
] as const;

type When = (typeof WHEN)[number]['value'];

/** When another pattern begins while one plays. */
export const SwitchWhen = ({ value, onChange }: { value: When; onChange: (value: When) => void }) => (
  <Choice
    label="While playing, another pattern begins"
    short="Begins"
    value={value}
    options={WHEN}
    onChange={onChange}
  />
);
