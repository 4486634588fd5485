interface OptionsProps<T extends string> {
  /** What is chosen, in full words: heard. */
  label: string;
  value: T;
  options: readonly { value: T; name: string }[];
  onChange: (value: T) => void;
}

/** One of several, named: the bare field. */
export const Options = <T extends string>({ label, value, options, onChange }: OptionsProps<T>) => (
  <select aria-label={label} value={value} onChange={(event) => onChange(event.target.value as T)}>
    {options.map((option) => (
      <option key={option.value} value={option.value}>
        {option.name}
      </option>
    ))}
  </select>
);
