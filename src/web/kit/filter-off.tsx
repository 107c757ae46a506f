/** What a list is narrowed down to, as a word in its head that is taken off by a press. */
export function FilterOff({
  words,
  then = 'show all',
  onOff,
}: {
  readonly words: string;
  /** What is shown once it is off. */
  readonly then?: string;
  readonly onOff: () => void;
}) {
  return (
    <button type="button" className="filter-word border-accent" onClick={onOff} aria-label={`${words}: ${then}`}>
      {words} ×
    </button>
  );
}
