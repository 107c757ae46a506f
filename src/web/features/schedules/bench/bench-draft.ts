import { z } from 'zod';
import {
  type Schedule,
  type ScheduleInput,
  scheduleInputSchema,
  type Task,
  type TemplateLine,
} from '../../../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  FRESH_TIMING,
  givenTo,
  isoOfDay,
  type PhraseTimes,
  type PlannedSchedule,
  parsePhrase,
  type Recurrence,
  type Revision,
  stretchAt,
  withTimes,
} from '../../../../core/index.ts';
import { withRule } from '../../templates/older-draft.ts';
import { ruleOf } from '../rule/rule-choices.ts';

/** What stands on the bench; `templateId` is empty until one is chosen. */
export interface BenchDraft extends ScheduleInput {
  /** The version it was begun from, so that someone else's change meanwhile is never written over; 0 for a new one. */
  readonly version: number;
}

/** What a draft looks like while it is kept; a template may still be missing. */
export const benchDraftSchema = z.preprocess(
  withRule,
  scheduleInputSchema.safeExtend({ version: z.number(), templateId: z.string() }),
);

/** What a new schedule begins from. */
export interface Beginning {
  readonly templateId: string;
  /** As far as it is known: one that has just been made comes with the next list. */
  readonly template: TemplateLine | undefined;
  readonly like: string | null;
  /** A task whose day, client and person are taken over. */
  readonly task: Task | null;
  readonly clientId: string | null;
  readonly assetId: string | null;
}

/** A schedule to begin with: weekly on the weekday of today or of a task, unless it is to be like an example. */
export function freshDraft(
  today: CivilDay,
  { templateId, template, like, task, clientId, assetId }: Beginning,
): BenchDraft {
  return {
    version: 0,
    templateId,
    clientId: task?.client?.id ?? clientId,
    assetId: task?.asset?.id ?? assetId,
    assignment: task?.assignee ? givenTo(task.assignee.id) : (template?.assignment ?? givenTo(null)),
    recurrence: likeOf(like, task ? dayOfIso(task.on) : today),
    timing: FRESH_TIMING,
    overlap: { kind: 'add' },
    pauses: [],
    exceptions: [],
    revisions: [],
  };
}

/** Examples that the empty table of schedules offers. */
const EXAMPLES: Readonly<Record<string, string>> = {
  weekdays: 'every weekday, not on days off',
  friday: 'every week on Fri, or the working day before',
  payroll: '15th and the last working day of each month, or the working day before',
  halfYear: 'every 6 months on the 18th, or the working day before',
};

function likeOf(like: string | null, today: CivilDay): Recurrence {
  const start = isoOfDay(today);
  const example = EXAMPLES[like ?? ''];
  if (example !== undefined) return parsePhrase(example, { start });
  return { start, rules: [ruleOf('weeks', today)], end: { kind: 'never' }, dayOff: 'none' };
}

export function draftOf(schedule: Schedule): BenchDraft {
  return {
    version: schedule.version,
    templateId: schedule.template.id,
    clientId: schedule.client?.id ?? null,
    assetId: schedule.asset?.id ?? null,
    assignment: schedule.assignment,
    recurrence: schedule.recurrence,
    timing: schedule.timing,
    overlap: schedule.overlap,
    pauses: schedule.pauses,
    exceptions: schedule.exceptions,
    revisions: schedule.revisions,
  };
}

/** What the core plans from; the last task comes with the schedule as saved. */
export function plannedOf(
  draft: BenchDraft,
  { last = null, deleted = [] }: Partial<Pick<Schedule, 'last' | 'deleted'>> = {},
): PlannedSchedule {
  const { recurrence, timing, pauses, exceptions, revisions } = draft;
  return { recurrence, timing, pauses, exceptions, revisions, last, deleted };
}

export function withStretch(
  draft: BenchDraft,
  index: number,
  change: Partial<Pick<Revision, 'recurrence' | 'timing'>>,
): BenchDraft {
  if (index === 0) return { ...draft, ...change };
  return {
    ...draft,
    revisions: draft.revisions.map((revision, i) => (i === index - 1 ? { ...revision, ...change } : revision)),
  };
}

/** Times of day that a phrase says, in the timing of a stretch. */
export function withDaytime(draft: BenchDraft, index: number, times: PhraseTimes | null): BenchDraft {
  return withStretch(draft, index, { timing: withTimes(stretchAt(draft, index).timing, times) });
}

/**
 * Another recurrence for a stretch. A revision begins where its recurrence is said to start; while it keeps the rules of the
 * stretch before, it keeps the start they are counted from, so that "every 2 weeks" does not change weeks.
 */
export function withRecurrence(draft: BenchDraft, index: number, recurrence: Recurrence): BenchDraft {
  const revision = draft.revisions[index - 1];
  if (!revision) return withStretch(draft, index, { recurrence });
  const from = recurrence.start === revision.recurrence.start ? revision.from : recurrence.start;
  const before = stretchAt(draft, index - 1).recurrence;
  const isSameRule = JSON.stringify(before.rules) === JSON.stringify(recurrence.rules);
  const start = isSameRule ? before.start : from;
  const revisions = draft.revisions.map((other) =>
    other === revision ? { ...other, from, recurrence: { ...recurrence, start } } : other,
  );
  return { ...draft, revisions: revisions.sort((a, b) => (a.from < b.from ? -1 : 1)) };
}
