import { type ComponentProps, type ReactNode, useEffect, useId, useState } from 'react';
import { type CivilDay, readDate, sayDate, tryMinutesOfTime } from '../../core/index.ts';
import { useToday } from '../shell/workspace.tsx';

interface BlankProps {
  /** What the blank is, for those who don't see the sentence around it. */
  readonly label: string;
}

/** A text in a sentence that is kept while typing and taken when it can be read. */
function ReadBlank<T>({
  label,
  shown,
  read,
  onChange,
  wrong,
  width,
  ...input
}: BlankProps & {
  readonly shown: string;
  /** The value of a text, or undefined when it can't be read. */
  readonly read: (text: string) => T | undefined;
  readonly onChange: (value: T) => void;
  readonly wrong: string;
  readonly width: number;
} & Pick<ComponentProps<'input'>, 'inputMode' | 'placeholder' | 'disabled'>) {
  const [text, setText] = useState(shown);
  const [typing, setTyping] = useState(false);
  const errorId = useId();
  useEffect(() => {
    if (!typing) setText(shown);
  }, [shown, typing]);
  const isWrong = read(text) === undefined;
  return (
    <>
      <input
        {...input}
        className="blank"
        style={{ width: `calc(${Math.max(width, Math.min(text.length + 0.5, 22))}ch + 14px)` }}
        aria-label={label}
        aria-invalid={isWrong}
        aria-describedby={isWrong ? errorId : undefined}
        value={text}
        onFocus={() => setTyping(true)}
        onBlur={() => {
          setTyping(false);
          if (!isWrong) setText(shown);
        }}
        onChange={({ target }) => {
          setText(target.value);
          const value = read(target.value);
          if (value !== undefined) onChange(value);
        }}
      />
      {isWrong && (
        <span id={errorId} role="alert" className="field-error ml-1">
          {wrong}
        </span>
      )}
    </>
  );
}

/** A whole number in a sentence. */
export function NumberBlank({
  label,
  value,
  least,
  most,
  onChange,
}: BlankProps & {
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly onChange: (value: number) => void;
}) {
  return (
    <ReadBlank
      label={label}
      shown={String(value)}
      width={2}
      inputMode="numeric"
      wrong={`from ${least} to ${most}`}
      read={(text) => {
        const number = /^\s*\d{1,5}\s*$/.test(text) ? Number(text) : Number.NaN;
        return number >= least && number <= most ? number : undefined;
      }}
      onChange={onChange}
    />
  );
}

/** A date in a sentence: "1 Feb 2027", "Mon 1 Feb", "2027-02-01". */
export function DateBlank({
  label,
  value,
  onChange,
}: BlankProps & { readonly value: CivilDay; readonly onChange: (value: CivilDay) => void }) {
  const today = useToday();
  return (
    <ReadBlank
      label={label}
      shown={sayDate(value)}
      width={11}
      wrong="write it like 1 Feb 2027"
      read={(text) => readDate(text, today) ?? undefined}
      onChange={onChange}
    />
  );
}

/** A time of day, or nothing: "08:00", "8", "830". */
export function TimeBlank({
  label,
  value,
  placeholder,
  onChange,
}: BlankProps & {
  readonly value: string | null;
  readonly placeholder: string;
  readonly onChange: (value: string | null) => void;
}) {
  return (
    <ReadBlank<string | null>
      label={label}
      shown={value ?? ''}
      width={Math.max(5, placeholder.length - 1)}
      placeholder={placeholder}
      wrong="write it like 08:30"
      read={readTime}
      onChange={onChange}
    />
  );
}

function readTime(text: string): string | null | undefined {
  const trimmed = text.trim();
  if (trimmed === '') return null;
  const match = /^(\d{1,2})(?::?(\d{2}))?$/.exec(trimmed);
  if (!match) return undefined;
  const time = `${String(match[1]).padStart(2, '0')}:${match[2] ?? '00'}`;
  return tryMinutesOfTime(time) === null ? undefined : time;
}

/** One of a few words, in a sentence. */
export function ChoiceBlank<T extends string | number>({
  label,
  value,
  options,
  onChange,
}: BlankProps & {
  readonly value: T;
  readonly options: readonly (readonly [value: T, words: string])[];
  readonly onChange: (value: T) => void;
}) {
  return (
    <select
      className="blank"
      aria-label={label}
      value={String(value)}
      onChange={({ target }) => {
        const chosen = options.find(([option]) => String(option) === target.value);
        if (chosen) onChange(chosen[0]);
      }}
    >
      {options.map(([option, words]) => (
        <option key={String(option)} value={String(option)}>
          {words}
        </option>
      ))}
    </select>
  );
}

/** A row of a form: its name, and the sentence with its blanks. */
export function Part({
  name,
  aside,
  children,
}: {
  readonly name: string;
  readonly aside?: ReactNode;
  readonly children: ReactNode;
}) {
  return (
    <section className="part">
      <h2>
        {name}
        {aside && <span>{aside}</span>}
      </h2>
      <div>{children}</div>
    </section>
  );
}
