import { useRef } from 'react';
import { fillTitle, TITLE_TOKENS, type TitleContext } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { Part } from '../../kit/blanks.tsx';
import { sayDay } from '../../kit/ways.ts';

interface TitleFieldProps {
  readonly pattern: string;
  readonly templateName: string;
  /** What the title is filled in from, as an example. */
  readonly example: TitleContext;
  readonly message: string | undefined;
  readonly onChange: (pattern: string) => void;
}

/** The title pattern and, right under it, the title it makes. */
export function TitleField({ pattern, templateName, example, message, onChange }: TitleFieldProps) {
  const today = useToday();
  const input = useRef<HTMLInputElement>(null);
  const filled = fillTitle(pattern, example);
  const putIn = (name: string) => {
    const at = input.current?.selectionStart ?? pattern.length;
    const token = `{${name}}`;
    const before = pattern.slice(0, at);
    const gap = before !== '' && !before.endsWith(' ') ? ' ' : '';
    onChange(before + gap + token + pattern.slice(input.current?.selectionEnd ?? at));
    input.current?.focus();
    requestAnimationFrame(() =>
      input.current?.setSelectionRange(at + gap.length + token.length, at + gap.length + token.length),
    );
  };
  return (
    <Part name="Title" aside="of each task">
      <input
        ref={input}
        className="blank h-8 w-full max-w-[480px] font-mono"
        aria-label="Title pattern"
        aria-invalid={message !== undefined}
        aria-describedby="title-error"
        placeholder="{asset} inspection, {month}"
        value={pattern}
        onChange={({ target }) => onChange(target.value)}
      />
      <p id="title-error" role="alert" className="field-error">
        {message}
      </p>
      <div className="flex flex-wrap gap-x-2.5 leading-6">
        <span className="text-ink-2">put in</span>
        {TITLE_TOKENS.map(({ name, meaning }) => (
          <button
            key={name}
            type="button"
            className="link-line leading-5"
            title={meaning}
            aria-label={`Put in ${name}: ${meaning}`}
            onClick={() => putIn(name)}
          >
            {name}
          </button>
        ))}
      </div>
      <p className="mt-1 leading-6">
        <output className="font-head text-[18px] font-semibold" style={{ fontStretch: '88%' }}>
          {filled || templateName || 'untitled'}
        </output>
        <span className="ml-3 text-note text-ink-2">as it would be for {sayDay(example.on, today)}</span>
      </p>
    </Part>
  );
}
