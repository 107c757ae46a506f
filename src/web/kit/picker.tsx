import { Command } from 'cmdk';
import { ChevronDown } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
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

interface PickerProps {
  readonly label: string;
  readonly chosen: string;
  readonly options: readonly PickerOption[];
  readonly onChoose: (key: string) => void;
  /** Shown in the blank when nothing is chosen. */
  readonly placeholder?: string;
  readonly invalid?: boolean;
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

/** How well an option fits what is typed: a name that begins so before one that has it, and that before scattered words. */
function fitOf(typed: string, [name = '', ...others]: readonly string[]): number {
  const words = plainWords(typed);
  const asked = words.join(' ');
  const own = plainWords(name).join(' ');
  const all = [own, ...others.map((text) => plainWords(text).join(' '))].join(' ');
  if (own.startsWith(asked)) return 1;
  if (all.includes(asked)) return 0.8;
  return words.every((word) => all.includes(word)) ? 0.5 : 0;
}

/** One of many by name: a blank that opens a list to type into. */
export function Picker({
  label,
  chosen,
  options,
  onChoose,
  placeholder = 'choose',
  invalid = false,
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
  const whenFound = useEnterWhenFound(isLooking);
  const groups = [...new Set(options.map(({ group }) => group ?? ''))];
  return (
    <span className="relative inline-block max-w-full">
      <button
        ref={button}
        type="button"
        className="blank inline-flex items-center gap-1.5 align-middle"
        aria-haspopup="listbox"
        aria-expanded={open}
        aria-label={`${label}: ${current ?? placeholder}`}
        aria-invalid={invalid}
        onClick={() => setOpen(!open)}
      >
        <span className={current ? 'truncate' : 'truncate text-ink-2'}>{current ?? placeholder}</span>
        <ChevronDown size={12} aria-hidden className="flex-none opacity-70" />
      </button>
      {open && (
        <Popover
          label={label}
          anchor={button}
          backTo={button}
          className="w-[340px] leading-5"
          onClose={() => setOpen(false)}
        >
          <Command
            label={label}
            // By what is read, not by the key that stands for it.
            filter={(_, search, words = []) => fitOf(search, words)}
            {...whenFound}
          >
            <Command.Input
              autoFocus
              placeholder="type a name"
              aria-label={`${label}, search`}
              {...(onType ? { onValueChange: onType } : {})}
            />
            <Command.List>
              <Command.Empty>{isLooking ? 'Looking …' : (trouble ?? 'Nobody and nothing of that name.')}</Command.Empty>
              {groups.map((group) => (
                <Command.Group key={group} heading={group || undefined}>
                  {options
                    .filter((option) => (option.group ?? '') === group)
                    .map((option) => (
                      <Command.Item
                        key={option.key}
                        value={option.key}
                        keywords={[option.name, option.detail ?? '', ...(option.alsoBy ?? [])]}
                        onSelect={() => {
                          onChoose(option.key);
                          setOpen(false);
                          button.current?.focus();
                        }}
                      >
                        <span className={option.key === chosen ? 'font-semibold' : ''}>{option.name}</span>
                        <span className="text-note text-ink-2">{option.detail}</span>
                      </Command.Item>
                    ))}
                </Command.Group>
              ))}
              {below && <p className="px-3 py-1.5 text-note text-ink-2">{below}</p>}
            </Command.List>
          </Command>
        </Popover>
      )}
    </span>
  );
}
