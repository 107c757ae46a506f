import {
  type Assignment,
  type DatedOccurrence,
  isoOfDay,
  MAIN_PART,
  type RehearsedLine,
  remindersOf,
  type SetTask,
  type WorkingCalendar,
} from '../../../../core/index.ts';

export const REHEARSAL_COLUMNS = [
  'rule’s date',
  'task',
  'on',
  'appears',
  'starts',
  'due',
  'reminder',
  'who',
  'remark',
] as const;

/** How the tasks of a rehearsal are told: their titles and their people, by name. */
export interface RehearsalWords {
  readonly title: (task: SetTask, occurrence: DatedOccurrence) => string;
  readonly who: (assignment: Assignment) => string;
}

/** One line of a rehearsal, in ISO dates, for a spreadsheet. */
export function rehearsalLine(line: RehearsedLine, words: RehearsalWords, calendar: WorkingCalendar): string[] {
  if (line.kind === 'omitted') return [isoOfDay(line.nominal), ...Array(7).fill(''), `not made: ${line.because}`];
  const { occurrence, task } = line;
  const { nominal, moved, isAdded, isForeseen } = occurrence;
  const at = (day: number, time: string | null) => (time === null ? isoOfDay(day) : `${isoOfDay(day)} ${time}`);
  const remark = [moved && `moved: ${moved}`, isAdded && 'added by hand', isForeseen && 'foreseen'];
  return [
    isoOfDay(nominal),
    words.title(task, occurrence),
    isoOfDay(task.on),
    isoOfDay(task.appears),
    at(task.starts, task.startTime),
    at(task.due, task.dueTime),
    task.part.key === MAIN_PART
      ? remindersOf(occurrence, calendar)
          .map((reminder) => at(reminder.on, reminder.time))
          .join('; ')
      : '',
    words.who(task.assignment),
    remark.filter((part): part is string => typeof part === 'string').join(', '),
  ];
}
