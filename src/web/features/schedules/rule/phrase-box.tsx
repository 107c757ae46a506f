import { useEffect, useId, useMemo, useRef, useState } from 'react';
import {
  isoOfDay,
  type PhraseChoice,
  type PhraseHabits,
  type PhraseProblem,
  type PhraseTimes,
  type Recurrence,
  readPhrase,
  tryPhrase,
  writePhrase,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { HabitLine } from './habit-line.tsx';
import { choiceOf, PhraseChoices, sayTimes } from './phrase-choices.tsx';

interface PhraseBoxProps {
  readonly recurrence: Recurrence;
  /** @param times of day that the phrase says beside its days */
  readonly onChange: (recurrence: Recurrence, times: PhraseTimes | null) => void;
}

/** A phrase is often unreadable on the way: what is wrong is said when typing rests this long. */
const REST_MS = 500;

/**
 * The rule said in words. What is typed is taken as soon as it can be read; the text itself stays as typed until the field is
 * left, and what can't be read stays, with its fault shown, until it can or the controls below say otherwise.
 */
export function PhraseBox({ recurrence, onChange }: PhraseBoxProps) {
  const { today, yearStarts, phraseHabits: habits, seasons } = useWorkspace();
  const write = (one: Recurrence) => writePhrase(one, { start: 'unsaid', yearStarts });
  const written = write(recurrence);
  const [text, setText] = useState(written);
  const problemId = useId();
  const box = useRef<HTMLTextAreaElement>(null);
  const options = { start: recurrence.start, today: isoOfDay(today), yearStarts, habits, seasons };
  const said = tryPhrase(text, options);
  const isRead = said !== null;
  const isInStep = useRef(true);
  isInStep.current = said !== null && write(said.recurrence) === written;
  // Another rule, and not by what stands here: the controls below have changed it.
  useEffect(() => {
    if (!isInStep.current) setText(written);
  }, [written]);

  // Times of day have their own place; that they went there is said until something else is typed.
  const [taken, setTaken] = useState<PhraseTimes | null>(null);
  const [isResting, setResting] = useState(true);
  const rest = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(rest.current), []);
  // What can be read in several ways is asked at once; what can't be, when typing rests.
  const reading = useMemo(
    () =>
      isRead
        ? null
        : readPhrase(text, { start: recurrence.start, today: isoOfDay(today), yearStarts, habits, seasons }),
    [isRead, text, recurrence.start, today, yearStarts, habits, seasons],
  );
  const problem = isResting && reading?.kind === 'unread' ? reading.problem : null;
  const question = reading?.kind === 'choose' ? reading : null;
  const choices = question?.choices ?? [];
  const list = useRef<HTMLDivElement>(null);

  const take = (typed: string) => {
    setText(typed);
    setResting(false);
    clearTimeout(rest.current);
    rest.current = setTimeout(() => setResting(true), REST_MS);
    setSettling({});
    const next = tryPhrase(typed, options);
    setTaken(next?.times ?? null);
    if (next) onChange(next.recurrence, next.times);
  };
  const [settling, setSettling] = useState<PhraseHabits>({});
  const choose = ({ phrase, recurrence: chosen, times, habits: ofChoice }: PhraseChoice) => {
    setSettling(ofChoice);
    setText(phrase);
    setResting(true);
    setTaken(times);
    onChange(chosen, times);
    box.current?.focus();
  };
  return (
    <div className="mb-2">
      <textarea
        ref={box}
        className="block field-sizing-content min-h-[42px] w-full resize-none rounded-field border border-b-2 border-primary bg-base-100 px-2.5 py-[7px] text-touch leading-6 text-ink placeholder:text-ink-2 aria-[invalid=true]:border-late"
        aria-label="When, in words"
        aria-invalid={problem !== null}
        data-unread={!isRead || undefined}
        aria-describedby={problem || choices.length > 0 ? problemId : undefined}
        rows={1}
        spellCheck={false}
        placeholder="last working day of every quarter"
        value={text}
        onBlur={() => {
          setResting(true);
          // What can't be read is not thrown away; what can is shown as it is written.
          if (isRead) setText(written);
        }}
        onKeyDown={(event) => {
          const chosen = event.altKey ? choiceOf(event, choices) : undefined;
          if (chosen) {
            event.preventDefault();
            return choose(chosen);
          }
          if (choices.length > 0 && (event.key === 'Enter' || event.key === 'ArrowDown')) {
            event.preventDefault();
            return list.current?.querySelector<HTMLElement>('[data-choice]')?.focus();
          }
          if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
            event.preventDefault();
            setResting(true);
            if (isRead) setText(written);
          }
        }}
        onChange={({ target }) => take(target.value.replace(/\s*\n\s*/g, ' '))}
      />
      {taken && (
        <p role="status" className="mt-1 text-note leading-5">
          Taken over into “Each time”: <b className="font-semibold">{sayTimes(taken)}</b>.
        </p>
      )}
      <HabitLine habits={settling} onDone={() => setSettling({})} />
      {question && (
        <div ref={list}>
          <PhraseChoices id={problemId} question={question} onChoose={choose} />
        </div>
      )}
      {problem && (
        <Fault id={problemId} text={text} problem={problem} onSuggestion={take} onPutBack={() => setText(written)} />
      )}
    </div>
  );
}

interface FaultProps {
  readonly id: string;
  readonly text: string;
  readonly problem: PhraseProblem;
  readonly onSuggestion: (text: string) => void;
  readonly onPutBack: () => void;
}

/** Characters shown before the fault. */
const LEAD = 26;

/** What could not be read, with the place marked, and what may have been meant. */
function Fault({ id, text, problem, onSuggestion, onPutBack }: FaultProps) {
  const { at, length, message, suggestion } = problem;
  const from = at > LEAD ? text.indexOf(' ', at - LEAD) + 1 : 0;
  return (
    <div className="mt-1 text-note leading-5" role="status">
      {text.trim() !== '' && (
        <p aria-hidden className="truncate text-ink-2">
          {from > 0 && '… '}
          {text.slice(from, at)}
          <span className="text-late underline decoration-late decoration-wavy decoration-1 underline-offset-3">
            {text.slice(at, at + length) || '\u2003'}
          </span>
          {text.slice(at + length)}
        </p>
      )}
      <p id={id}>{message}</p>
      <p>
        {suggestion && (
          <>
            Did you mean{' '}
            <button
              type="button"
              className="link-line"
              title={suggestion}
              aria-label={`Did you mean ${suggestion}?`}
              onClick={() => onSuggestion(suggestion)}
            >
              {excerpt(suggestion, at)}
            </button>
            ?{' '}
          </>
        )}
        <span className="text-ink-2">The dates stay as they were until this is read. </span>
        <button type="button" className="link-line" onClick={onPutBack}>
          Put the phrase back
        </button>
      </p>
    </div>
  );
}

/** A phrase around the place that was put right: short enough for one line. */
function excerpt(phrase: string, at: number): string {
  if (phrase.length <= 36) return phrase;
  const from = at > 12 ? phrase.lastIndexOf(' ', at - 4) + 1 : 0;
  const rest = phrase.slice(from);
  const end = rest.length <= 32 ? rest : `${rest.slice(0, rest.lastIndexOf(' ', 30))} …`;
  return from > 0 ? `… ${end}` : end;
}
