import { Undo2 } from 'lucide-react';
import { type KeyboardEvent, type ReactNode, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { MOST_CAPTURED, type Subject } from '../../../../contract/index.ts';
import {
  type CapturedKind,
  type CivilDay,
  isoOfDay,
  readCapture,
  sayDay,
  sayDuration,
} from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { CAPTURE_DRAFT, CAPTURE_LOOK } from '../../../app/shell/openings.tsx';
import { sayDone } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ProblemError } from '../../../kit/api.ts';
import { DateBlock } from '../../../kit/date-block.tsx';
import { useDraft } from '../../../kit/draft.ts';
import { Pennant } from '../../../kit/pennant.tsx';
import { useSubjects, useSubjectsSaid } from '../../clients/api.ts';
import { useHandMade } from '../api.ts';
import { sayTimes } from '../task-words.ts';

/** Enter that came before the bar was loaded. */
export type Asked = 'add' | 'add and open' | null;

interface CaptureBarProps {
  readonly asked?: Asked;
  readonly onClose: () => void;
  /** The day on which the task would land; null once the bar is gone. */
  readonly onLands: (day: CivilDay | null) => void;
}

const DEFAULT_MINUTES = 15;

/** One line of plain words becomes a task; what was understood stands below while it is typed. */
export default function CaptureBar({ asked = null, onClose, onLands }: CaptureBarProps) {
  const { me, people, today } = useWorkspace();
  const navigate = useNavigate();
  const { capture } = useHandMade();
  const { draft: text, change: setText } = useDraft(...CAPTURE_DRAFT);
  const [keep, setKeep] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  const [offered, setOffered] = useState(0);
  const [busy, setBusy] = useState(false);
  // A line longer than the field moves under it, and the marks with it.
  const [scrolled, setScrolled] = useState(0);
  const input = useRef<HTMLInputElement>(null);
  const { known: subjects, ofLine } = useSubjectsSaid(text);
  const read = useMemo(
    () => readCapture(text, today, { people, subjects }, keep),
    [text, today, people, subjects, keep],
  );
  // With names that are here, so that the example would be understood.
  const [somebody] = people.filter(({ id }) => id !== me.id);
  const something = useSubjects('').data?.subjects[0];
  const hint = [
    'ring the insurer friday 10:00',
    something && `for ${something.name}`,
    somebody && `to ${somebody.name.split(' ')[0]}`,
    '20 min',
  ]
    .filter(Boolean)
    .join(' ');
  const on = read.on ?? today;
  const who = read.person ?? me;
  const minutes = read.estimateMinutes ?? DEFAULT_MINUTES;
  const choices = read.offer?.choices ?? [];

  useEffect(() => onLands(text.trim() === '' ? null : on), [onLands, on, text]);
  useEffect(() => () => onLands(null), [onLands]);
  // Before the next key comes: what was typed until here went into the field that stood in its place.
  useLayoutEffect(() => input.current?.focus(), []);
  useKeys([{ key: 'Escape', says: 'Close what is open', run: onClose }]);

  const accept = (index: number) => {
    const choice = choices[index];
    if (!choice || !read.offer) return;
    setText(`${text.slice(0, read.offer.at)}${choice.one.name} `);
    setOffered(0);
    input.current?.focus();
  };
  const add = async (andOpen: boolean) => {
    if (read.title === '' || busy) return setProblem(read.title === '' ? 'Say what is to be done.' : null);
    setBusy(true);
    try {
      // Whoever types fast is ahead of the names: the line is read with those it really says.
      const { title, about, ...said } = readCapture(text, today, { people, subjects: await ofLine(text) }, keep);
      if (title === '') return setProblem('Say what is to be done.');
      const made = await capture({
        title,
        on: isoOfDay(on),
        dueOn: isoOfDay(on),
        startTime: said.startTime,
        dueTime: said.dueTime,
        assigneeId: who.id,
        clientId: about?.clientId ?? null,
        assetId: about?.assetId ?? null,
        estimateMinutes: said.estimateMinutes ?? DEFAULT_MINUTES,
      });
      sayDone(`Added for ${sayDay(on, today)}: ${title}, ${who.name}.`, made.changeId);
      setText('');
      setKeep(new Set());
      setProblem(null);
      const [task] = made.tasks;
      if (andOpen && task) {
        onClose();
        void navigate(`/day-sheet/${who.id}/task/${task.id}${on === today ? '' : `?date=${isoOfDay(on)}`}`);
      } else input.current?.focus();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.message);
    } finally {
      setBusy(false);
    }
  };
  const left = useRef(asked);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, with the line as it was left
  useEffect(() => {
    const how = left.current;
    left.current = null;
    if (how) void add(how === 'add and open');
  }, []);
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      void add(event.ctrlKey || event.metaKey);
    } else if (choices.length > 0 && event.key === 'Tab' && !event.shiftKey) {
      event.preventDefault();
      accept(offered);
    } else if (choices.length > 0 && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      event.preventDefault();
      setOffered((offered + (event.key === 'ArrowDown' ? 1 : choices.length - 1)) % choices.length);
    }
  };
  const back = (kind: CapturedKind) =>
    setKeep(new Set([...keep, ...read.parts.filter((part) => part.kind === kind).map((part) => part.text)]));
  const times = sayTimes({ startTime: read.startTime, dueTime: read.dueTime });
  const isSaid = (kind: CapturedKind) => read.parts.some((part) => part.kind === kind);
  return (
    <section className={CAPTURE_LOOK.bar} aria-label="Capture">
      <div className="flex gap-5 max-[720px]:flex-col max-[720px]:gap-2">
        <div className="relative min-w-0 flex-1">
          <Underlines text={text} parts={read.parts} scrolled={scrolled} />
          <input
            ref={input}
            className={CAPTURE_LOOK.field}
            aria-label="What is to be done, when, to whom, for what"
            aria-describedby="capture-problem"
            placeholder={hint}
            autoComplete="off"
            maxLength={MOST_CAPTURED}
            value={text}
            onChange={({ target }) => {
              setText(target.value);
              setProblem(null);
              setOffered(0);
            }}
            onScroll={({ currentTarget }) => setScrolled(currentTarget.scrollLeft)}
            onKeyDown={onKeyDown}
          />
          {choices.length > 0 && (
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
                  onClick={() => accept(i)}
                >
                  {choice.one.name}
                  <span className="text-note text-ink-2">
                    {choice.kind === 'who' ? choice.one.role : detailOf(choice.one)}
                  </span>
                </button>
              ))}
            </div>
          )}
        </div>
        <button
          type="button"
          className="btn btn-primary h-12 px-5 text-touch"
          aria-disabled={read.title === ''}
          onClick={() => void add(false)}
        >
          Add for {sayDay(on, today)}
        </button>
      </div>
      <dl className="mt-2 flex flex-wrap gap-x-9 gap-y-1.5" aria-live="polite">
        <Part word="what">
          <Pennant state={on > today ? 'coming' : 'open'} label="" />
          <b className="ml-1.5 font-semibold">{read.title || '…'}</b>
        </Part>
        <Part word="when" isDefault={!isSaid('when')} onBack={isSaid('when') ? () => back('when') : null}>
          <DateBlock day={on} />{' '}
          {read.isBy && times === '' ? (
            <span className="ml-1.5">at the latest</span>
          ) : (
            <span className="ml-1.5">{times}</span>
          )}
        </Part>
        <Part word="who" isDefault={!isSaid('who')} onBack={isSaid('who') ? () => back('who') : null}>
          {who.name} <span className="text-ink-2">{who.id === me.id && !isSaid('who') ? 'yourself' : who.role}</span>
        </Part>
        {read.about && (
          <Part word="about" onBack={() => back('about')}>
            {read.about.name} <span className="text-ink-2">{detailOf(read.about)}</span>
          </Part>
        )}
        <Part
          word="estimate"
          isDefault={!isSaid('estimate')}
          onBack={isSaid('estimate') ? () => back('estimate') : null}
        >
          {sayDuration(minutes)}
        </Part>
      </dl>
      <div className="mt-2 flex flex-wrap items-center gap-x-6 gap-y-1 border-t border-line pt-2 text-note leading-4.5 text-ink-2">
        {[...keep].map((words) => (
          <span key={words}>
            “{words}” stays in the title{' '}
            <button
              type="button"
              className="link-line"
              onClick={() => setKeep(new Set([...keep].filter((other) => other !== words)))}
            >
              read it again
            </button>
          </span>
        ))}
        <span id="capture-problem" role="alert" className="text-late">
          {problem}
        </span>
        <span className="ml-auto flex flex-wrap gap-x-5 max-[720px]:hidden">
          {choices.length > 0 && <Key name="Tab" words="take the name" />}
          <Key name="Enter" words="add" />
          <Key name="Ctrl Enter" words="add and open" />
          <Key name="Esc" words="close, the text is kept" />
        </span>
      </div>
    </section>
  );
}

function detailOf({ detail, tag }: Subject): string {
  return [detail, tag].filter(Boolean).join(', ');
}

/** The same line behind the field, with the understood parts underlined: the words above them stay where they are. */
function Underlines({
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
