import { Undo2 } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Subject } from '../../../../contract/index.ts';
import { type Captured, type CapturedKind, type CivilDay, sayDuration, sayRoles } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { DateBlock } from '../../../kit/date-block.tsx';
import { Pennant } from '../../../kit/pennant.tsx';
import { sayTimes } from '../task-words.ts';

/** What is taken for a task where the line says nothing. */
export const DEFAULT_MINUTES = 15;

interface Somebody {
  readonly id: string;
  readonly name: string;
  readonly roles: readonly string[];
}
type Read = Captured<Somebody, Subject>;

interface NamesOfferedProps {
  readonly choices: NonNullable<Read['offer']>['choices'];
  readonly offered: number;
  readonly onAccept: (index: number) => void;
}

/** Names that begin as what is typed. */
export function NamesOffered({ choices, offered, onAccept }: NamesOfferedProps) {
  return (
    <div
      className="popover absolute left-0 top-[50px] min-w-[280px] py-1"
      role="listbox"
      aria-label="Names that begin so"
    >
      {choices.map((choice, i) => (
        <button
          key={choice.kind === 'who' ? choice.one.id : `${choice.one.clientId} ${choice.one.assetId}`}
          type="button"
          role="option"
          aria-selected={i === offered}
          className={`flex w-full cursor-pointer justify-between gap-4 px-3 py-1 text-left text-row ${i === offered ? 'bg-chosen shadow-[inset_3px_0_0_var(--color-accent)]' : ''}`}
          onClick={() => onAccept(i)}
        >
          {choice.one.name}
          <span className="text-note text-ink-2">
            {choice.kind === 'who' ? sayRoles(choice.one.roles) : detailOf(choice.one)}
          </span>
        </button>
      ))}
    </div>
  );
}

interface UnderstoodProps {
  readonly read: Read;
  readonly on: CivilDay;
  readonly who: Somebody;
  /** Puts what was understood as this back into the title. */
  readonly onBack: (kind: CapturedKind) => void;
}

/** What the line was read as; what it does not say is dim. */
export function Understood({ read, on, who, onBack }: UnderstoodProps) {
  const { me, today } = useWorkspace();
  const times = sayTimes({ startTime: read.startTime, dueTime: read.dueTime });
  const isSaid = (kind: CapturedKind) => read.parts.some((part) => part.kind === kind);
  return (
    <dl className="mt-2 flex flex-wrap gap-x-9 gap-y-1.5" aria-live="polite">
      <Part word="what">
        <Pennant state={on > today ? 'coming' : 'open'} label="" />
        <b className="ml-1.5 font-semibold">{read.title || '…'}</b>
      </Part>
      <Part word="when" isDefault={!isSaid('when')} onBack={isSaid('when') ? () => onBack('when') : null}>
        <DateBlock day={on} />{' '}
        {read.isBy && times === '' ? (
          <span className="ml-1.5">at the latest</span>
        ) : (
          <span className="ml-1.5">{times}</span>
        )}
      </Part>
      <Part word="who" isDefault={!isSaid('who')} onBack={isSaid('who') ? () => onBack('who') : null}>
        {who.name}{' '}
        <span className="text-ink-2">{who.id === me.id && !isSaid('who') ? 'yourself' : sayRoles(who.roles)}</span>
      </Part>
      {read.about && (
        <Part word="about" onBack={() => onBack('about')}>
          {read.about.name} <span className="text-ink-2">{detailOf(read.about)}</span>
        </Part>
      )}
      <Part
        word="estimate"
        isDefault={!isSaid('estimate')}
        onBack={isSaid('estimate') ? () => onBack('estimate') : null}
      >
        {sayDuration(read.estimateMinutes ?? DEFAULT_MINUTES)}
      </Part>
    </dl>
  );
}

interface CaptureFootProps {
  /** Words that look like more than words, and stay words. */
  readonly keep: ReadonlySet<string>;
  readonly problem: string | null;
  readonly offers: boolean;
  readonly onReadAgain: (words: string) => void;
}

export function CaptureFoot({ keep, problem, offers, onReadAgain }: CaptureFootProps) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-6 gap-y-1 border-t border-line pt-2 text-note leading-4.5 text-ink-2">
      {[...keep].map((words) => (
        <span key={words}>
          “{words}” stays in the title{' '}
          <button type="button" className="link-line" onClick={() => onReadAgain(words)}>
            read it again
          </button>
        </span>
      ))}
      <span id="capture-problem" role="alert" className="text-late">
        {problem}
      </span>
      <span className="ml-auto flex flex-wrap gap-x-5 max-[720px]:hidden">
        {offers && <Key name="Tab" words="take the name" />}
        <Key name="Enter" words="add" />
        <Key name="Ctrl Enter" words="add and open" />
        <Key name="Esc" words="close, the text is kept" />
      </span>
    </div>
  );
}

function detailOf({ detail, tag }: Subject): string {
  return [detail, tag].filter(Boolean).join(', ');
}

/** The same line behind the field, with the understood parts underlined: the words above them stay where they are. */
export function Underlines({
  text,
  parts,
  scrolled,
}: {
  readonly scrolled: number;
  readonly text: string;
  readonly parts: readonly { readonly at: number; readonly end: number }[];
}) {
  const pieces: ReactNode[] = [];
  let at = 0;
  for (const part of parts) {
    pieces.push(text.slice(at, part.at));
    pieces.push(
      <span key={part.at} className="border-b-2 border-petrol-2">
        {text.slice(part.at, part.end)}
      </span>,
    );
    at = part.end;
  }
  pieces.push(text.slice(at));
  return (
    <div
      aria-hidden
      className="pointer-events-none absolute inset-0 flex items-center overflow-hidden whitespace-pre border border-transparent px-3 text-[19px] leading-7 text-transparent max-[720px]:text-[17px]"
    >
      <span style={{ transform: `translateX(${-scrolled}px)` }} className="flex-none">
        {pieces}
      </span>
    </div>
  );
}

function Part({
  word,
  isDefault = false,
  onBack = null,
  children,
}: {
  readonly word: string;
  readonly isDefault?: boolean;
  readonly onBack?: (() => void) | null;
  readonly children: ReactNode;
}) {
  return (
    <div>
      <dt className="text-note leading-4.5 text-ink-2">
        {word}
        {onBack && (
          <button
            type="button"
            className="ml-1.5 cursor-pointer px-1 align-[-2px] text-primary hover:text-ink max-[720px]:p-2"
            aria-label={`Put ${word} back into the title`}
            title="Back into the title"
            onClick={onBack}
          >
            <Undo2 size={13} aria-hidden />
          </button>
        )}
      </dt>
      <dd className={`flex items-baseline gap-1 text-body leading-6 ${isDefault ? 'text-ink-2' : ''}`}>{children}</dd>
    </div>
  );
}

function Key({ name, words }: { readonly name: string; readonly words: string }) {
  return (
    <span>
      <kbd className="kbd">{name}</kbd> {words}
    </span>
  );
}
