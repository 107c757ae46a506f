import { useMemo } from 'react';
import { directoryAddresses } from '../../../../contract/addresses.ts';
import {
  type Schedule,
  type ScheduleFilter,
  scheduleInputSchema,
  type TemplateLine,
} from '../../../../contract/index.ts';
import {
  type Assigner,
  type Assignment,
  admitted,
  type CivilDay,
  callNames,
  eachNeedsDates,
  fillTitle,
  isDated,
  joinAnd,
  minutesOfHolder,
  type Outlook,
  occurrencesWithinHorizon,
  onlyPersonOf,
  outlook,
  PLAIN_TIMING,
  type PlannedOccurrence,
  type PlannedSchedule,
  plural,
  type Remark,
  reckoningFault,
  recurrenceProblems,
  remarks,
  type SetPart,
  type SetTask,
  type Step,
  sayRule,
  setParts,
  tasksOfSet,
  termsOf,
  type WorkingCalendar,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAnswer } from '../../../kit/answer.ts';
import { sayDay } from '../../../kit/ways.ts';
import { useForWhom } from '../../clients/api.ts';
import { useColleagues } from '../../people/colleagues.ts';
import { useTemplate } from '../../templates/api.ts';
import { useWholeSchedules } from '../api.ts';
import type { RehearsalWords } from '../rehearsal/rehearsal-lines.ts';
import type { RehearsalQuestion } from '../rehearsal/rehearsal-worker.ts';
import { assignerOf, NOT_KNOWN_YET, partsFor, remembered, workBeside } from '../who.ts';
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
      /** The tasks that saving makes at once, of all its sets. */
      readonly owed: readonly SetTask[];
      readonly set: RehearsalQuestion['set'];
      /** Who has each date; nobody, until it is known who is there. */
      readonly whose: Assigner;
      /** The next date of each person, by their ids. */
      readonly nextOf: ReadonlyMap<string, CivilDay>;
      readonly titleOf: RehearsalWords['title'];
    }
  | { readonly kind: 'problem'; readonly path: string; readonly message: string }
);

/** A template as far as its line in the library tells it, until the rest has come. */
const ALONE = { demands: [], tickets: [], signOff: null, steps: [] } as const;

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
  const message = eachNeedsDates(
    draft.assignment,
    rules.map(({ recurrence }) => recurrence),
  );
  return message === null ? null : { path: 'assignment', message };
}

/** The plan of a draft, and what there is to say about it. */
export function usePlan(draft: BenchDraft, schedule: Schedule | null, templates: readonly TemplateLine[]): BenchPlan {
  const { data: whole } = useTemplate(draft.templateId || null);
  const others = useSameWork(draft, schedule?.id ?? null);
  const { today, workingCalendar, horizonDays, name, people, visits } = useWorkspace();
  const forWhom = useForWhom(draft);
  const colleagues = useColleagues(schedule?.id ?? null);
  const usualPersonId = useUsualPerson(draft, whole?.steps ?? []);
  return useMemo(() => {
    const template = templates.find(({ id }) => id === draft.templateId);
    const parts = setParts(
      whole?.id === draft.templateId
        ? whole
        : { titlePattern: template?.titlePattern ?? '', estimateMinutes: template?.minutes ?? 0, ...ALONE },
    );
    const rule = draft.assignment;
    const who = colleagues && usualPersonId !== undefined ? { rule, colleagues, usualPersonId, parts } : null;
    const set = { parts, who };
    const names = {
      forWhom: forWhom ? ((forWhom.asset ?? forWhom.client)?.name ?? name) : '…',
      who: sayRule(rule, { today, people }),
    };
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
    const whose = who ? remembered(assignerOf(who, planned, workingCalendar), rule, seen.coming) : NOT_KNOWN_YET;
    const minutesAYear = eachMinutes(seen, whose, parts) ?? seen.minutesAYear;
    const next = seen.next.find(isDated);
    const nameIn = (assignment: Assignment | undefined) =>
      assignment?.kind === 'one' ? (people.find(({ id }) => id === assignment.personId)?.name ?? null) : null;
    const client = forWhom?.client?.name ?? null;
    const asset = forWhom?.asset?.name ?? null;
    const titleOf: RehearsalWords['title'] = (task, { on }) =>
      fillTitle(task.titlePattern, {
        on,
        client,
        asset,
        person: people.find(({ id }) => id === task.assigneeId)?.name ?? null,
        type: template?.workType ?? null,
      }) ||
      (template?.name ?? 'New schedule');
    const ofParts = partsFor(who, workingCalendar);
    const owed = admitted(
      occurrencesWithinHorizon(planned, workingCalendar, { from: today, upTo: today + horizonDays, parts: set.parts }),
      draft.overlap,
      [],
    ).now.flatMap((occurrence) => tasksOfSet(occurrence, set.parts, workingCalendar, whose(occurrence), ofParts));
    return {
      ...names,
      title: template
        ? fillTitle(template.titlePattern, {
            on: next?.on ?? today,
            client,
            asset,
            person: nameIn(next && whose(next)),
          }) || template.name
        : null,
      kind: 'plan',
      outlook: { ...seen, minutesAYear },
      planned,
      remarks: [
        ...(schedule ? [] : bornLate(owed, today)),
        ...remarks(planned, seen, {
          calendar: workingCalendar,
          today,
          ...(who === null
            ? {}
            : {
                who: {
                  whose,
                  nameOf: (id) => callNames(people).get(id) ?? 'somebody',
                  load: workBeside(who, workingCalendar, today + horizonDays),
                },
              }),
          others,
          // At a client's: work of the same type at home is no visit.
          notice: client === null ? null : termsOf(visits, template?.workType ?? null),
          before: schedule && plannedOf(draftOf(schedule), schedule),
        }),
      ],
      owed,
      set,
      whose,
      nextOf: nextOfEach(seen.coming, whose),
      titleOf,
    };
  }, [
    draft,
    schedule,
    others,
    templates,
    whole,
    today,
    workingCalendar,
    horizonDays,
    name,
    people,
    visits,
    forWhom,
    colleagues,
    usualPersonId,
  ]);
}

/** Minutes of a year where each of several has one of their own; null where nobody has. */
function eachMinutes({ coming }: Outlook, whose: Assigner, parts: readonly SetPart[]): number | null {
  const ofEach = minutesOfHolder(parts);
  const once = parts.reduce((sum, { estimateMinutes }) => sum + estimateMinutes, 0) - ofEach;
  let [isEach, sum] = [false, 0];
  for (const one of coming) {
    const given = isDated(one) ? whose(one) : null;
    if (given === null) continue;
    isEach ||= given.kind === 'eachOf';
    sum += once + ofEach * (given.kind === 'eachOf' ? given.personIds.length : 1);
  }
  return isEach ? sum : null;
}

/** The first date that each has from today on. */
function nextOfEach(coming: readonly PlannedOccurrence[], whose: Assigner): ReadonlyMap<string, CivilDay> {
  const next = new Map<string, CivilDay>();
  for (const one of coming) {
    const given = isDated(one) ? whose(one) : null;
    if (given?.kind === 'one' && !next.has(given.personId)) next.set(given.personId, one.on);
  }
  return next;
}

/** Whoever looks after the client of a draft, where its rule or a step asks for that: null for nobody, undefined until it is known. */
function useUsualPerson({ assignment, clientId }: BenchDraft, steps: readonly Step[]): string | null | undefined {
  const isOfStep = steps.some((step) => step.kind === 'task' && step.assignee.by === 'usualPerson');
  const isAsked = (assignment.kind === 'usualPerson' || isOfStep) && clientId !== null;
  const { data } = useAnswer(directoryAddresses.client, isAsked ? { params: { clientId } } : null);
  return isAsked ? data?.usualPersonId : null;
}

/** Others that are held against a draft, those with the nearest dates. */
const OTHERS = { most: 120 };

/** Other schedules of the same template for the same person, to tell when they meet on a day. */
function useSameWork({ templateId, assignment }: BenchDraft, ownId: string | null): readonly PlannedSchedule[] {
  const assigneeId = onlyPersonOf(assignment);
  const filter = useMemo<ScheduleFilter | null>(
    () => (templateId && assigneeId ? { templateId, person: assigneeId } : null),
    [templateId, assigneeId],
  );
  const { schedules } = useWholeSchedules(filter, OTHERS);
  return useMemo(
    () =>
      (filter && schedules ? schedules : []).filter(
        ({ id, template, assignment: theirs, state }) =>
          // What was asked for before stands there until the answer comes.
          id !== ownId && state !== 'problem' && template.id === templateId && onlyPersonOf(theirs) === assigneeId,
      ),
    [filter, schedules, templateId, assigneeId, ownId],
  );
}

/** Tasks of the first sets whose day has passed when they are made. */
function bornLate(owed: readonly SetTask[], today: number): Remark[] {
  const late = owed.filter(({ due }) => due < today);
  if (late.length === 0) return [];
  const dates = [...new Set(late.map(({ due }) => due))].sort((a, b) => a - b);
  const text = `${plural(late.length, 'task')} ${late.length === 1 ? 'is' : 'are'} late at once: due ${joinAnd(dates.slice(0, 4).map((day) => sayDay(day, today)))}${dates.length > 4 ? ' and before today' : ''}, before today. Begin later to leave ${late.length === 1 ? 'it' : 'them'} out.`;
  return [{ kind: 'appears late', count: late.length, dates, text }];
}
