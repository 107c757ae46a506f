import { useEffect, useState } from 'react';

interface FindWordsProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (words: string) => void;
}

/** Any words, to find by as they are typed. What is typed stands at once, however late the page is drawn by it. */
export function FindWords({ label, value, onChange }: FindWordsProps) {
  const [words, setWords] = useState(value);
  useEffect(() => setWords(value), [value]);
  return (
    <input
      className="filter-word w-[92px] cursor-text text-ink placeholder:text-ink-2"
      type="search"
      aria-label={label}
      placeholder="any words"
      value={words}
      onChange={({ target }) => {
        setWords(target.value);
        onChange(target.value);
      }}
    />
  );
}
