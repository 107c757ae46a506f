import { Command } from 'cmdk';
import { ChevronDown } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { plainWords } from '../../core/index.ts';
import { useEnterWhenFound } from './enter-when-found.ts';
import { Popover } from './popover.tsx';

export interface PickerOption {
  readonly key: string;
  readonly name: string;
  readonly detail?: string;
  readonly group?: string;
  /** Found by these words as well. */
  readonly alsoBy?: readonly string[];
}

/** Looks in which the button says what it does, and not what is chosen. */
const BARE_LOOKS = {
  deed: 'deed',
  word: 'filter-word text-ink-2',
  button: 'btn h-[30px] min-h-[30px] max-[720px]:h-11',
} as const;

interface PickerProps {
  readonly label: string;
  readonly chosen: string;
  readonly options: readonly PickerOption[];
  readonly onChoose: (key: string) => void;
  /** Shown in the blank when nothing is chosen. */
  readonly placeholder?: string;
  readonly invalid?: boolean;
  /** A blank in a sentence; or a deed at the end of a line, a word in a page's head, a button: then what is chosen is not shown. */
  readonly look?: 'blank' | keyof typeof BARE_LOOKS;
  /** What is chosen is called, where it need not be among the options. */
  readonly chosenName?: string | undefined;
  /** For options that are looked up elsewhere: told what is typed, null once it is closed. */
  readonly onType?: (typed: string | null) => void;
  /** While they are looked up. */
  readonly isLooking?: boolean;
  /** Why they could not be. */
  readonly trouble?: string | undefined;
  /** Said below the options. */
  readonly below?: string | undefined;
}

/** An option with what it is found by, in plain words. */
interface Findable {
  readonly option: PickerOption;
  readonly name: string;
  readonly all: string;
}

const plain = (text: string) => plainWords(text).join(' ');

function findable(option: PickerOption): Findable {
  const name = plain(option.name);
  return { option, name, all: [name, ...[option.detail ?? '', ...(option.alsoBy ?? [])].map(plain)].join(' ') };
}

/** How well it fits what is typed: a name that begins so before one that has it, and that before scattered words. */
function fitOf(words: readonly string[], { name, all }: Findable): number {
  const asked = words.join(' ');
  if (name.startsWith(asked)) return 3;
  if (all.includes(asked)) return 2;
  return words.every((word) => all.includes(word)) ? 1 : 0;
}

/** Drawn at once of however many fit: what lies below them is found by typing. */
const SHOWN_AT_ONCE = 50;

/** Those that fit best, by what is read and not by the key that stands for it. */
function fitting(typed: string, options: readonly Findable[]) {
  const words = plainWords(typed);
  const ranked = options.map((one) => ({ option: one.option, fit: fitOf(words, one) })).filter(({ fit }) => fit > 0);
  if (words.length > 0) ranked.sort((a, b) => b.fit - a.fit);
  return {
    shown: ranked.slice(0, SHOWN_AT_ONCE).map(({ option }) => option),
    hidden: Math.max(0, ranked.length - SHOWN_AT_ONCE),
  };
}

/** One of many by name: a blank that opens a list to type into. */
export function Picker({
  label,
  chosen,
  options,
  onChoose,
  placeholder = 'choose',
  invalid = false,
  look = 'blank',
  chosenName,
  onType,
  isLooking = false,
  trouble,
  below,
}: PickerProps) {
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const current = chosenName ?? options.find(({ key }) => key === chosen)?.name;
  useEffect(() => onType?.(open ? '' : null), [open, onType]);
  const { list, isAwaited } = useEnterWhenFound(isLooking);
  const [typed, setTyped] = useState('');
  const all = useMemo(() => (open ? options.map(findable) : []), [open, options]);
  const { shown, hidden } = useMemo(() => fitting(typed, all), [typed, all]);
  const groups = [...new Set(shown.map(({ group }) => group ?? ''))];
  const close = () => {
    setOpen(false);
    setTyped('');
  };
  return (
    <span className="relative inline-block max-w-full">
      <button
        ref={button}
        type="button"
        className={look === 'blank' ? 'blank inline-flex items-center gap-1.5 align-middle' : BARE_LOOKS[look]}
        aria-haspopup="listbox"
        aria-expanded={open}
        aria-label={look === 'blank' ? `${label}: ${current ?? placeholder}` : label}
        aria-invalid={invalid}
        onClick={() => setOpen(!open)}
      >
        {look !== 'blank' ? (
          placeholder
        ) : (
          <>
            <span className={current ? 'truncate' : 'truncate text-ink-2'}>{current ?? placeholder}</span>
            <ChevronDown size={12} aria-hidden className="flex-none opacity-70" />
          </>
        )}
      </button>
      {open && (
        <Popover
          label={label}
          anchor={button}
          backTo={button}
          className="w-[340px] leading-5"
          isAwaited={isAwaited}
          onClose={close}
        >
          <Command label={label} shouldFilter={false} {...list}>
            <Command.Input
              autoFocus
              placeholder="type a name"
              aria-label={`${label}, search`}
              value={typed}
              onValueChange={(text) => {
                setTyped(text);
                onType?.(text);
              }}
            />
            <Command.List>
              <Command.Empty>{isLooking ? 'Looking …' : (trouble ?? 'Nobody and nothing of that name.')}</Command.Empty>
              {groups.map((group) => (
                <Command.Group key={group} heading={group || undefined}>
                  {shown
                    .filter((option) => (option.group ?? '') === group)
                    .map((option) => (
                      <Command.Item
                        key={option.key}
                        value={option.key}
                        onSelect={() => {
                          onChoose(option.key);
                          close();
                          // Whoever has gone on elsewhere meanwhile stays there.
                          if (list.ref.current?.contains(document.activeElement)) button.current?.focus();
                        }}
                      >
                        <span className={option.key === chosen ? 'font-semibold' : ''}>{option.name}</span>
                        <span className="text-note text-ink-2">{option.detail}</span>
                      </Command.Item>
                    ))}
                </Command.Group>
              ))}
              {hidden > 0 && <p className="px-3 py-1.5 text-note text-ink-2">and {hidden} more: type to find them</p>}
              {below && <p className="px-3 py-1.5 text-note text-ink-2">{below}</p>}
            </Command.List>
          </Command>
        </Popover>
      )}
    </span>
  );
}
