interface FilterChoiceProps<Key extends string> {
  readonly label: string;
  readonly value: Key;
  readonly options: readonly (readonly [Key, string])[];
  readonly onChange: (value: Key) => void;
  /** Left out where there is no room for it. */
  readonly isForWide?: boolean;
}

/** One of a few, as a word among the words of a page's head. */
export function FilterChoice<Key extends string>({
  label,
  value,
  options,
  onChange,
  isForWide = false,
}: FilterChoiceProps<Key>) {
  return (
    <select
      className={`filter-word ${isForWide ? 'max-[720px]:hidden' : ''}`}
      aria-label={label}
      value={value}
      onChange={({ target }) => onChange(target.value as Key)}
    >
      {options.map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </select>
  );
}
