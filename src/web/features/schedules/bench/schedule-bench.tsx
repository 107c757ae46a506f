import { useCallback, useDeferredValue, useMemo, useRef, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { taskAddresses } from '../../../../contract/addresses.ts';
import type { Schedule, Task, TemplateLine } from '../../../../contract/index.ts';
import { type CivilDay, datesBetweenOf, isDated, isoOfDay, reviseFrom } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { type TideControl, useTide } from '../../../app/shell/shell-context.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAnswer } from '../../../kit/answer.ts';
import type { ProblemError } from '../../../kit/api.ts';
import { useDraft } from '../../../kit/draft.ts';
import { MeanwhileLine } from '../../../kit/meanwhile-line.tsx';
import { NotAllowed, Skeleton, Trouble } from '../../../kit/states.tsx';
import { goToUnread } from '../../../kit/unread.ts';
import { LastChanged } from '../../history/last-changed.tsx';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { RunOne } from '../../runs/run-one.tsx';
import { ChaseSchedule } from '../../tasks/day/chase-schedule.tsx';
import { useTemplates } from '../../templates/api.ts';
import { useSchedule, useScheduleActions } from '../api.ts';
import { changesOf } from '../list/chosen-changes.ts';
import { useSchedulesLookedAt } from '../looked-at.tsx';
import { RehearsalSheet } from '../rehearsal/rehearsal-sheet.tsx';
import { type BenchDraft, benchDraftSchema, draftOf, freshDraft, plannedOf } from './bench-draft.ts';
import { BenchForm } from './bench-form.tsx';
import { BenchHead } from './bench-head.tsx';
import { usePlan } from './bench-plan.ts';
import { WhatThisMakes } from './what-this-makes.tsx';

/** Making a schedule or changing one: the form on the left, what it makes on the right, at every keystroke. */
export default function ScheduleBench() {
  const { scheduleId = 'new' } = useParams();
  const isNew = scheduleId === 'new';
  const { may } = useWorkspace();
  const { data: schedule, error, mutate } = useSchedule(isNew ? null : scheduleId);
  const { templates } = useTemplates();
  const [search] = useSearchParams();
  const taskId = search.get('task');
  const { data: task } = useAnswer(taskAddresses.one, taskId === null ? null : { params: { taskId } });
  if (isNew && !may('plan'))
    return <NotAllowed right="plan" what="set a schedule" to="/schedules" back="The schedules" />;
  if (error && !schedule) return <Trouble error={error} retry={() => void mutate()} />;
  if (!templates || (!isNew && schedule?.id !== scheduleId) || (taskId !== null && !task))
    return <Skeleton rows={12} />;
  return (
    <Bench
      key={isNew ? newKeyOf(search) : scheduleId}
      schedule={isNew ? null : (schedule ?? null)}
      templates={templates}
      task={task ?? null}
    />
  );
}

const NO_DATES: ReadonlyMap<string, CivilDay> = new Map();

interface BenchProps {
  /** The task whose dates a new schedule begins from. */
  readonly task: Task | null;
  readonly schedule: Schedule | null;
  readonly templates: readonly TemplateLine[];
}

function Bench({ schedule, templates, task }: BenchProps) {
  const workspace = useWorkspace();
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const { save, impact } = useScheduleActions();
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
  const { draft, base, isChanged, change, rebase, forget } = useDraft(
    schedule ? schedule.id : newKeyOf(search),
    initial,
    benchDraftSchema,
  );
  const [refusal, setRefusal] = useState<ProblemError | null>(null);
  const [chosenStretch, setStretch] = useState(0);
  const stretch = Math.min(chosenStretch, draft.revisions.length);
  // The form answers at once; what it makes follows as soon as there is time, and is given up for the next keystroke.
  const shown = useDeferredValue(draft);
  const plan = usePlan(shown, schedule, templates);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const datesBetween = useMemo(
    () => datesBetweenOf(plannedOf(draft, schedule ?? {}), workspace.workingCalendar, draft.assignment),
    [draft, schedule, workspace.workingCalendar],
  );
  const latest = useRef(draft);
  latest.current = draft;
  const mayPlan = workspace.may('plan');
  const edit = useMemo(
    () =>
      mayPlan
        ? {
            onChange: change,
            onRevise: (day: CivilDay) => {
              const revised = reviseFrom(latest.current, day);
              change(revised.draft);
              setStretch(revised.stretch);
            },
          }
        : null,
    [mayPlan, change],
  );
  const { rehearsing, rehearse, rehearseYear } = useRehearsing();
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

  /** A change is looked at before it is saved; a new schedule shows on the bench what it makes. */
  const { look, busy, dialog } = useLookedAt<{ readonly what: string; readonly draft: BenchDraft }>({
    impactOf: schedule && ((asked, reach) => impact(asked.draft, schedule.id, reach)),
    save: async (asked, reach) => {
      const saved = await save(asked.draft, schedule?.id ?? null, reach);
      forget();
      await navigate(schedule ? `/schedules/${saved.id}` : '/schedules');
    },
    hasReach: true,
    onRefused: setRefusal,
  });
  const submit = () => {
    if (!template || plan.kind === 'problem' || busy || goToUnread()) return;
    setRefusal(null);
    look({ what: [template.name, plan.forWhom].filter(Boolean).join(', '), draft });
  };
  useKeys([{ key: 'Mod+Enter', says: 'Save', run: submit }]);

  const problem =
    refusal?.message ?? (plan.kind === 'problem' ? plan.message : template ? null : 'Choose what is to be done.');
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>{`${template?.name ?? 'New schedule'} · Schedule bench · Jolly Rota`}</title>
      {dialog}
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
      <BenchHead
        schedule={schedule}
        name={template?.name ?? null}
        plan={plan}
        isChanged={isChanged}
        status={problem}
        isRefused={refusal !== null}
        busy={busy}
        onBringBack={() =>
          schedule &&
          around.look(changesOf([schedule], { kind: 'bringBack' }, workspace.workingCalendar, workspace.today))
        }
        onRun={() => setRunning(true)}
        onPutBack={() => {
          forget();
          setRefusal(null);
        }}
        onSave={submit}
      />
      <div className="grid min-h-0 flex-1 grid-cols-[464px_minmax(0,1fr)] border-t border-line-2 max-[1000px]:block max-[1000px]:overflow-y-auto">
        <BenchForm
          draft={draft}
          stretch={stretch}
          onStretch={setStretch}
          templates={templates}
          problem={plan.kind === 'problem' ? plan : null}
          title={plan.title}
          who={{
            place: schedule ? schedule.id : newKeyOf(search),
            datesBetween,
            nextOf: plan.kind === 'plan' ? plan.nextOf : NO_DATES,
            chosenId,
            onChosen: setChosenId,
          }}
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
              ownId={schedule?.id ?? null}
              draft={shown}
              stretch={Math.min(stretch, shown.revisions.length)}
              edit={edit}
              chosenId={chosenId}
              onRehearse={rehearseYear}
            />
            {schedule && <ChaseSchedule scheduleId={schedule.id} />}
            {schedule && <LastChanged of="schedule" id={schedule.id} />}
          </section>
          {rehearsing !== null && plan.kind === 'plan' && (
            <RehearsalSheet
              span={rehearsing}
              schedule={plan.planned}
              set={plan.set}
              title={template?.name ?? 'New schedule'}
              titleOf={plan.titleOf}
              onSpan={rehearse}
              onClose={() => rehearse(null)}
            />
          )}
        </div>
      </div>
    </div>
  );
}

/** Each new schedule has a draft of its own, by what it is begun from: a template, an example, a task, a client. */
function newKeyOf(search: URLSearchParams): string {
  const from = ['template', 'like', 'task', 'client', 'asset'].flatMap((name) => search.get(name) ?? []);
  return ['new-schedule', ...from].join('.');
}

/** The span that is rehearsed, as the address says it; null for none. */
function useRehearsing() {
  const { today } = useWorkspace();
  const [search, setSearch] = useSearchParams();
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
  const rehearseYear = useCallback(() => rehearse(yearFrom(today)), [rehearse, today]);
  return { rehearsing: search.get('rehearse'), rehearse, rehearseYear };
}

/** The coming year as the address says it. */
function yearFrom(today: CivilDay): string {
  return `${isoOfDay(today)}..${isoOfDay(today + 364)}`;
}
