import { useEffect, useRef, useState } from 'react';
import {
  type DatedOccurrence,
  isoOfDay,
  MAIN_PART,
  type PlannedSchedule,
  type RehearsedLine,
  remindersOf,
  type SetTask,
  type WorkingCalendar,
} from '../../core/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';
import type { RehearsalAnswer, RehearsalQuestion } from './rehearsal-worker.ts';

export type Rehearsal =
  | { readonly kind: 'working' }
  | { readonly kind: 'plan'; readonly plan: readonly RehearsedLine[] }
  | { readonly kind: 'problem'; readonly message: string };

/** The plan over a span, computed by a worker; the last answer stays until the next is there. */
export function useRehearsal(
  schedule: PlannedSchedule,
  set: RehearsalQuestion['set'],
  from: number,
  to: number,
): Rehearsal {
  const { calendar } = useWorkspace();
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [answer, setAnswer] = useState<Rehearsal>({ kind: 'working' });
  useEffect(() => {
    const made = new Worker(new URL('./rehearsal-worker.ts', import.meta.url), { type: 'module' });
    made.onmessage = ({ data }: MessageEvent<RehearsalAnswer>) => {
      if (data.asked !== asked.current) return;
      setAnswer('plan' in data ? { kind: 'plan', plan: data.plan } : { kind: 'problem', message: data.problem });
    };
    made.onerror = () =>
      setAnswer({ kind: 'problem', message: 'The rehearsal could not be started. Reload the page.' });
    worker.current = made;
    return () => made.terminate();
  }, []);
  useEffect(() => {
    asked.current += 1;
    const question: RehearsalQuestion = { asked: asked.current, schedule, set, calendar, from, to };
    worker.current?.postMessage(question);
  }, [schedule, set, calendar, from, to]);
  return answer;
}

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
  readonly who: (assigneeId: string | null) => string;
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
    words.who(task.assigneeId),
    remark.filter((part): part is string => typeof part === 'string').join(', '),
  ];
}
