import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import type { Step, Task } from '../../contract/index.ts';
import { dayOfIso, plural, sayDate, sayDay, sayDuration, sayLate, sayNear } from '../../core/index.ts';
import { undo } from '../shell/toast.tsx';
import { useToday } from '../shell/workspace.tsx';
import { Pennant, stateWords } from '../ui/pennant.tsx';
import { PennantString } from '../ui/pennant-string.tsx';
import { CloseButton, SideSheet } from '../ui/side-sheet.tsx';
import { Skeleton, Trouble } from '../ui/states.tsx';
import { Tag } from '../ui/tag.tsx';
import { useTask, useTaskActions } from './api.ts';
import { sayTimes, timeOf } from './task-words.ts';

/** A task beside the list it was chosen from: how it is done, what is done, what came before and what comes next. */
export default function TaskSheet() {
  const { taskId = '' } = useParams();
  const { data, error, mutate } = useTask(taskId);
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  const close = () => void navigate(pathname.replace(/\/task\/.*$/, '') + search);
  const task = data?.id === taskId ? data : undefined;
  return (
    <SideSheet key={taskId} label={task?.title ?? 'Task'} onClose={close}>
      {error && !task && (
        <>
          <div className="flex justify-end px-5 pt-3">
            <CloseButton onClose={close} />
          </div>
          <Trouble error={error} retry={() => void mutate()} />
        </>
      )}
      {!error && !task && <Skeleton rows={9} />}
      {task && (
        <Contents
          task={task}
          onClose={close}
          address={(id) => pathname.replace(/\/task\/.*$/, `/task/${id}`) + search}
        />
      )}
    </SideSheet>
  );
}

interface ContentsProps {
  readonly task: Task;
  readonly onClose: () => void;
  /** The address of another task of the series in the same place. */
  readonly address: (taskId: string) => string;
}

function Contents({ task, onClose, address }: ContentsProps) {
  const today = useToday();
  return (
    <>
      <div className="section !pt-3">
        <div className="flex items-center gap-2 text-[14px]">
          <Pennant state={task.state} late={task.late} size={20} />
          <span className={task.late && task.state !== 'done' ? 'text-late' : ''}>{sayState(task, today)}</span>
          <span className="ml-auto" />
          <Tag category={task.category} />
          <CloseButton onClose={onClose} />
        </div>
        <h2 className="mt-1 text-[22px] leading-[26px]">{task.title}</h2>
        <Facts task={task} />
      </div>
      {task.instructions && (
        <div className="section text-[14px] leading-[19px]">
          <h3>Instructions</h3>
          <Instructions text={task.instructions} />
        </div>
      )}
      {task.steps.length > 0 && (
        <div className="section !pb-1">
          <h3>
            Steps
            <span>
              {task.stepsDone} of {task.stepsTotal}
            </span>
          </h3>
          <Steps task={task} />
        </div>
      )}
      <div className="section">
        <h3>Note</h3>
        <Note task={task} />
      </div>
      <Series task={task} address={address} />
      <Foot task={task} address={address} />
    </>
  );
}

function sayState(task: Task, today: number): string {
  if (task.state === 'done')
    return `Done ${task.doneAt ? sayMoment(task.doneAt, today) : ''}${task.doneBy ? ` by ${task.doneBy}` : ''}`;
  const words = stateWords(task.state, false);
  const late = task.late ? `, ${sayLate({ state: task.state, late: true, daysLate: task.daysLate })}` : '';
  return task.state === 'underWay' && task.startedAt
    ? `Under way since ${sayMoment(task.startedAt, today)}${late}`
    : words + late;
}

function sayMoment(moment: string, today: number): string {
  const day = dayOfIso(moment.slice(0, 10));
  return day === today ? timeOf(moment) : `${sayNear(day, today)}, ${timeOf(moment)}`;
}

function Facts({ task }: { readonly task: Task }) {
  const today = useToday();
  const facts: [string, ReactNode][] = [
    ['where', task.asset?.name],
    ['for', task.client?.name],
    ['due', [sayNear(dayOfIso(task.dueOn), today), sayTimes(task)].filter(Boolean).join(', ')],
    ['estimate', sayDuration(task.estimateMinutes)],
    ['who', task.assignee?.name ?? 'nobody yet'],
  ];
  return (
    <dl className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-[14px] leading-[18px]">
      {facts.map(
        ([name, value]) =>
          value && (
            <div key={name}>
              <dt className="text-[13px] leading-4 text-ink-2">{name}</dt>
              <dd>{value}</dd>
            </div>
          ),
      )}
    </dl>
  );
}

const SHOWN_AT_FIRST = 260;

function Instructions({ text }: { readonly text: string }) {
  const [all, setAll] = useState(text.length <= SHOWN_AT_FIRST);
  return (
    <p className="mt-1 whitespace-pre-line">
      {all ? text : `${text.slice(0, text.lastIndexOf(' ', SHOWN_AT_FIRST))} … `}
      {!all && (
        <button type="button" className="link-line" onClick={() => setAll(true)}>
          Read all
        </button>
      )}
    </p>
  );
}

function Steps({ task }: { readonly task: Task }) {
  const { tick } = useTaskActions();
  const isFixed = !task.mayWork || task.state === 'done' || task.state === 'skipped' || task.state === 'lapsed';
  return (
    <ul className="mt-0.5">
      {task.steps.map((step) => (
        <li key={step.key} className="border-b border-line last:border-0">
          <label
            className={`grid min-h-[30px] grid-cols-[24px_1fr_auto] items-center text-[14px] leading-[18px] max-[720px]:min-h-[50px] max-[720px]:grid-cols-[34px_1fr_auto] max-[720px]:text-[16px] ${step.tickedAt ? 'text-ink-2' : ''} ${isFixed ? '' : 'cursor-pointer'}`}
          >
            <input
              type="checkbox"
              className="check max-[720px]:!h-[22px] max-[720px]:!w-[22px]"
              checked={step.tickedAt !== null}
              disabled={isFixed}
              onChange={({ target }) => void tick(task, step.key, target.checked)}
            />
            <span className="py-1">{step.text}</span>
            <span className="pl-3 text-[13px] text-ink-2">{tickWords(step)}</span>
          </label>
        </li>
      ))}
    </ul>
  );
}

function tickWords({ tickedAt }: Step): string {
  return tickedAt === null || tickedAt.startsWith('0000') ? '' : timeOf(tickedAt);
}

/** Kept while typing pauses, when the field is left, and when the sheet is closed. */
const NOTE_PAUSE_MS = 1200;

function useKeptNote(task: Task) {
  const { note: save } = useTaskActions();
  const [text, setText] = useState(task.note);
  const [state, setState] = useState<'still' | 'changed' | 'kept' | 'refused'>('still');
  const typed = useRef(task.note);
  const saved = useRef(task.note);
  const pause = useRef<ReturnType<typeof setTimeout>>(undefined);

  const keep = async () => {
    clearTimeout(pause.current);
    const [note, was] = [typed.current, saved.current];
    if (note === was) return;
    saved.current = note;
    const done = await save(task.id, note, was);
    if (!done) saved.current = was;
    // What was typed while it was on its way is kept by the next pause.
    if (typed.current === note) setState(done ? 'kept' : 'refused');
  };
  const latest = useRef(keep);
  latest.current = keep;
  useEffect(() => () => void latest.current(), []);
  useEffect(() => {
    // Another's words come in only while none of one's own are waiting.
    if (typed.current !== saved.current || task.note === saved.current) return;
    typed.current = task.note;
    saved.current = task.note;
    setText(task.note);
  }, [task.note]);
  return {
    text,
    state,
    keep: () => void keep(),
    type: (next: string) => {
      typed.current = next;
      setText(next);
      setState('changed');
      clearTimeout(pause.current);
      pause.current = setTimeout(() => void latest.current(), NOTE_PAUSE_MS);
    },
  };
}

function Note({ task }: { readonly task: Task }) {
  const { text, state, keep, type } = useKeptNote(task);
  if (!task.mayWork) return <p className="mt-1 text-[14px] text-ink-2">{task.note || 'No note.'}</p>;
  return (
    <>
      <textarea
        className="mt-1.5 block w-full resize-y rounded-t-[4px] border-0 border-b-2 border-primary bg-field px-2.5 py-1.5 text-[14px] leading-[19px] max-[720px]:text-[16px]"
        style={{ fieldSizing: 'content', minHeight: 44 } as React.CSSProperties}
        aria-label="Note"
        placeholder="What the next one should know"
        maxLength={5000}
        value={text}
        onChange={({ target }) => type(target.value)}
        onBlur={keep}
      />
      <p className="mt-1 h-4 text-[13px] leading-4 text-ink-2" aria-live="polite">
        {{ still: '', changed: 'not kept yet', kept: 'kept', refused: 'not kept' }[state]}
      </p>
    </>
  );
}

function Series({ task, address }: Pick<ContentsProps, 'task' | 'address'>) {
  const today = useToday();
  const { series, schedule } = task;
  if (!schedule) return null;
  return (
    <div className="section !border-b-0">
      <h3>
        Earlier ones
        <span>
          {series.since
            ? `${plural(series.count, 'time')} since ${sayDate(dayOfIso(series.since)).replace(/^\d+ /, '')}`
            : 'this is the first'}
        </span>
      </h3>
      {series.lastEight.length > 1 && (
        <div className="mt-1.5 flex items-end gap-3">
          <PennantString tasks={series.lastEight} to={address} />
          <span className="text-[13px] leading-4 text-ink-2">up to this one</span>
        </div>
      )}
      {series.notes.map((note) => (
        <p key={note.taskId} className="mt-2 border-l-2 border-line-2 pl-2.5 text-[14px] leading-[19px]">
          {note.by ? `${note.by}, ` : ''}
          <Link className="link-line" to={address(note.taskId)}>
            {sayDay(dayOfIso(note.on), today)}
          </Link>
          : “{note.note}”
        </p>
      ))}
      <p className="mt-2.5 text-[13px] leading-[17px] text-ink-2">
        Made from{' '}
        <Link className="link-line text-ink" to={`/templates/${task.template.id}`}>
          {task.template.name}
        </Link>
        , on the schedule{' '}
        <Link className="link-line text-ink" to={`/schedules/${schedule.id}`}>
          {schedule.phrase}
        </Link>
        {schedule.nominalOn === task.on ? '.' : `; moved here from ${sayDay(dayOfIso(schedule.nominalOn), today)}.`}
      </p>
    </div>
  );
}

function Foot({ task, address }: Pick<ContentsProps, 'task' | 'address'>) {
  const today = useToday();
  const { start, finish, claim } = useTaskActions();
  const missing = task.stepsTotal - task.stepsDone;
  const ended = task.state === 'done' || task.state === 'skipped' || task.state === 'lapsed';
  const { next } = task.series;
  return (
    <div className="foot">
      {!ended && task.mayWork && (
        <div className="flex items-center gap-3">
          {task.state !== 'underWay' && (
            <button
              type="button"
              className={`btn ${missing > 0 ? 'btn-primary' : ''}`}
              onClick={() => void start(task.id)}
            >
              Start
            </button>
          )}
          <button
            type="button"
            className={`btn ${missing > 0 ? '' : 'btn-primary'}`}
            aria-disabled={missing > 0}
            aria-describedby="still-missing"
            onClick={() => {
              if (missing === 0) void finish(task.id);
            }}
          >
            Finish
          </button>
          <span id="still-missing" className="text-[13px] leading-4">
            {missing > 0 && (
              <>
                Still missing: {plural(missing, 'step')}
                {missing <= 2 &&
                  `, ${task.steps
                    .filter(({ tickedAt }) => tickedAt === null)
                    .map(({ text }) => text)
                    .join(' and ')}`}
              </>
            )}
          </span>
        </div>
      )}
      {!ended && !task.mayWork && (
        <div className="flex items-center gap-3 text-[14px]">
          {task.assignee === null ? (
            <button type="button" className="btn btn-primary" onClick={() => void claim(task.id)}>
              Claim
            </button>
          ) : (
            <span className="text-ink-2">{task.assignee.name} has this one.</span>
          )}
        </div>
      )}
      {task.finishedBy !== null && task.mayWork && (
        <button type="button" className="btn mb-2" onClick={() => task.finishedBy && undo(task.finishedBy)}>
          Undo the finish
        </button>
      )}
      {next && (
        <p className={`flex items-center gap-1.5 text-[13px] leading-4 text-ink-2 ${ended ? '' : 'mt-2'}`}>
          <Pennant state={next.taskId ? 'coming' : 'bare'} />
          <span>
            Next one:{' '}
            {next.taskId ? (
              <Link className="link-line text-ink" to={address(next.taskId)}>
                {sayDay(dayOfIso(next.on), today)}
              </Link>
            ) : (
              sayDay(dayOfIso(next.on), today)
            )}
            , {next.who ?? 'nobody yet'}
          </span>
        </p>
      )}
      {!next && task.schedule && (
        <p className="mt-2 text-[13px] leading-4 text-ink-2">This is the last one of its schedule.</p>
      )}
    </div>
  );
}
