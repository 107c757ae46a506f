import { X } from 'lucide-react';

interface SomeBlankProps {
  readonly label: string;
  readonly chosen: readonly string[];
  readonly options: readonly (readonly [key: string, words: string])[];
  /** What stands between them. */
  readonly join: 'or' | 'and';
  /** What one of those that are no longer there is called. */
  readonly gone: string;
  readonly onChange: (chosen: string[]) => void;
}

/** One or several of some in a sentence: the last can't be taken out, and each of the others added. */
export function SomeBlank({ label, chosen, options, join, gone, onChange }: SomeBlankProps) {
  const words = new Map(options);
  const left = options.filter(([key]) => !chosen.includes(key));
  return (
    <span className="inline-flex max-w-full flex-wrap items-center gap-x-1.5 align-middle">
      {chosen.map((key, i) => (
        <span key={key} className="inline-flex items-center gap-x-1.5">
          {i > 0 && join}
          <span className="inline-flex h-6 items-center gap-1 rounded-field border border-line-2 pr-1 pl-2 text-note leading-5">
            {words.get(key) ?? gone}
            {chosen.length > 1 && (
              <button
                type="button"
                className="cursor-pointer text-ink-2 hover:text-ink"
                aria-label={`Take out ${words.get(key) ?? gone}`}
                onClick={() => onChange(chosen.filter((one) => one !== key))}
              >
                <X size={12} aria-hidden />
              </button>
            )}
          </span>
        </span>
      ))}
      {left.length > 0 && (
        <select
          className="blank w-auto max-w-[150px]"
          aria-label={label}
          value=""
          onChange={({ target }) => {
            if (target.value !== '') onChange([...chosen, target.value]);
          }}
        >
          <option value="">{chosen.length === 0 ? 'choose' : `${join} …`}</option>
          {left.map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      )}
    </span>
  );
}
