interface TabRowProps<T extends string> {
  /** What the tabs are of. */
  label: string;
  tabs: readonly { id: T; name: string }[];
  value: T;
  onChange: (id: T) => void;
}

/** Pages beside one another, of which one is open. */
export const TabRow = <T extends string>({ label, tabs, value, onChange }: TabRowProps<T>) => (
  <div className="drawer-tabs" role="tablist" aria-label={label}>
    {tabs.map(({ id, name }) => (
      <button key={id} type="button" role="tab" aria-selected={value === id} onClick={() => onChange(id)}>
        {name}
      </button>
    ))}
  </div>
);
