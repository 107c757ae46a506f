import { X } from 'lucide-react';
import { useId, useState } from 'react';

interface NamesBlankProps {
  readonly label: string;
  readonly chosen: readonly string[];
  /** Those that are known; another one may be typed. */
  readonly known: readonly string[];
  readonly most: number;
  readonly placeholder: string;
  readonly onChange: (names: string[]) => void;
}

/** A few names in a sentence: each can be taken out, and one more typed or chosen. */
export function NamesBlank({ label, chosen, known, most, placeholder, onChange }: NamesBlankProps) {
  const [typed, setTyped] = useState('');
  const listId = useId();
  const add = () => {
    const name = typed.trim();
    if (name === '') return;
    // As it is written already, where it differs by capitals alone.
    const same = known.find((one) => one.toLowerCase() === name.toLowerCase()) ?? name;
    if (!chosen.includes(same)) onChange([...chosen, same]);
    setTyped('');
  };
  return (
    <span className="inline-flex max-w-full flex-wrap items-center gap-1.5 align-middle">
      {chosen.map((name) => (
        <span
          key={name}
          className="inline-flex h-6 items-center gap-1 rounded-field border border-line-2 pr-1 pl-2 text-note leading-5"
        >
          {name}
          <button
            type="button"
            className="cursor-pointer text-ink-2 hover:text-ink"
            aria-label={`Take out ${name}`}
            onClick={() => onChange(chosen.filter((one) => one !== name))}
          >
            <X size={12} aria-hidden />
          </button>
        </span>
      ))}
      {chosen.length < most && (
        <>
          <input
            className="blank w-[124px]"
            aria-label={label}
            list={listId}
            maxLength={60}
            placeholder={placeholder}
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
            onBlur={add}
            onKeyDown={(event) => {
              if (event.key !== 'Enter' || typed.trim() === '') return;
              event.preventDefault();
              add();
            }}
          />
          <datalist id={listId}>
            {known
              .filter((name) => !chosen.includes(name))
              .map((name) => (
                <option key={name} value={name} />
              ))}
          </datalist>
        </>
      )}
    </span>
  );
}
