import { type KeyboardEvent, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { MOST_CAPTURED } from '../../../../contract/index.ts';
import { type CapturedKind, type CivilDay, isoOfDay, readCapture } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { CAPTURE_DRAFT, CAPTURE_LOOK } from '../../../app/shell/openings.tsx';
import { sayDone } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ProblemError } from '../../../kit/api.ts';
import { useDraft } from '../../../kit/draft.ts';
import { sayDay } from '../../../kit/ways.ts';
import { useSubjects, useSubjectsSaid } from '../../clients/api.ts';
import { captureTask, keepCaptured } from '../deeds.ts';
import { CaptureFoot, DEFAULT_MINUTES, NamesOffered, Underlines, Understood } from './capture-parts.tsx';

/** Enter that came before the bar was loaded. */
export type Asked = 'add' | 'add and open' | null;

interface CaptureBarProps {
  readonly asked?: Asked;
  readonly onClose: () => void;
  /** The day on which the task would land; null once the bar is gone. */
  readonly onLands: (day: CivilDay | null) => void;
}

/** Null without a connection: then a line is read without the names of clients and assets, which stay in its words. */
function noneWithoutNet(error: unknown): null {
  if (error instanceof ProblemError && error.problem.status === 0) return null;
  throw error;
}

/** One line of plain words becomes a task; what was understood stands below while it is typed. */
export default function CaptureBar({ asked = null, onClose, onLands }: CaptureBarProps) {
  const { me, staff: people, today } = useWorkspace();
  const navigate = useNavigate();
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
  const hint = useHint();
  const on = read.on ?? today;
  const who = read.person ?? me;
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
      const names = await ofLine(text).catch(noneWithoutNet);
      const { title, about, ...said } = readCapture(text, today, { people, subjects: names ?? [] }, keep);
      if (title === '') return setProblem('Say what is to be done.');
      const done = `Added for ${sayDay(on, today)}: ${title}, ${who.name}.`;
      const work = {
        title,
        on: isoOfDay(on),
        dueOn: isoOfDay(on),
        startTime: said.startTime,
        dueTime: said.dueTime,
        assigneeId: who.id,
        clientId: about?.clientId ?? null,
        assetId: about?.assetId ?? null,
        estimateMinutes: said.estimateMinutes ?? DEFAULT_MINUTES,
      };
      const capture = { input: work, said: done };
      const made = names === null ? await keepCaptured(capture) : await captureTask(capture);
      const lacks = names === null ? ' Names of clients and assets in it stay words.' : '';
      if (made) sayDone(done, made.changeId);
      else sayDone(`Kept on this device: “${title}” is added when the connection is back.${lacks}`);
      setText('');
      setKeep(new Set());
      setProblem(null);
      const task = made?.tasks[0];
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
          {choices.length > 0 && <NamesOffered choices={choices} offered={offered} onAccept={accept} />}
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
      <Understood read={read} on={on} who={who} onBack={back} />
      <CaptureFoot
        keep={keep}
        problem={problem}
        offers={choices.length > 0}
        onReadAgain={(words) => setKeep(new Set([...keep].filter((other) => other !== words)))}
      />
    </section>
  );
}

/** An example with names that are here, so that it would be understood. */
function useHint(): string {
  const { me, staff } = useWorkspace();
  const [somebody] = staff.filter(({ id }) => id !== me.id);
  const something = useSubjects('').data?.subjects[0];
  return [
    'ring the insurer friday 10:00',
    something && `for ${something.name}`,
    somebody && `to ${somebody.name.split(' ')[0]}`,
    '20 min',
  ]
    .filter(Boolean)
    .join(' ');
}
