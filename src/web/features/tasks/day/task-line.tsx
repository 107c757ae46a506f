import { Link } from 'react-router';
import type { ProjectedLine, TaskLine as TaskLineAnswer } from '../../../../contract/index.ts';
import { type CivilDay, dayOfIso, sayDay, sayDuration, sayNear } from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { DateBlock } from '../../../kit/date-block.tsx';
import { Pennant } from '../../../kit/pennant.tsx';
import { sayFor, sayProofMissing, sayTimes, sayWindow, timeOf } from '../task-words.ts';

interface TaskLineProps {
  readonly task: TaskLineAnswer;
  readonly day: CivilDay;
  readonly band: 'late' | 'thisDay' | 'coming' | 'toCheck' | 'unassigned';
  readonly isOpen: boolean;
  readonly to: string;
  readonly onAct: (action: 'start' | 'claim' | 'open' | 'finish') => void;
  /** Left out where tasks can't be chosen. */
  readonly choosing?: { readonly isChosen: boolean; readonly choose: (how: 'one' | 'range') => void } | undefined;
}

/** One task of the day sheet: what it is, when, how far it is, and the one thing to do next. */
export function TaskLine({ task, day, band, isOpen, to, onAct, choosing }: TaskLineProps) {
  const today = useToday();
  const ended = task.state === 'done' || task.state === 'skipped' || task.state === 'lapsed';
  const tone = ended ? 'is-quiet' : band === 'coming' ? 'is-soon' : '';
  const isToCheck = band === 'toCheck';
  const sub = [sayFor(task), band === 'coming' ? sayTimes(task) : '', isToCheck ? (task.assignee?.name ?? '') : '']
    .filter(Boolean)
    .join(', ');
  const proof = ended || band === 'coming' || task.state === 'toCheck' ? '' : sayProofMissing(task);
  const steps = task.stepsTotal > 0 ? `${task.stepsDone}/${task.stepsTotal}` : '';
  const window = isToCheck && task.doneAt ? sayWaiting(task.doneAt, today) : sayWindow(task, day, today);
  return (
    // The link in the line is what the keyboard and a reader use; the rest of the line only makes it a larger target.
    // biome-ignore lint/a11y/noStaticElementInteractions: see above
    // biome-ignore lint/a11y/useKeyWithClickEvents: see above
    <div
      className={`task-line group ${tone}`}
      data-here={isOpen || choosing?.isChosen}
      data-task={task.title}
      onClick={(event) => (event.shiftKey && choosing ? choosing.choose('range') : onAct('open'))}
    >
      <div className="relative flex">
        <Pennant state={task.state} late={task.late} size={20} />
        {choosing && (
          <input
            type="checkbox"
            className={`check absolute -left-[24px] top-0.5 max-[720px]:hidden ${choosing.isChosen ? '' : 'opacity-0 focus-visible:opacity-100 group-hover:opacity-100'}`}
            tabIndex={-1}
            aria-label={`Choose ${task.title}`}
            checked={choosing.isChosen}
            onClick={(event) => {
              event.stopPropagation();
              choosing.choose(event.shiftKey ? 'range' : 'one');
            }}
            onChange={() => undefined}
          />
        )}
      </div>
      <div className={`max-[720px]:hidden ${task.late && !ended ? 'text-late' : 'text-ink-2'}`}>
        {band === 'coming' ? <DateBlock day={dayOfIso(task.startsOn)} look="quiet" /> : window}
      </div>
      <div className="title">
        <Link
          to={to}
          data-row
          title={choosing ? 'Space chooses it, Shift with the arrows chooses more' : undefined}
          onClick={(event) => event.stopPropagation()}
          onKeyDown={(event) => {
            if (!choosing) return;
            if (event.key === ' ') {
              event.preventDefault();
              choosing.choose('one');
            } else if (event.shiftKey && /^Arrow(Up|Down)$/.test(event.key) && !choosing.isChosen) {
              choosing.choose('one');
            }
          }}
          onKeyUp={(event) => {
            // The focus has come here by the arrows.
            if (choosing && event.shiftKey && /^Arrow(Up|Down)$/.test(event.key)) choosing.choose('range');
          }}
        >
          {task.title}
        </Link>
        {(task.priority === 'urgent' || task.priority === 'high') && !ended && (
          <b className="ml-2 font-semibold">{task.priority}</b>
        )}
        <span className="ml-2 text-ink-2 max-[720px]:hidden">{sub}</span>
        {proof && <span className="ml-2 text-note text-ink-2 max-[720px]:hidden">{proof}</span>}
        <span className="hidden text-row text-ink-2 max-[720px]:block">
          <span className={task.late && !ended ? 'text-late' : ''}>
            {band === 'coming' ? sayDay(dayOfIso(task.startsOn), today) : window}
          </span>
          {(band === 'coming' ? [sub] : [sub, steps, sayDuration(task.estimateMinutes)])
            .filter(Boolean)
            .map((part) => `, ${part}`)}
        </span>
      </div>
      <div className="text-right text-ink-2 max-[720px]:hidden">{steps}</div>
      <div className="text-right max-[720px]:hidden">{sayDuration(task.estimateMinutes)}</div>
      <NextThing task={task} ended={ended} isToClaim={band === 'unassigned'} onAct={onAct} />
    </div>
  );
}

/** Since when it waits to be checked: the time where that is today, else the day. */
function sayWaiting(doneAt: string, today: CivilDay): string {
  const day = dayOfIso(doneAt.slice(0, 10));
  return `since ${day === today ? timeOf(doneAt) : sayNear(day, today).replace(/^\w+ (?=\d)/, '')}`;
}

interface NextThingProps extends Pick<TaskLineProps, 'task' | 'onAct'> {
  readonly ended: boolean;
  readonly isToClaim: boolean;
}

function NextThing({ task, ended, isToClaim, onAct }: NextThingProps) {
  const { me } = useWorkspace();
  if (task.state === 'toCheck') return <Check task={task} onAct={onAct} />;
  if (ended) {
    const words = task.state === 'done' ? `done ${task.doneAt ? timeOf(task.doneAt) : ''}` : task.state;
    return <div className="text-right text-note text-ink-2">{words}</div>;
  }
  const isMine = me.isManager || task.assignee?.id === me.id;
  const action =
    isToClaim || (!isMine && task.assignee === null)
      ? 'claim'
      : task.state === 'underWay'
        ? task.stepsDone === task.stepsTotal && task.proofMissing.length === 0
          ? 'finish'
          : 'open'
        : 'start';
  if (!isMine && action !== 'claim')
    return <div className="text-right text-note text-ink-2">{task.state === 'underWay' ? 'under way' : ''}</div>;
  const words = { start: 'Start', claim: 'Claim', open: 'Carry on', finish: 'Finish' }[action];
  return (
    <button
      type="button"
      className={`btn ${task.state === 'underWay' ? 'btn-primary' : ''}`}
      aria-label={`${words}: ${task.title}`}
      onClick={(event) => {
        event.stopPropagation();
        onAct(action);
      }}
    >
      {words}
    </button>
  );
}

/** Finished work that waits: for oneself to sign, or for somebody else. */
function Check({ task, onAct }: Pick<TaskLineProps, 'task' | 'onAct'>) {
  const { me } = useWorkspace();
  const isOthers = task.assignee?.id !== me.id && (me.isManager || task.signsOff === me.name);
  if (!isOthers)
    return (
      <div className="truncate text-right text-note text-ink-2" title={`for ${task.signsOff} to check`}>
        to check
      </div>
    );
  return (
    <button
      type="button"
      className="btn"
      aria-label={`Check: ${task.title}`}
      onClick={(event) => {
        event.stopPropagation();
        onAct('open');
      }}
    >
      Check
    </button>
  );
}

/** A date that a rule gives, not made yet: a bare mast. */
export function ProjectedTaskLine({ line }: { readonly line: ProjectedLine }) {
  return (
    <div className="task-line is-soon !cursor-default">
      <div className="flex">
        <Pennant state="bare" size={20} />
      </div>
      <div className="text-ink-2 max-[720px]:hidden">{sayTimes(line)}</div>
      <div className="title">
        {line.title} <span className="ml-2 text-ink-2">{sayFor(line)}</span>
      </div>
      <div className="max-[720px]:hidden" />
      <div className="text-right max-[720px]:hidden">{sayDuration(line.estimateMinutes)}</div>
      <Link
        className="text-right text-note text-ink-2 underline decoration-line-2 underline-offset-4"
        to={`/schedules/${line.scheduleId}`}
      >
        not made yet
      </Link>
    </div>
  );
}
