import { lazy, type ReactNode, Suspense, useState } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import type { Task } from '../../../../contract/index.ts';
import { dayOfIso, isEnded, sayDuration, sayLate } from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { Pennant, stateWords } from '../../../kit/pennant.tsx';
import { RichText, sayContents } from '../../../kit/rich-text.tsx';
import { CloseButton, SECTION, SectionTitle, SideSheet } from '../../../kit/side-sheet.tsx';
import { Skeleton, Trouble } from '../../../kit/states.tsx';
import { Tag } from '../../../kit/tag.tsx';
import { sayDate, sayDay, sayNear } from '../../../kit/ways.ts';
import { FileDrop } from '../../files/file-drop.tsx';
import { FileLine } from '../../files/file-line.tsx';
import { TaskHistory } from '../../history/task-history.tsx';
import { SwapTurn } from '../../swaps/swap-turn.tsx';
import { useTask, useTaskActions } from '../api.ts';
import { ToldOften } from '../day/chase-list.tsx';
import { useTaskOnDevice } from '../on-device.ts';
import { isFixed, sayMoment, sayTimes, unreadTagOf } from '../task-words.ts';
import { EditTask } from './edit-task.tsx';
import { HeldUp } from './held-up.tsx';
import { Note } from './note.tsx';
import { NoticeFact } from './notice-fact.tsx';
import { ProofField } from './proof-field.tsx';
import { CarriedOn, SeriesPart } from './series-part.tsx';
import { SetPart } from './set-part.tsx';
import { StepsList } from './steps-list.tsx';
import { TaskDeeds } from './task-deeds.tsx';
import { TaskFoot } from './task-foot.tsx';

const AskedPart = lazy(() => import('../../client-links/asked-part.tsx'));
const AnswersOfTask = lazy(() => import('../../answers/answers-of.tsx'));
const CommentsPart = lazy(() => import('../../comments/comments-part.tsx'));

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
  const { today } = useWorkspace();
  const [editing, setEditing] = useState(false);
  // As it stands with what was done here and is not sent yet; fields know for themselves what of theirs waits.
  const here = useTaskOnDevice(task);
  const unread = unreadTagOf(here);
  const fixed = isFixed(here) || unread !== null;
  // What starts it is asked for at the foot until it has.
  const demands = task.demands.filter(({ key }) => key !== unread?.key);
  return (
    <>
      <div className={`${SECTION} pt-3`}>
        <div className="flex items-center gap-2 text-row">
          <Pennant state={here.state} late={here.late} heldUp={here.heldUp} size={20} />
          <span className={here.late && here.state !== 'done' ? 'text-late' : ''}>{sayState(here, today)}</span>
          <span className="ml-auto" />
          <Tag category={task.category} />
          <CloseButton onClose={onClose} />
        </div>
        <h2 className="mt-1 text-title leading-6.5">{task.title}</h2>
        <Facts task={task} />
        {task.brief && (
          <p className="mt-2 whitespace-pre-line border-l-2 border-accent pl-2.5 text-row leading-4.75">{task.brief}</p>
        )}
        {task.sentBack && !isEnded(task.state as 'open') && (
          <p className="mt-2 border-l-2 border-late pl-2.5 text-row leading-4.75">
            <b className="font-semibold">Sent back</b> by {task.sentBack.by ?? 'someone'},{' '}
            {sayMoment(task.sentBack.at, today)}: “{task.sentBack.reason}”
          </p>
        )}
        <HeldUp task={task} />
        {!editing && <TaskDeeds task={here} onEdit={() => setEditing(true)} onGone={onClose} />}
      </div>
      {editing && <EditTask task={task} onClose={() => setEditing(false)} />}
      {task.isForClient && (
        <Suspense fallback={null}>
          <AskedPart key={task.id} task={here} />
        </Suspense>
      )}
      {task.instructions && !editing && <Instructions task={task} />}
      <CarriedOn task={task} address={address} />
      {task.steps.length > 0 && (
        <div className={`${SECTION} pb-1 max-[720px]:pb-1`}>
          <SectionTitle aside={`${here.stepsDone} of ${here.stepsTotal}`}>Steps</SectionTitle>
          <StepsList task={task} here={here} />
        </div>
      )}
      {demands.length > 0 && (
        <div className={SECTION}>
          <SectionTitle>Proof</SectionTitle>
          <div className="mt-1 grid gap-2.5">
            {demands.map((demand) => (
              <ProofField
                key={demand.key}
                task={task}
                here={here}
                demand={demand}
                name={demand.label || task.title}
                isFixed={fixed}
              />
            ))}
          </div>
        </div>
      )}
      {task.client !== null && (
        <Suspense fallback={null}>
          <AnswersOfTask key={task.id} taskId={task.id} />
        </Suspense>
      )}
      <SwapTurn task={task} />
      <SetPart task={task} address={address} />
      <div className={SECTION}>
        <SectionTitle>Note</SectionTitle>
        <Note task={task} here={here} />
      </div>
      <Files task={task} here={here} />
      <Suspense fallback={null}>
        <CommentsPart key={task.id} taskId={task.id} />
      </Suspense>
      <SeriesPart task={task} address={address} />
      <MadeFrom task={task} />
      <TaskHistory taskId={task.id} />
      <TaskFoot key={here.state} task={task} here={here} address={address} />
    </>
  );
}

function sayState(task: Task, today: number): string {
  const by = task.doneBy ? ` by ${task.doneBy}` : '';
  if (task.state === 'done')
    return `Done ${task.doneAt ? sayMoment(task.doneAt, today) : ''}${by}${task.signed?.by ? `, signed off by ${task.signed.by}` : ''}`;
  if (task.state === 'toCheck') return `To check, finished ${task.doneAt ? sayMoment(task.doneAt, today) : ''}${by}`;
  const words = stateWords(task.state, false);
  const late = task.late ? `, ${sayLate(task)}` : '';
  return task.state === 'underWay' && task.startedAt
    ? `Under way since ${sayMoment(task.startedAt, today)}${late}`
    : words + late;
}

function Facts({ task }: { readonly task: Task }) {
  const today = useToday();
  const facts: [string, ReactNode][] = [
    ['where', task.asset?.name],
    ['for', task.client?.name],
    ['due', [sayNear(dayOfIso(task.dueOn), today), sayTimes(task)].filter(Boolean).join(', ')],
    ['estimate', sayDuration(task.estimateMinutes)],
    [
      'who',
      [
        task.assignee?.name ?? task.offeredTo ?? 'nobody yet',
        task.whyWho && task.whyWho !== 'always' ? `(${task.whyWho})` : '',
      ]
        .filter(Boolean)
        .join(' '),
    ],
    [
      'asks for',
      [
        task.tickets.join(', '),
        task.lackedTicket === null ? '' : `(not held by ${task.assignee?.name} on that day: ${task.lackedTicket})`,
      ]
        .filter(Boolean)
        .join(' '),
    ],
    ['priority', task.priority === 'normal' ? null : task.priority],
    [
      'last nudged',
      task.nudged && !isEnded(task.state as 'open')
        ? `${sayMoment(task.nudged.at, today)}${task.nudged.by ? ` by ${task.nudged.by}` : ''}`
        : null,
    ],
    ['told of it', task.mayNudge ? <ToldOften key={task.id} taskId={task.id} /> : null],
    ['type of work', task.workType],
    ['signs it off', task.signsOff],
  ];
  return (
    <dl className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-row leading-4.5">
      {facts.map(
        ([name, value]) =>
          value && (
            <div key={name}>
              <dt className="text-note leading-4 text-ink-2">{name}</dt>
              <dd>{value}</dd>
            </div>
          ),
      )}
      <NoticeFact task={task} />
    </dl>
  );
}

/** On a phone the doing comes first: the instructions are one press away. */
const isNarrow = () => window.matchMedia('(max-width: 720px)').matches;

function Instructions({ task }: { readonly task: Task }) {
  // Whoever checks it looks at what was done, not at how it is to be done.
  const [open] = useState(() => !isNarrow() && !isEnded(task.state as 'open') && task.state !== 'toCheck');
  const beside = [
    sayContents(task.instructions),
    task.links.length + task.templateFiles.length > 0 ? `${task.links.length + task.templateFiles.length} beside` : '',
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <details className={`${SECTION} group text-row leading-4.75`} open={open}>
      <summary className="flex cursor-pointer items-baseline justify-between max-[720px]:min-h-8 max-[720px]:items-center">
        <h3 className="text-row leading-4.5 text-primary">Instructions</h3>
        <span className="text-note text-ink-2">{beside}</span>
      </summary>
      <RichText html={task.instructions} className="mt-1" />
      {task.links.map(({ title, url }) => (
        <p key={url} className="mt-1.5">
          <a className="link-line break-all" href={url} target="_blank" rel="noreferrer noopener">
            {title || url}
          </a>
        </p>
      ))}
      {task.templateFiles.map((file) => (
        <FileLine key={file.id} file={file} />
      ))}
    </details>
  );
}

/** Files that were only added, for nothing in particular. */
function Files({ task, here }: { readonly task: Task; readonly here: Task }) {
  const { reload, removeFile, keepFile } = useTaskActions();
  const fixed = isFixed(here);
  const mayAdd = (here.mayWork && !isEnded(here.state as 'open')) || here.mayAddTo;
  const others = task.files.filter(({ demand }) => demand === null);
  const shown = fixed ? task.files : others;
  if (shown.length === 0 && !mayAdd) return null;
  return (
    <div className={`${SECTION} ${shown.length === 0 ? 'print:hidden' : ''}`}>
      <SectionTitle>Files</SectionTitle>
      {shown.map((file) => (
        <FileLine
          key={file.id}
          file={file}
          onRemove={fixed ? undefined : () => void removeFile(task.id, file.id)}
          onKeep={task.mayWork ? (kept) => void keepFile(task.id, file.id, kept) : undefined}
        />
      ))}
      {mayAdd && (
        <div className="mt-1.5">
          <FileDrop
            words="Add a file"
            label="File for this task"
            target={{ taskId: task.id }}
            onUploaded={() => void reload(task.id)}
          />
        </div>
      )}
    </div>
  );
}

/** Where a task comes from, with its links, and whether that says something else by now. */
function MadeFrom({ task }: { readonly task: Task }) {
  const today = useToday();
  const { template, schedule } = task;
  if (!template)
    return (
      <p className="px-5 py-2.5 text-note leading-4.25 text-ink-2 max-[720px]:px-4">
        Written down by hand, without a template.
      </p>
    );
  return (
    <div className="px-5 py-2.5 text-note leading-4.25 text-ink-2 max-[720px]:px-4">
      <p>
        Made from{' '}
        <Link className="link-line text-ink" to={`/templates/${template.id}`}>
          {template.name}
        </Link>
        {template.isArchived ? ' (archived)' : ''}
        {schedule ? (
          <>
            , on the schedule{' '}
            <Link className="link-line text-ink" to={`/schedules/${schedule.id}`}>
              {schedule.phrase}
            </Link>
            {schedule.nominalOn === task.on || task.set.length > 1
              ? `, for ${sayDay(dayOfIso(schedule.nominalOn), today)}.`
              : `; moved here from ${sayDay(dayOfIso(schedule.nominalOn), today)}.`}
          </>
        ) : (
          ', started by hand.'
        )}
      </p>
      {template.changedSince && (
        <p className="mt-1 text-ink">
          The template has changed since, on {sayDate(dayOfIso(template.changedSince))}: this task keeps what it said.
        </p>
      )}
    </div>
  );
}
