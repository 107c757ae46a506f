import { Link } from 'react-router';
import type { ProjectedLine, TaskLine as TaskLineAnswer } from '../../../../contract/index.ts';
import { type CivilDay, dayOfIso, sayDuration } from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { DateBlock } from '../../../kit/date-block.tsx';
import { Pennant } from '../../../kit/pennant.tsx';
import { sayDay, sayDayOfMonth, sayNear, timeOf, waysShown } from '../../../kit/ways.ts';
import { sayFor, sayHold, sayProofMissing, sayTimes, sayWindow } from '../task-words.ts';

export type TaskLineBand =
  | 'late'
  | 'thisDay'
  | 'coming'
  | 'toCheck'
  | 'offered'
  | 'offeredToOthers'
  | 'unassigned'
  | 'doneBefore';

interface TaskLineProps {
  readonly task: TaskLineAnswer;
  readonly day: CivilDay;
  readonly band: TaskLineBand;
  readonly isOpen: boolean;
  /** Whether what was done with it here is not sent yet. */
  readonly waits: boolean;
  readonly to: string;
  /** Whether it says who has it. */
  readonly sayWho?: boolean;
  readonly onAct: (action: 'start' | 'claim' | 'open' | 'finish') => void;
  /** Left out where tasks can't be chosen. */
  readonly choosing?: { readonly isChosen: boolean; readonly choose: (how: 'one' | 'range') => void } | undefined;
}

/** A line of the day sheet: as high as its title on a phone and on paper. */
export const LINE =
  'relative grid h-9 cursor-pointer items-center border-b border-line pr-4 text-row leading-4.5 last:border-b-0 max-[720px]:h-auto max-[720px]:min-h-[58px] max-[720px]:gap-x-1 max-[720px]:px-4 max-[720px]:pt-[7px] max-[720px]:pb-2 print:h-auto print:min-h-[30px] print:break-inside-avoid print:items-start print:py-[5px]';
const COLUMNS = 'grid-cols-[24px_92px_minmax(0,1fr)_34px_60px_92px] max-[720px]:grid-cols-[32px_minmax(0,1fr)_auto]';
/** Times of a twelve-hour clock, and dates with the month first, are longer. */
const WIDE_COLUMNS =
  'grid-cols-[24px_128px_minmax(0,1fr)_34px_60px_92px] max-[720px]:grid-cols-[32px_minmax(0,1fr)_auto]';
const lineColumns = (): string => {
  const { clock, dateOrder } = waysShown();
  return clock === 24 && dateOrder === 'day first' ? COLUMNS : WIDE_COLUMNS;
};
export const TITLE =
  'truncate max-[720px]:whitespace-normal print:overflow-visible print:whitespace-normal print:wrap-anywhere';
/** The one thing to do next. */
const NEXT =
  'h-[26px] min-h-[26px] w-20 justify-self-end px-0 max-[720px]:h-11 max-[720px]:w-auto max-[720px]:min-w-[88px] max-[720px]:px-3.5 max-[720px]:text-body';

/** One task of the day sheet: what it is, when, how far it is, and the one thing to do next. */
export function TaskLine({ task, day, band, isOpen, waits, to, sayWho = false, onAct, choosing }: TaskLineProps) {
  const today = useToday();
  const ended = task.state === 'done' || task.state === 'skipped' || task.state === 'lapsed';
  const isToCheck = band === 'toCheck';
  const sub = [
    sayWho ? (task.assignee?.name ?? (task.offeredTo === null ? 'nobody yet' : '')) : '',
    sayFor(task),
    sayHold(task, today),
    task.assignee === null ? (task.offeredTo ?? '') : '',
    band === 'coming' ? sayTimes(task) : '',
    isToCheck ? (task.assignee?.name ?? '') : '',
  ]
    .filter(Boolean)
    .join(', ');
  const proof = ended || band === 'coming' || task.state === 'toCheck' ? '' : sayProofMissing(task);
  const steps = task.stepsTotal > 0 ? `${task.stepsDone}/${task.stepsTotal}` : '';
  const window =
    isToCheck && task.doneAt
      ? `since ${sayWhen(task.doneAt, today)}`
      : band === 'doneBefore'
        ? ''
        : sayWindow(task, day, today);
  return (
    // The link in the line is what the keyboard and a reader use; the rest of the line only makes it a larger target.
    // biome-ignore lint/a11y/noStaticElementInteractions: see above
    // biome-ignore lint/a11y/useKeyWithClickEvents: see above
    <div
      className={`group ${LINE} ${lineColumns()} hover:bg-base-200 data-[here=true]:-ml-2 data-[here=true]:bg-chosen data-[here=true]:pl-2 data-[here=true]:shadow-[inset_3px_0_0_var(--color-accent)] max-[720px]:data-[here=true]:pl-2 ${ended ? 'text-ink-2' : ''}`}
      data-line
      data-here={isOpen || choosing?.isChosen}
      data-task={task.title}
      onClick={(event) => (event.shiftKey && choosing ? choosing.choose('range') : onAct('open'))}
    >
      <div className="relative flex">
        <Pennant state={task.state} late={task.late} heldUp={task.heldUp} size={20} />
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
      <div className={TITLE}>
        <Link
          to={to}
          data-row
          className={`text-body max-[720px]:block max-[720px]:text-touch max-[720px]:leading-5 ${ended || band === 'coming' ? 'font-normal' : 'font-semibold'}`}
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
        {waits && <b className="ml-2 text-note font-semibold max-[720px]:ml-0">not sent yet</b>}
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
      <NextThing task={task} ended={ended} band={band} onAct={onAct} />
    </div>
  );
}

/** When something was: the time where that was today, else the day, short. */
function sayWhen(moment: string, today: CivilDay): string {
  const day = dayOfIso(moment.slice(0, 10));
  return day === today ? timeOf(moment) : day === today - 1 ? sayNear(day, today) : sayDayOfMonth(day);
}

interface NextThingProps extends Pick<TaskLineProps, 'task' | 'band' | 'onAct'> {
  readonly ended: boolean;
}

function NextThing({ task, ended, band, onAct }: NextThingProps) {
  const { may, me, today } = useWorkspace();
  if (task.state === 'toCheck') return <Check task={task} onAct={onAct} />;
  if (ended) {
    const when = task.doneAt ? sayWhen(task.doneAt, today) : '';
    const words = band === 'doneBefore' ? when : task.state === 'done' ? `done ${when}` : task.state;
    return <div className="text-right text-note text-ink-2">{words}</div>;
  }
  if (band === 'offeredToOthers') return <div className="text-right text-note text-ink-2">to take</div>;
  const isMine = may('work') || task.assignee?.id === me.id;
  const action =
    band === 'unassigned' || band === 'offered' || (!isMine && task.assignee === null)
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
      className={`btn ${NEXT} ${task.state === 'underWay' ? 'btn-primary' : ''} ${band === 'coming' ? 'border-transparent text-primary hover:border-transparent' : ''}`}
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
  const { may, me } = useWorkspace();
  const isOthers = task.assignee?.id !== me.id && (may('sign') || task.signsOff === me.name);
  if (!isOthers)
    return (
      <div className="truncate text-right text-note text-ink-2" title={`for ${task.signsOff} to check`}>
        to check
      </div>
    );
  return (
    <button
      type="button"
      className={`btn ${NEXT}`}
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
export function ProjectedTaskLine({ line, who = '' }: { readonly line: ProjectedLine; readonly who?: string }) {
  return (
    <div data-line className={`${LINE} ${lineColumns()} cursor-default hover:bg-base-200`}>
      <div className="flex">
        <Pennant state="bare" size={20} />
      </div>
      <div className="text-ink-2 max-[720px]:hidden">{sayTimes(line)}</div>
      <div className={TITLE}>
        {line.title} <span className="ml-2 text-ink-2">{[who, sayFor(line)].filter(Boolean).join(', ')}</span>
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
