import { type ComponentProps, type ReactNode, useEffect, useId, useState } from 'react';
import {
  type CivilDay,
  dayOfIso,
  isoOfDay,
  readDate,
  readDuration,
  readTimeOfDay,
  readTypedDate,
  sayDuration,
} from '../../core/index.ts';
import { useToday } from '../app/shell/workspace.tsx';
import { DayButton } from './day-button.tsx';
import { sayDate, sayTime } from './ways.ts';

interface BlankProps {
  /** What the blank is, for those who don't see the sentence around it. */
  readonly label: string;
}

/** Whether a value is taken at each keystroke, or only when the field is left or Enter is pressed. */
type WhenTaken = 'typing' | 'left';

/** A text in a sentence that is kept while typing and taken when it can be read. */
function ReadBlank<T>({
  label,
  shown,
  read,
  readLeft = read,
  onChange,
  wrong,
  refused,
  width,
  longest = 22,
  className = '',
  when = 'typing',
  ...input
}: BlankProps & {
  readonly shown: string;
  /** The value of a text, or undefined when it can't be read. */
  readonly read: (text: string) => T | undefined;
  /** The same once the field is left, where more can be told of what was meant. */
  readonly readLeft?: (text: string) => T | undefined;
  readonly onChange: (value: T) => void;
  /** What is wrong with a text that can't be read. */
  readonly wrong: string | ((text: string) => string);
  /** What whoever looks at the whole form has against a text that can be read. */
  readonly refused?: string | undefined;
  /** In characters: at least, and at most however much is typed. */
  readonly width: number;
  readonly longest?: number;
  readonly className?: string;
  readonly when?: WhenTaken;
} & Pick<ComponentProps<'input'>, 'inputMode' | 'placeholder' | 'disabled'>) {
  const [text, setText] = useState(shown);
  const [typing, setTyping] = useState(false);
  const errorId = useId();
  // What could not be read stays as it was typed until it is put right: the old value never slips back in its place.
  const [unread, setUnread] = useState(false);
  useEffect(() => {
    if (!typing && !unread) setText(shown);
  }, [shown, typing, unread]);
  const isUnread = (typing ? read(text) : readLeft(text)) === undefined;
  const isWrong = isUnread || refused !== undefined;
  const take = (typed: string, how: (text: string) => T | undefined) => {
    const value = how(typed);
    if (value !== undefined && typed !== shown) onChange(value);
    return value !== undefined;
  };
  const leave = () => {
    const isRead = take(text, readLeft);
    setUnread(!isRead);
    if (isRead) setText(shown);
  };
  return (
    <>
      <input
        {...input}
        className={`blank ${className}`}
        style={{ width: `calc(${Math.max(width, Math.min(text.length + 0.5, longest))}ch + 14px)`, maxWidth: '100%' }}
        aria-label={label}
        aria-invalid={isWrong}
        data-unread={isUnread || undefined}
        aria-describedby={isWrong ? errorId : undefined}
        value={text}
        onFocus={() => setTyping(true)}
        onBlur={() => {
          setTyping(false);
          leave();
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (when === 'left' || readLeft !== read)) {
            // What was taken is shown as soon as the form has it: until then the text stays as it was typed.
            setTyping(false);
            setUnread(!take(text, readLeft));
          }
          if (event.key === 'Escape' && isUnread) {
            event.stopPropagation();
            setText(shown);
            setUnread(false);
          }
        }}
        onChange={({ target }) => {
          setTyping(true);
          setText(target.value);
          if (when === 'typing') take(target.value, read);
        }}
      />
      {isWrong && (
        <span id={errorId} role="alert" className="field-error ml-1">
          {!isUnread ? refused : typeof wrong === 'string' ? wrong : wrong(text)}
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
  when = 'typing',
  onChange,
}: BlankProps & {
  readonly value: CivilDay;
  readonly when?: WhenTaken;
  readonly onChange: (value: CivilDay) => void;
}) {
  const today = useToday();
  return (
    <span className="inline-flex flex-wrap items-center [&>.field-error]:order-last [&>.field-error]:basis-full">
      <ReadBlank
        label={label}
        shown={sayDate(value)}
        width={11}
        wrong={(text) => sayUnread(text, value, today)}
        when={when}
        read={(text) => readDate(text, today) ?? undefined}
        readLeft={(text) => {
          const typed = readTypedDate(text, today);
          return typed.kind === 'day' ? typed.day : undefined;
        }}
        onChange={onChange}
      />
      <DayButton label={label} chosen={value} onChoose={onChange} />
    </span>
  );
}

/** Why a typed date is not taken, and what would be. */
function sayUnread(text: string, stays: CivilDay, today: CivilDay): string {
  const typed = readTypedDate(text, today);
  if (typed.kind === 'several')
    return `can be ${typed.days.map(sayDate).join(' or ')}: write which; it stays ${sayDate(stays)}`;
  return `is no date: write it like 1 Feb 2027; it stays ${sayDate(stays)}`;
}

/** A time of day, or nothing: "08:00", "8", "830". */
export function TimeBlank({
  label,
  value,
  placeholder,
  when = 'typing',
  onChange,
}: BlankProps & {
  readonly value: string | null;
  readonly placeholder: string;
  readonly when?: WhenTaken;
  readonly onChange: (value: string | null) => void;
}) {
  return (
    <ReadBlank<string | null>
      label={label}
      shown={value === null ? '' : sayTime(value)}
      width={Math.max(value === null ? 5 : sayTime(value).length, placeholder.length - 1)}
      placeholder={placeholder}
      wrong="write it like 08:30"
      when={when}
      read={readTime}
      onChange={onChange}
    />
  );
}

function readTime(text: string): string | null | undefined {
  return text.trim() === '' ? null : (readTimeOfDay(text) ?? undefined);
}

/** A text of several words in a sentence, read by the form it stands in. */
export function WordsBlank<T>({
  label,
  shown,
  read,
  onChange,
  wrong,
  placeholder = '',
  width = Math.max(6, placeholder.length),
  mono = false,
}: BlankProps & {
  readonly shown: string;
  readonly read: (text: string) => T | undefined;
  readonly onChange: (value: T) => void;
  readonly wrong: string;
  readonly placeholder?: string;
  /** In characters, at least. */
  readonly width?: number;
  readonly mono?: boolean;
}) {
  return (
    <ReadBlank
      label={label}
      shown={shown}
      read={read}
      onChange={onChange}
      wrong={wrong}
      placeholder={placeholder}
      width={width}
      longest={34}
      className={mono ? 'font-mono' : ''}
    />
  );
}

/** A date in a sentence, or nothing, as an ISO day. */
export function DayOrNone({
  label,
  value,
  placeholder,
  onChange,
}: BlankProps & {
  readonly value: string | null;
  readonly placeholder: string;
  readonly onChange: (value: string | null) => void;
}) {
  const today = useToday();
  return (
    <WordsBlank
      label={label}
      shown={value === null ? '' : sayDate(dayOfIso(value))}
      placeholder={placeholder}
      wrong="a date, like 1 Feb 2027"
      width={11}
      read={(text) => {
        if (text.trim() === '') return null;
        const day = readDate(text, today);
        return day === null ? undefined : isoOfDay(day);
      }}
      onChange={onChange}
    />
  );
}

/** A name or another few words in a sentence, taken as they are typed; what is wrong with them the form says. */
export function NameBlank({
  label,
  shown,
  placeholder = 'name',
  width,
  onChange,
}: BlankProps & {
  readonly shown: string;
  readonly placeholder?: string;
  readonly width?: number;
  readonly onChange: (text: string) => void;
}) {
  return (
    <WordsBlank
      label={label}
      shown={shown}
      placeholder={placeholder}
      {...(width === undefined ? {} : { width })}
      wrong=""
      read={(typed) => typed.trim()}
      onChange={onChange}
    />
  );
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

/** How long it takes: "45 min", "1 h 30"; a bare number is minutes. */
export function EstimateBlank({
  label = 'Estimate',
  minutes,
  message,
  onChange,
}: Partial<BlankProps> & {
  /** NaN while nothing is said yet. */
  readonly minutes: number;
  readonly message: string | undefined;
  readonly onChange: (minutes: number) => void;
}) {
  return (
    <ReadBlank
      label={label}
      shown={Number.isFinite(minutes) ? sayDuration(minutes) : ''}
      width={5}
      wrong="write it like 45 min or 1 h 30"
      refused={message}
      read={(text) => readDuration(text) ?? undefined}
      onChange={onChange}
    />
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
    <section className="grid grid-cols-[84px_minmax(0,1fr)] border-b border-line px-5 pt-[9px] pb-2.5 text-row leading-7 last:border-b-0">
      <h2 className="text-body leading-7 text-primary">
        {name}
        {aside && (
          <span className="block font-sans text-note leading-4 font-normal font-stretch-normal text-ink-2 normal-nums">
            {aside}
          </span>
        )}
      </h2>
      <div>{children}</div>
    </section>
  );
}
