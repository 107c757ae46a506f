import { Fragment } from 'react';
import {
  type Assigner,
  type Assignment,
  callNames,
  type DatedOccurrence,
  isDated,
  MAIN_PART,
  type OmittedOccurrence,
  type PlannedOccurrence,
  remindersOf,
  type SetTask,
  sayWhyBeside,
  type Timing,
  tasksOfSet,
} from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { DateBlock } from '../../../kit/date-block.tsx';
import { Pennant } from '../../../kit/pennant.tsx';
import { sayDay, sayShortDay, sayTime, sayTimeSpan } from '../../../kit/ways.ts';
import type { RehearsalWords } from '../rehearsal/rehearsal-lines.ts';
import type { RehearsalQuestion } from '../rehearsal/rehearsal-worker.ts';
import { partsFor } from '../who.ts';
import { sayWho } from '../who-words.ts';
import { kindOf } from './who-faces.ts';

interface NextDatesProps {
  readonly occurrences: readonly PlannedOccurrence[];
  readonly whose: Assigner;
  /** Whether it tells who and why alone, beside what else tells of people. */
  readonly isNarrow: boolean;
  /** The tasks of each set besides the main one stand under it. */
  readonly set: RehearsalQuestion['set'];
  readonly titleOf: RehearsalWords['title'];
}

/** The next occurrences as a tide table. */
export function NextDates({ occurrences, whose, isNarrow, set, titleOf }: NextDatesProps) {
  const { workingCalendar, people, today } = useWorkspace();
  const called = callNames(people);
  const nameOf = (id: string) => called.get(id) ?? 'somebody';
  const ofParts = partsFor(set.who, workingCalendar);
  const steps = (occurrence: DatedOccurrence) =>
    tasksOfSet(occurrence, set.parts, workingCalendar, whose(occurrence), ofParts)
      // Where each of several has one, it stands there once.
      .filter(({ part }, i, all) => part.key !== MAIN_PART && all.findIndex((one) => one.part.key === part.key) === i)
      .sort((a, b) => a.due - b.due);
  const dated = occurrences.filter(isDated);
  const hasStart = dated.some(({ timing }) => timing.startTime !== null);
  const hasReminder = !isNarrow && dated.some(({ timing }) => timing.reminders.length > 0);
  return (
    <table className="tt is-static mt-1 [&_td]:h-[33px] [&_tr>:first-child]:pl-0">
      <colgroup>
        <col style={{ width: 30 }} />
        <col style={{ width: isNarrow ? 108 : hasReminder ? 126 : 132 }} />
        {!isNarrow && (
          <>
            <col style={{ width: hasReminder ? 92 : 98 }} />
            <col style={{ width: hasReminder ? 92 : 98 }} />
            <col style={{ width: hasStart ? 112 : 58 }} />
            {hasReminder && <col style={{ width: 132 }} />}
          </>
        )}
        <col style={{ width: isNarrow ? 72 : hasReminder ? 96 : '24%' }} />
        <col />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">
            <span className="sr-only">state</span>
          </th>
          <th scope="col">due</th>
          {!isNarrow && (
            <>
              <th scope="col">appears</th>
              <th scope="col">starts</th>
              <th scope="col">{hasStart ? 'time' : 'by'}</th>
            </>
          )}
          {hasReminder && <th scope="col">reminder</th>}
          <th scope="col">who</th>
          <th scope="col">{isNarrow ? 'why' : <span className="sr-only">remark</span>}</th>
        </tr>
      </thead>
      <tbody>
        {linesOf(occurrences).map((line) =>
          line.kind === 'one' ? (
            <Fragment key={line.occurrence.nominal}>
              <Line
                occurrence={line.occurrence}
                assignment={whose(line.occurrence)}
                why={isNarrow ? sayWhyBeside(whose(line.occurrence), nameOf, today) : null}
                hasReminder={hasReminder}
              />
              {steps(line.occurrence).map((task) => (
                <StepLine
                  key={task.part.key}
                  task={task}
                  title={titleOf(task, line.occurrence)}
                  who={sayWho(task.head === '' ? task.assignment : whose(line.occurrence), people)}
                  isNarrow={isNarrow}
                  hasReminder={hasReminder}
                />
              ))}
            </Fragment>
          ) : (
            <OmittedLine
              key={line.omitted[0]?.nominal}
              omitted={line.omitted}
              columns={isNarrow ? 2 : hasReminder ? 6 : 5}
            />
          ),
        )}
      </tbody>
    </table>
  );
}

interface StepLineProps {
  readonly task: SetTask;
  readonly title: string;
  readonly who: string;
  readonly isNarrow: boolean;
  readonly hasReminder: boolean;
}

/** A step of the set that is a task of its own, on its own day. */
function StepLine({ task, title, who, isNarrow, hasReminder }: StepLineProps) {
  const { due, appears, starts, startTime, dueTime } = task;
  const { today } = useWorkspace();
  const times = sayTimes({ startTime, dueTime });
  return (
    <tr className="text-ink-2">
      <td>
        {/* It hangs on the mast of its set. */}
        <i className="-mt-px ml-[2px] block h-[33px] w-px bg-line-2" />
      </td>
      <td className="date">
        <DateBlock day={due} look="quiet" />
      </td>
      {!isNarrow && (
        <>
          <td>{appears <= today ? 'at once' : sayShortDay(appears)}</td>
          <td>{sayShortDay(starts)}</td>
          <td>{times}</td>
        </>
      )}
      {hasReminder && <td />}
      <td title={who}>{who}</td>
      <td title={title}>
        {title}
        {due < today && ', late at once'}
      </td>
    </tr>
  );
}

const OMITTED_WORDS = {
  'day off': 'a day off: skipped',
  closed: 'closed season: left out',
  skipped: 'skipped by hand',
  paused: 'paused: not made',
  'same day as another': 'falls together with another',
  deleted: 'deleted on purpose: not made again',
} as const;

type TableLine =
  | { readonly kind: 'one'; readonly occurrence: DatedOccurrence }
  | { readonly kind: 'omitted'; readonly omitted: OmittedOccurrence[] };

/** A line for each that is made, and one for those in a row that are left out for the same reason. */
function linesOf(occurrences: readonly PlannedOccurrence[]): TableLine[] {
  const lines: TableLine[] = [];
  for (const occurrence of occurrences) {
    const last = lines.at(-1);
    if (isDated(occurrence)) lines.push({ kind: 'one', occurrence });
    else if (last?.kind === 'omitted' && last.omitted[0]?.because === occurrence.because) last.omitted.push(occurrence);
    else lines.push({ kind: 'omitted', omitted: [occurrence] });
  }
  return lines;
}

function OmittedLine({
  omitted,
  columns,
}: {
  readonly omitted: readonly OmittedOccurrence[];
  readonly columns: number;
}) {
  const today = useToday();
  const [first] = omitted;
  const last = omitted.at(-1);
  if (!first || !last) return null;
  return (
    <tr className="text-ink-2">
      <td />
      <td>
        <DateBlock day={first.on} look="quiet" />
      </td>
      <td colSpan={columns}>
        {OMITTED_WORDS[first.because]}
        {omitted.length > 1 && `, ${omitted.length} dates up to ${sayDay(last.on, today)}`}
      </td>
    </tr>
  );
}

function Line({
  occurrence,
  assignment,
  why,
  hasReminder,
}: {
  readonly occurrence: DatedOccurrence;
  readonly assignment: Assignment;
  /** Why it is theirs, where that stands instead of the times; null where those do. */
  readonly why: string | null;
  readonly hasReminder: boolean;
}) {
  const { today, horizonDays, workingCalendar, people } = useWorkspace();
  const full = sayWho(assignment, people);
  const who = why !== null && assignment.kind === 'one' ? (callNames(people).get(assignment.personId) ?? full) : full;
  const { due, appears, starts, on, nominal, timing, isAdded, isForeseen } = occurrence;
  const isMade = appears <= today + horizonDays && !isForeseen;
  const times = sayTimes(timing);
  const [reminder, ...others] = remindersOf(occurrence, workingCalendar);
  const remark = [
    why,
    on !== nominal && `moved from ${sayDay(nominal, today)}`,
    isAdded && 'added by hand',
    isForeseen && 'if the last is on time',
    due !== on && `for ${sayDay(on, today)}`,
  ].filter((part): part is string => typeof part === 'string' && part !== '');
  return (
    <tr>
      <td className="date">
        <Pennant state={isMade ? 'coming' : 'bare'} label={isMade ? 'Made when this is saved' : 'Not made yet'} />
      </td>
      <td className="date">
        <DateBlock day={due} />
      </td>
      {why === null && (
        <>
          <td className="text-ink-2">{appears <= today ? 'at once' : sayShortDay(appears)}</td>
          <td className="text-ink-2">{sayShortDay(starts)}</td>
          <td>{times}</td>
        </>
      )}
      {hasReminder && (
        <td className="text-ink-2">
          {reminder && `${sayShortDay(reminder.on)}, ${sayTime(reminder.time)}`}
          {others.length > 0 && ` and ${others.length} more`}
        </td>
      )}
      <td title={full} className={assignment.kind === 'nobody' ? 'font-semibold' : ''}>
        {who}
      </td>
      <td title={remark.join(', ')} className={why !== null && kindOf(assignment) !== 'own' ? 'font-semibold' : ''}>
        {remark.join(', ')}
      </td>
    </tr>
  );
}

/** "08:00–09:30", "08:00", or the time by which it is due. */
function sayTimes({ startTime, dueTime }: Pick<Timing, 'startTime' | 'dueTime'>): string {
  if (startTime !== null && dueTime !== null) return sayTimeSpan(startTime, dueTime);
  const one = startTime ?? dueTime;
  return one === null ? '' : sayTime(one);
}
