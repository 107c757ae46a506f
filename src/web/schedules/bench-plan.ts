import { useMemo } from 'react';
import { type Schedule, scheduleInputSchema, type TemplateLine } from '../../contract/index.ts';
import {
  fillTitle,
  isDated,
  occurrencesWithinHorizon,
  outlook,
  PLAIN_TIMING,
  type PlannedSchedule,
  type Remark,
  reckoningFault,
  recurrenceProblems,
  remarks,
  type WorkingCalendar,
} from '../../core/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';
import { useSchedules } from './api.ts';
import { type BenchDraft, draftOf, plannedOf } from './bench-draft.ts';

/** What the draft gives, computed by the core at every change. */
export type BenchPlan = {
  readonly forWhom: string;
  readonly who: string;
  /** The title of its next task; null before a template is chosen. */
  readonly title: string | null;
} & (
  | {
      readonly kind: 'plan';
      readonly outlook: ReturnType<typeof outlook>;
      readonly planned: PlannedSchedule;
      readonly remarks: readonly Remark[];
      /** Tasks that saving makes at once. */
      readonly owed: number;
    }
  | { readonly kind: 'problem'; readonly path: string; readonly message: string }
);

/** What makes one of its rules impossible, and where; null when all can be planned. */
function problemOf(
  draft: BenchDraft,
  calendar: WorkingCalendar,
  today: number,
): { path: string; message: string } | null {
  const rules = [
    { at: 'recurrence', recurrence: draft.recurrence },
    ...draft.revisions.map(({ recurrence }, i) => ({ at: `revisions.${i}.recurrence`, recurrence })),
  ];
  for (const { at, recurrence } of rules) {
    const fault = reckoningFault({ recurrence, timing: PLAIN_TIMING }, calendar, today);
    if (fault !== null) return { path: `${at}.rules`, message: fault };
    const [problem] = recurrenceProblems(recurrence, calendar);
    if (problem) return { path: `${at}.${problem.path}`, message: problem.message };
  }
  return null;
}

/** The plan of a draft, and what there is to say about it. */
export function usePlan(draft: BenchDraft, schedule: Schedule | null, templates: readonly TemplateLine[]): BenchPlan {
  const others = useSameWork(draft, schedule?.id ?? null);
  const { today, workingCalendar, horizonDays, name, people, subjects } = useWorkspace();
  return useMemo(() => {
    const subject = subjects.find(({ clientId, assetId }) => clientId === draft.clientId && assetId === draft.assetId);
    const person = people.find(({ id }) => id === draft.assigneeId);
    const template = templates.find(({ id }) => id === draft.templateId);
    const names = { forWhom: subject?.name ?? name, who: person?.name ?? 'nobody yet' };
    const parsed = scheduleInputSchema.safeParse({
      ...draft,
      templateId: template?.id ?? '00000000-0000-4000-8000-000000000000',
    });
    if (!parsed.success) {
      const [issue] = parsed.error.issues;
      return {
        ...names,
        title: null,
        kind: 'problem',
        path: issue?.path.join('.') ?? '',
        message: issue?.message ?? 'Something is missing.',
      };
    }
    const problem = problemOf(draft, workingCalendar, today);
    if (problem) return { ...names, title: null, kind: 'problem', ...problem };
    const planned = plannedOf(draft, schedule ?? {});
    const seen = outlook(planned, workingCalendar, today, template?.minutes ?? 0);
    const next = seen.next.find(isDated);
    const client =
      subjects.find(({ clientId, assetId }) => assetId === null && clientId !== null && clientId === draft.clientId)
        ?.name ?? null;
    const asset = draft.assetId === null ? null : (subject?.name ?? null);
    return {
      ...names,
      title: template
        ? fillTitle(template.titlePattern, { on: next?.on ?? today, client, asset, person: person?.name ?? null }) ||
          template.name
        : null,
      kind: 'plan',
      outlook: seen,
      planned,
      remarks: remarks(planned, seen, {
        calendar: workingCalendar,
        today,
        assigneeId: draft.assigneeId,
        others,
        before: schedule && plannedOf(draftOf(schedule), schedule),
      }),
      owed: occurrencesWithinHorizon(planned, workingCalendar, { from: today, upTo: today + horizonDays }).length,
    };
  }, [draft, schedule, others, templates, today, workingCalendar, horizonDays, name, people, subjects]);
}

/** Other schedules of the same template for the same person, to tell when they meet on a day. */
function useSameWork({ templateId, assigneeId }: BenchDraft, ownId: string | null): readonly PlannedSchedule[] {
  const { schedules } = useSchedules();
  return useMemo(
    () =>
      (schedules ?? []).filter(
        ({ id, template, assignee, state }) =>
          id !== ownId &&
          state !== 'problem' &&
          template.id === templateId &&
          assignee !== null &&
          assignee.id === assigneeId,
      ),
    [schedules, templateId, assigneeId, ownId],
  );
}
