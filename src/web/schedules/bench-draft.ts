import type { Schedule, ScheduleInput } from '../../contract/index.ts';
import { type CivilDay, isoOfDay, type Recurrence } from '../../core/index.ts';
import { ruleOf } from './rule-choices.ts';

/** What stands on the bench; `templateId` is empty until one is chosen. */
export interface BenchDraft extends ScheduleInput {
  /** The version it was begun from, so that someone else's change meanwhile is never written over; 0 for a new one. */
  readonly version: number;
}

const DAY = { amount: 0, unit: 'day' } as const;

/** A schedule to begin with: weekly on the weekday of today, unless it is to be like an example. */
export function freshDraft(today: CivilDay, templateId: string, like: string | null): BenchDraft {
  return {
    version: 0,
    templateId,
    clientId: null,
    assetId: null,
    assigneeId: null,
    recurrence: likeOf(like, today),
    timing: { appears: { amount: -1, unit: 'workingDay' }, starts: DAY, due: DAY, startTime: null, dueTime: null },
  };
}

/** Examples that the empty table of schedules offers. */
function likeOf(like: string | null, today: CivilDay): Recurrence {
  const base = { start: isoOfDay(today), end: { kind: 'never' }, dayOff: 'none' } as const;
  switch (like) {
    case 'weekdays':
      return { ...base, rules: [ruleOf('weekdays', today)], dayOff: 'skip' };
    case 'friday':
      return { ...base, rules: [{ kind: 'weeks', every: 1, on: [5] }], dayOff: 'preceding' };
    case 'payroll':
      return {
        ...base,
        rules: [
          {
            kind: 'months',
            every: 1,
            months: [],
            on: [
              { kind: 'date', day: 15 },
              { kind: 'workingDay', nth: -1 },
            ],
            missing: 'last',
          },
        ],
        dayOff: 'preceding',
      };
    case 'halfYear':
      return {
        ...base,
        rules: [{ kind: 'months', every: 6, months: [], on: [{ kind: 'date', day: 18 }], missing: 'last' }],
        dayOff: 'preceding',
      };
    default:
      return { ...base, rules: [ruleOf('weeks', today)] };
  }
}

export function draftOf(schedule: Schedule): BenchDraft {
  return {
    version: schedule.version,
    templateId: schedule.template.id,
    clientId: schedule.client?.id ?? null,
    assetId: schedule.asset?.id ?? null,
    assigneeId: schedule.assignee?.id ?? null,
    recurrence: schedule.recurrence,
    timing: schedule.timing,
  };
}
