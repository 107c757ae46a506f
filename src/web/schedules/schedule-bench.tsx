import { useCallback, useDeferredValue, useMemo, useRef, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import {
  type Impact,
  type Reach,
  type Schedule,
  scheduleInputSchema,
  type Task,
  type TemplateLine,
  taskEndpoints,
} from '../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  fillTitle,
  isDated,
  isoOfDay,
  occurrencesWithinHorizon,
  outlook,
  type PlannedSchedule,
  plural,
  type Remark,
  recurrenceProblems,
  remarks,
  reviseFrom,
  sayDate,
  type WorkingCalendar,
} from '../../core/index.ts';
import { useAnswer } from '../answer.ts';
import { ProblemError } from '../api.ts';
import { LastChanged } from '../history/last-changed.tsx';
import { ImpactDialog } from '../impact/impact-dialog.tsx';
import { needsLook } from '../impact/impact-words.ts';
import { RunOne } from '../runs/run-one.tsx';
import { type TideControl, useTide } from '../shell/frame.tsx';
import { useKeys } from '../shell/keys.tsx';
import { sayTrouble } from '../shell/toast.tsx';
import { useWorkspace } from '../shell/workspace.tsx';
import { useTemplates } from '../templates/api.ts';
import { useDraft } from '../ui/draft.ts';
import { MeanwhileLine } from '../ui/meanwhile-line.tsx';
import { Skeleton, Trouble } from '../ui/states.tsx';
import { useSchedule, useScheduleActions, useSchedules } from './api.ts';
import { type BenchDraft, draftOf, freshDraft, plannedOf } from './bench-draft.ts';
import { BenchForm } from './bench-form.tsx';
import { changesOf } from './chosen-changes.ts';
import { useSchedulesLookedAt } from './looked-at.tsx';
import { RehearsalSheet } from './rehearsal-sheet.tsx';
import { WhatThisMakes } from './what-this-makes.tsx';

/** Making a schedule or changing one: the form on the left, what it makes on the right, at every keystroke. */
export default function ScheduleBench() {
  const { scheduleId = 'new' } = useParams();
  const isNew = scheduleId === 'new';
  const { data: schedule, error, mutate } = useSchedule(isNew ? null : scheduleId);
  const { templates } = useTemplates();
  const [search] = useSearchParams();
  const taskId = search.get('task');
  const { data: task } = useAnswer(taskEndpoints.one, taskId === null ? null : { params: { taskId } });
  if (error && !schedule) return <Trouble error={error} retry={() => void mutate()} />;
  if (!templates || (!isNew && schedule?.id !== scheduleId) || (taskId !== null && !task))
    return <Skeleton rows={12} />;
  return (
    <Bench key={scheduleId} schedule={isNew ? null : (schedule ?? null)} templates={templates} task={task ?? null} />
  );
}

interface BenchProps {
  /** The task whose dates a new schedule begins from. */
  readonly task: Task | null;
  readonly schedule: Schedule | null;
  readonly templates: readonly TemplateLine[];
}

function Bench({ schedule, templates, task }: BenchProps) {
  const workspace = useWorkspace();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const { save, impact } = useScheduleActions();
  const [looking, setLooking] = useState<Impact | null>(null);
  const [running, setRunning] = useState(false);
  const around = useSchedulesLookedAt({ onSaved: () => undefined, onRefused: sayTrouble });
  const initial = useMemo(
    () =>
      schedule
        ? draftOf(schedule)
        : freshDraft(workspace.today, {
            templateId: search.get('template') ?? '',
            template: templates.find(({ id }) => id === search.get('template')),
            like: search.get('like'),
            task,
            clientId: search.get('client') || null,
            assetId: search.get('asset') || null,
          }),
    [schedule, workspace.today, search, templates, task],
  );
  const { draft, base, isChanged, change, rebase, forget } = useDraft(schedule ? schedule.id : 'new-schedule', initial);
  const [refusal, setRefusal] = useState<ProblemError | null>(null);
  const [chosenStretch, setStretch] = useState(0);
  const stretch = Math.min(chosenStretch, draft.revisions.length);
  const [busy, setBusy] = useState(false);
  // The form answers at once; what it makes follows as soon as there is time, and is given up for the next keystroke.
  const shown = useDeferredValue(draft);
  const plan = usePlan(shown, schedule, templates);
  const latest = useRef(draft);
  latest.current = draft;
  const edit = useMemo(
    () =>
      workspace.me.isManager
        ? {
            onChange: change,
            onRevise: (day: CivilDay) => {
              const revised = reviseFrom(latest.current, day);
              change(revised.draft);
              setStretch(revised.stretch);
            },
          }
        : null,
    [workspace.me.isManager, change],
  );
  const rehearsing = search.get('rehearse');
  const rehearse = useCallback(
    (span: string | null) =>
      setSearch(
        (before) => {
          const next = new URLSearchParams(before);
          if (span === null) next.delete('rehearse');
          else next.set('rehearse', span);
          return next;
        },
        { replace: true },
      ),
    [setSearch],
  );
  const rehearseYear = useCallback(() => rehearse(yearFrom(workspace.today)), [rehearse, workspace.today]);
  const template = templates.find(({ id }) => id === draft.templateId);

  const days = useMemo(
    () => (plan.kind === 'plan' ? plan.outlook.coming.filter(isDated).map(({ on }) => on) : []),
    [plan],
  );
  const tide = useMemo<TideControl>(
    () => ({
      chosen: null,
      spans: false,
      marks: { days, label: 'this schedule' },
    }),
    [days],
  );
  useTide(tide);

  const trying = async (work: () => Promise<void>) => {
    setBusy(true);
    setRefusal(null);
    try {
      await work();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setLooking(null);
      setRefusal(error);
    } finally {
      setBusy(false);
    }
  };
  const keep = (reach?: Reach) =>
    trying(async () => {
      const saved = await save(draft, schedule?.id ?? null, reach);
      setLooking(null);
      forget();
      await navigate(schedule ? `/schedules/${saved.id}` : '/schedules');
    });
  /** A change is looked at before it is saved; a new schedule shows on the bench what it makes. */
  const submit = () => {
    if (!template || plan.kind === 'problem' || busy || looking) return;
    if (!schedule) return void keep();
    void trying(async () => {
      const first = await impact(draft, schedule.id, { open: false, also: [] });
      if (needsLook(first)) setLooking(first);
      else await keep();
    });
  };
  useKeys([{ key: 'Mod+Enter', says: 'Save', run: submit }]);

  const problem =
    refusal?.message ?? (plan.kind === 'problem' ? plan.message : template ? null : 'Choose what is to be done.');
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>{`${template?.name ?? 'New schedule'} · Schedule bench · Jolly Rota`}</title>
      {looking && schedule && (
        <ImpactDialog
          what={[template?.name, plan.forWhom].filter(Boolean).join(', ')}
          first={looking}
          ask={(reach) => impact(draft, schedule.id, reach)}
          onSave={(reach) => void keep(reach)}
          onClose={() => setLooking(null)}
        />
      )}
      {around.dialog}
      {schedule && isChanged && (
        <MeanwhileLine
          base={base}
          mine={draft}
          now={initial}
          onMerge={(next) => {
            setRefusal(null);
            rebase(next);
          }}
        />
      )}
      {running && schedule && <RunOne schedule={schedule} onClose={() => setRunning(false)} />}
      <div className="page-head !min-h-[52px]">
        <h1 className="truncate">{template?.name ?? 'New schedule'}</h1>
        <span className="truncate text-[13px] text-ink-2">
          {schedule
            ? `schedule for ${plan.forWhom}, running since ${sayDate(dayOfIso(schedule.since))}`
            : template
              ? `a schedule for ${plan.forWhom}`
              : ''}
        </span>
        <span className={`ml-auto text-right text-[13px] leading-4 ${refusal ? 'text-late' : ''}`} role="status">
          {problem ??
            (schedule?.deletedOn
              ? `Deleted on ${sayDate(dayOfIso(schedule.deletedOn))}: it makes nothing.`
              : schedule && isChanged
                ? 'Changed, not saved.'
                : '')}
        </span>
        {workspace.me.isManager && (
          <>
            {schedule?.deletedOn && (
              <button
                type="button"
                className="btn"
                onClick={() =>
                  around.look(changesOf([schedule], { kind: 'bringBack' }, workspace.workingCalendar, workspace.today))
                }
              >
                Bring it back
              </button>
            )}
            {schedule && !schedule.deletedOn && !isChanged && (
              <button type="button" className="btn" onClick={() => setRunning(true)}>
                Run it …
              </button>
            )}
            {isChanged && (
              <button
                type="button"
                className="btn"
                onClick={() => {
                  forget();
                  setRefusal(null);
                }}
              >
                Put back
              </button>
            )}
            <button
              type="button"
              className="btn btn-primary"
              disabled={busy || !template || plan.kind === 'problem' || (schedule !== null && !isChanged)}
              onClick={submit}
            >
              {schedule
                ? 'Save the change'
                : plan.kind === 'plan' && plan.owed > 0
                  ? `Save and make ${plural(plan.owed, 'task')}`
                  : 'Save the schedule'}
            </button>
          </>
        )}
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[464px_minmax(0,1fr)] border-t border-line-2 max-[1000px]:block max-[1000px]:overflow-y-auto">
        <BenchForm
          draft={draft}
          stretch={stretch}
          onStretch={setStretch}
          templates={templates}
          problem={plan.kind === 'problem' ? plan : null}
          title={plan.title}
          onChange={change}
        />
        <div className="relative flex min-h-0 min-w-0">
          <section
            className="min-w-0 flex-1 overflow-y-auto pb-10 pl-6 pr-5 pt-3"
            aria-label="What this makes"
            // It scrolls and holds nothing to click: by keyboard it can be reached and read to its end only so.
            // biome-ignore lint/a11y/noNoninteractiveTabindex: see above
            tabIndex={0}
          >
            <WhatThisMakes
              plan={plan}
              draft={shown}
              stretch={Math.min(stretch, shown.revisions.length)}
              edit={edit}
              onRehearse={rehearseYear}
            />
            {schedule && <LastChanged of="schedule" id={schedule.id} />}
          </section>
          {rehearsing !== null && plan.kind === 'plan' && (
            <RehearsalSheet
              span={rehearsing}
              schedule={plan.planned}
              title={template?.name ?? 'New schedule'}
              assigneeId={draft.assigneeId}
              onSpan={rehearse}
              onClose={() => rehearse(null)}
            />
          )}
        </div>
      </div>
    </div>
  );
}

/** The coming year as the address says it. */
function yearFrom(today: CivilDay): string {
  return `${isoOfDay(today)}..${isoOfDay(today + 364)}`;
}

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
function problemOf(draft: BenchDraft, calendar: WorkingCalendar): { path: string; message: string } | null {
  const rules = [
    { at: 'recurrence', recurrence: draft.recurrence },
    ...draft.revisions.map(({ recurrence }, i) => ({ at: `revisions.${i}.recurrence`, recurrence })),
  ];
  for (const { at, recurrence } of rules) {
    const [problem] = recurrenceProblems(recurrence, calendar);
    if (problem) return { path: `${at}.${problem.path}`, message: problem.message };
  }
  return null;
}

function usePlan(draft: BenchDraft, schedule: Schedule | null, templates: readonly TemplateLine[]): BenchPlan {
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
    const problem = problemOf(draft, workingCalendar);
    if (problem) return { ...names, title: null, kind: 'problem', ...problem };
    const planned = plannedOf(draft, schedule?.last);
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
        before: schedule && plannedOf(draftOf(schedule), schedule.last),
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
