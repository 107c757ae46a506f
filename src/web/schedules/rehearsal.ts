import { useEffect, useRef, useState } from 'react';
import {
  isDated,
  isoOfDay,
  type PlannedOccurrence,
  type PlannedSchedule,
  remindersOf,
  type WorkingCalendar,
} from '../../core/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';
import type { RehearsalAnswer, RehearsalQuestion } from './rehearsal-worker.ts';

export type Rehearsal =
  | { readonly kind: 'working' }
  | { readonly kind: 'plan'; readonly plan: readonly PlannedOccurrence[] }
  | { readonly kind: 'problem'; readonly message: string };

/** The plan over a span, computed by a worker; the last answer stays until the next is there. */
export function useRehearsal(schedule: PlannedSchedule, from: number, to: number): Rehearsal {
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
    const question: RehearsalQuestion = { asked: asked.current, schedule, calendar, from, to };
    worker.current?.postMessage(question);
  }, [schedule, calendar, from, to]);
  return answer;
}

export const REHEARSAL_COLUMNS = [
  'rule’s date',
  'on',
  'appears',
  'starts',
  'due',
  'reminder',
  'who',
  'remark',
] as const;

/** One line of a rehearsal, in ISO dates, for a spreadsheet. */
export function rehearsalLine(occurrence: PlannedOccurrence, who: string, calendar: WorkingCalendar): string[] {
  const { nominal, on } = occurrence;
  if (!isDated(occurrence)) return [isoOfDay(nominal), '', '', '', '', '', '', `not made: ${occurrence.because}`];
  const { appears, starts, due, timing, moved, isAdded, isForeseen } = occurrence;
  const at = (day: number, time: string | null) => (time === null ? isoOfDay(day) : `${isoOfDay(day)} ${time}`);
  const remark = [moved && `moved: ${moved}`, isAdded && 'added by hand', isForeseen && 'foreseen'];
  return [
    isoOfDay(nominal),
    isoOfDay(on),
    isoOfDay(appears),
    at(starts, timing.startTime),
    at(due, timing.dueTime),
    remindersOf(occurrence, calendar)
      .map((reminder) => at(reminder.on, reminder.time))
      .join('; '),
    who,
    remark.filter((part): part is string => typeof part === 'string').join(', '),
  ];
}
