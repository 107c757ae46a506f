import type { ScheduleInput } from '../../../contract/index.ts';
import {
  type CellContext,
  dayOfIso,
  givenTo,
  plural,
  sayDay,
  sayRule,
  writeScheduleLine,
} from '../../../core/index.ts';
import type { Schedule } from '../../schedules/index.ts';
import type { ReadRow } from '../read-row.ts';
import type { MadeEntry } from './made.ts';
import type { Origin } from './origins.ts';

type ScheduleParts = Pick<ScheduleInput | Schedule, 'recurrence' | 'timing' | 'exceptions' | 'assignment'>;

/** The rule of a schedule in words: dates that are taken out are counted, not listed; what holds later, and its own words, say nothing of it. */
function ruleWords({ recurrence, timing, exceptions, assignment }: ScheduleParts, context: CellContext) {
  const { when = '', who = '' } = writeScheduleLine(
    {
      ...{ timing, exceptions, assignment, revisions: [], pauses: [], plans: null },
      recurrence: { ...recurrence, except: [] },
    },
    context,
  );
  return { when, who, out: (recurrence.except ?? []).length + exceptions.length };
}

/** "schedule at 09:00: every week on Tue, 1 exception, Maud Ferrier" */
export function sayEntry({ of, work }: MadeEntry, context: CellContext): string {
  switch (of.becomes) {
    case 'schedule': {
      const { timing, assignment } = of.input;
      const { when, who, out } = ruleWords(of.input, context);
      const zone = timing.zone === null ? '' : ` (${timing.zone})`;
      const time = timing.startTime === null ? '' : ` at ${timing.startTime}${zone}`;
      return [
        `schedule${time}: ${when}`,
        out === 0 ? '' : plural(out, 'exception'),
        assignment.kind === 'nobody' ? '' : who,
      ]
        .filter(Boolean)
        .join(', ');
    }
    case 'task': {
      const who = of.assigneeId === null ? '' : sayRule(givenTo(of.assigneeId), context);
      const time = of.startTime === null ? '' : ` at ${of.startTime}`;
      return [`task: ${sayDay(dayOfIso(of.on), context.today)}${time}`, who].filter(Boolean).join(', ');
    }
    case 'template':
      return `template${work.minutes === null ? '' : `, ${work.minutes} min`}`;
    case 'days off': {
      const [first] = of.days;
      const day = first ? sayDay(dayOfIso(first.date), context.today) : '';
      return `${plural(of.days.length, 'day')} off, ${day}${of.days.length > 1 ? ' first' : ''}`;
    }
  }
}

/** What would change of what is here, in words. */
export function diffsOf({ schedule, task }: Origin, { of, work }: MadeEntry, context: CellContext): ReadRow['diffs'] {
  const texts = (): readonly (readonly [name: string, from: string, to: string])[] => {
    if (schedule && of.becomes === 'schedule') {
      const [from, to] = [schedule, of.input].map((one) => wordsOf(one, context));
      return Object.keys(to ?? {}).map((name) => [name, from?.[name] ?? '', to?.[name] ?? ''] as const);
    }
    if (!task || of.becomes !== 'task') return [];
    const span = (one: { startTime: string | null; dueTime: string | null }) =>
      [one.startTime, one.dueTime].filter(Boolean).join(' to ');
    return [
      ['title', task.title, work.name],
      ['day', task.workOn, of.on],
      ['due', task.dueOn, of.dueOn],
      ['time', span(task), span(of)],
    ];
  };
  return texts().flatMap(([name, from, to]) => (from === to ? [] : [{ name, from, to: to || 'none' }]));
}

/** A schedule as its entry would say it, by words of its parts. */
function wordsOf(schedule: ScheduleParts, context: CellContext): Record<string, string> {
  const { when, who, out } = ruleWords(schedule, context);
  const { recurrence, timing } = schedule;
  return {
    ...{ when, who, from: recurrence.start },
    time: [timing.startTime, timing.dueTime].filter(Boolean).join(' to '),
    exceptions: out === 0 ? '' : String(out),
    reminders: timing.reminders.length === 0 ? '' : String(timing.reminders.length),
  };
}
