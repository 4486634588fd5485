interface ChoiceProps<T extends string> {
  /** What is chosen, in full words: heard. */
  label: string;
  /** The same, shown. */
  short: string;
  value: T;
  options: readonly { value: T; name: string }[];
  onChange: (value: T) => void;
}

/** One of several, named. */
export const Choice = <T extends string>({ label, short, value, options, onChange }: ChoiceProps<T>) => (
  <label className="choice-field">
    <span>{short}</span>
    <select aria-label={label} value={value} onChange={(event) => onChange(event.target.value as T)}>
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.name}
        </option>
      ))}
    </select>
  </label>
);
