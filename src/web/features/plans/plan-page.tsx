import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { PlanItemInput, ServicePlan } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay, plural, termsOf, type VisitRules } from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import type { ProblemError } from '../../kit/api.ts';
import { ChoiceBlank, DateBlank } from '../../kit/blanks.tsx';
import { useDraft } from '../../kit/draft.ts';
import { FieldError } from '../../kit/field-error.tsx';
import { MeanwhileLine } from '../../kit/meanwhile-line.tsx';
import { newKey } from '../../kit/new-key.ts';
import { Picker } from '../../kit/picker.tsx';
import { NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { useSteps } from '../../kit/steps.ts';
import { goToUnread } from '../../kit/unread.ts';
import { useTrying } from '../../kit/use-trying.ts';
import { LastChanged } from '../history/last-changed.tsx';
import { useLookedAt } from '../impact/looked-at.tsx';
import { useTemplates } from '../templates/api.ts';
import { usePlan, usePlanActions, usePlanLook } from './api.ts';
import { ItemRow, type ItemTemplate } from './item-row.tsx';
import { HoursByMonth } from './month-figures.tsx';
import {
  draftOfPlan,
  freshItem,
  freshPlan,
  moved,
  type PlanDraft,
  planDraftSchema,
  planOfDraft,
} from './plan-draft.ts';
import { WhoIsOn } from './who-is-on.tsx';

/** One service plan, made or changed in its place: its items, their months, and who is on it. */
export function PlanPage() {
  const { planId = 'new' } = useParams();
  const isNew = planId === 'new';
  const { may } = useWorkspace();
  const { data, error, mutate } = usePlan(isNew ? null : planId);
  if (isNew && !may('plan'))
    return <NotAllowed right="plan" what="write a plan" to="/plans" back="The service plans" />;
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!isNew && data?.id !== planId) return <Skeleton rows={12} />;
  return <Plan key={planId} plan={isNew ? null : (data ?? null)} />;
}

function Plan({ plan }: { readonly plan: ServicePlan | null }) {
  const { may, today } = useWorkspace();
  const navigate = useNavigate();
  const { create, change: save, impact } = usePlanActions();
  const initial = useMemo(() => (plan ? draftOfPlan(plan, today) : freshPlan(today)), [plan, today]);
  const { draft, base, isChanged, change, rebase, forget } = useDraft<PlanDraft>(
    plan ? `plan ${plan.id}` : 'new-plan',
    initial,
    planDraftSchema,
  );
  const isPlanChanged = JSON.stringify({ ...draft, from: '' }) !== JSON.stringify({ ...initial, from: '' });
  const [refusal, setRefusal] = useState<ProblemError | null>(null);
  const { busy: isMaking, trying } = useTrying();
  const { follow, percent } = useSteps();
  const { look, problem: unseen } = usePlanLook(
    may('plan') && draft.items.length > 0
      ? { planId: plan?.id ?? null, plan: { ...planOfDraft(draft), name: draft.name || 'new' }, from: draft.from }
      : null,
    plan?.version ?? null,
  );
  const set = (next: Partial<PlanDraft>) => {
    setRefusal(null);
    change({ ...draft, ...next });
  };
  const at = (path: string) => (refusal ?? unseen)?.problem.errors?.find((one) => one.path === path)?.message;
  const wrongOf = (index: number) =>
    (refusal ?? unseen)?.problem.errors?.find(
      ({ path }) => path.startsWith(`plan.items.${index}.`) || path.startsWith(`items.${index}`),
    )?.message;
  const body = { version: draft.version, plan: planOfDraft(draft), from: draft.from };
  const looked = useLookedAt<{ readonly what: string }>({
    impactOf: plan && ((_, reach) => impact(plan.id, { ...body, reach })),
    save: async (_, reach) => {
      if (!plan) return;
      await follow((key) => save(plan.id, { ...body, ...(reach ? { reach } : {}) }, key));
      forget();
    },
    hasReach: true,
    percent,
    onRefused: setRefusal,
  });
  const submit = () => {
    if (goToUnread() || looked.busy || isMaking || !may('plan')) return;
    setRefusal(null);
    if (plan) {
      if (isPlanChanged) looked.look({ what: `${draft.name}, a plan of ${plural(plan.clients, 'client')}` });
      return;
    }
    void trying(async () => {
      const made = await create(planOfDraft(draft));
      forget();
      await navigate(`/plans/${made.id}`);
    });
  };
  useKeys([{ key: 'Mod+Enter', says: 'Save', run: submit }]);
  const templates = useItemTemplates(plan);
  const mayChange = may('plan') && !plan?.isArchived;
  const setItem = (index: number, item: PlanItemInput) =>
    set({ items: draft.items.map((other, i) => (i === index ? item : other)) });
  const gone = plan?.items.filter(({ key }) => !draft.items.some((item) => item.key === key)) ?? [];
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>{`${draft.name || 'New plan'} · Service plans · Jolly Rota`}</title>
      {looked.dialog}
      {plan && isChanged && <MeanwhileLine base={base} mine={draft} now={initial} onMerge={rebase} />}
      <div className="page-head">
        <h1 className="truncate">{draft.name || 'New plan'}</h1>
        <span className="truncate text-note text-ink-2">
          {plan
            ? `service plan, ${plural(draft.items.length, 'item')}${plan.isArchived ? ', in the archive' : ''}`
            : 'a set of work that clients are put on'}
        </span>
        <span className="ml-auto text-right text-note leading-4" role="status">
          {refusal?.message ??
            (plan && isPlanChanged && look ? (
              <>
                <b className="block font-semibold">Changed, not saved.</b>
                <span className="text-ink-2">{sayReach(look.changes, look.keepsCount)}</span>
              </>
            ) : (
              ''
            ))}
        </span>
        {mayChange && isPlanChanged && (
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
        {mayChange && (
          <button
            type="button"
            className="btn btn-primary"
            disabled={looked.busy || isMaking || !isPlanChanged || draft.name.trim() === ''}
            onClick={submit}
          >
            {plan ? 'Look at what it changes' : 'Make the plan'}
          </button>
        )}
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_360px] border-t border-line-2 max-[1180px]:grid-cols-[minmax(0,1fr)_300px] max-[1000px]:block max-[1000px]:overflow-y-auto">
        <div className="min-h-0 overflow-y-auto pb-14 max-[1000px]:overflow-visible max-[1000px]:pb-0">
          <div className="grid grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)] border-b border-line-2 max-[1000px]:grid-cols-1">
            <AboutPlan draft={draft} plan={plan} mayChange={mayChange} isChanged={isPlanChanged} at={at} set={set} />
            <div className="border-l border-line px-4 pt-2 pb-1.5 max-[1000px]:border-l-0">
              {look && plan && plan.clients > 0 && <HoursByMonth look={look} clients={plan.clients} />}
            </div>
          </div>
          <ol aria-label="Items">
            {draft.items.map((item, i) => {
              const template = templates.of(item.templateId);
              return (
                template && (
                  <ItemRow
                    key={item.key}
                    item={item}
                    template={template}
                    look={look}
                    isNew={plan === null || !plan.items.some(({ key }) => key === item.key)}
                    wrong={wrongOf(i)}
                    onChange={mayChange ? (next) => setItem(i, next) : null}
                    onMove={(by) => set({ items: moved(draft.items, i, by) })}
                    onOut={() => set({ items: draft.items.filter((_, n) => n !== i) })}
                  />
                )
              );
            })}
            {gone.map((item) => (
              <li
                key={item.key}
                className="flex items-baseline gap-3 border-b border-line px-5 py-2 text-row text-ink-2 max-[720px]:px-4"
              >
                <s>{item.template.name}</s> is taken out
                <button
                  type="button"
                  className="link-line ml-auto"
                  onClick={() => {
                    const back = initial.items.find(({ key }) => key === item.key);
                    if (back) set({ items: [...draft.items, back] });
                  }}
                >
                  Put it back
                </button>
              </li>
            ))}
          </ol>
          {mayChange && (
            <div className="px-5 py-2.5 max-[720px]:px-4">
              <Picker
                label="Add an item"
                look="button"
                chosen=""
                placeholder="Add an item"
                options={templates.all.map(({ id, name }) => ({ key: id, name }))}
                onChoose={(templateId) =>
                  set({ items: [...draft.items, freshItem(`i${newKey().slice(0, 8)}`, templateId, today)] })
                }
              />
            </div>
          )}
          {plan && (
            <div className="px-5 max-[720px]:px-4">
              <LastChanged of="plan" id={plan.id} />
              {may('plan') && <Archiving plan={plan} isChanged={isPlanChanged} />}
            </div>
          )}
        </div>
        <aside className="min-h-0 overflow-y-auto border-l border-line-2 max-[1000px]:border-t max-[1000px]:border-l-0 max-[1000px]:pb-10">
          {plan ? <WhoIsOn plan={plan} look={look} isChanged={isPlanChanged} /> : <HowItGoes />}
        </aside>
      </div>
    </div>
  );
}

const sayReach = (changes: number, keeps: number): string =>
  [
    changes === 0 ? 'It changes nothing of a client yet' : `It changes ${plural(changes, 'client')}`,
    ...(keeps > 0 ? [keeps === 1 ? '1 keeps its own' : `${keeps} keep their own`] : []),
  ].join(', ');

function HowItGoes() {
  return (
    <p className="px-5 py-3 text-row leading-5.5 text-ink-2">
      Add what every client of this kind gets. Each item has a template, a rule and who does it. Once the plan is made,
      clients are put on it, each with what is different for them.
    </p>
  );
}

interface AboutProps {
  readonly draft: PlanDraft;
  readonly plan: ServicePlan | null;
  readonly mayChange: boolean;
  readonly isChanged: boolean;
  readonly at: (path: string) => string | undefined;
  readonly set: (next: Partial<PlanDraft>) => void;
}

function AboutPlan({ draft, plan, mayChange, isChanged, at, set }: AboutProps) {
  const { today } = useWorkspace();
  if (!mayChange)
    return (
      <p className="px-5 py-3 text-row leading-5.5 text-ink-2 max-[720px]:px-4">
        {draft.note || 'A plan of recurring work.'}
      </p>
    );
  const day: CivilDay = dayOfIso(draft.from);
  return (
    <div className="px-5 py-2 text-row leading-8 max-[720px]:px-4">
      <h2 className="text-body leading-6 text-primary">The plan</h2>
      called{' '}
      <input
        className="blank h-7 w-[200px]"
        aria-label="Name"
        aria-invalid={at('plan.name') !== undefined}
        aria-describedby="plan-name-error"
        placeholder="Resident berth"
        maxLength={60}
        value={draft.name}
        onChange={({ target }) => set({ name: target.value })}
      />{' '}
      <FieldError id="plan-name-error" message={at('plan.name') ?? at('name')} />
      goes on{' '}
      <ChoiceBlank
        label="Goes on"
        value={draft.rollsOn}
        options={[
          ['itself', 'by itself each year'],
          ['asks', 'once each year is looked through'],
        ]}
        onChange={(rollsOn) => set({ rollsOn })}
      />
      {plan && plan.clients > 0 && (
        <>
          <br />
          <span className={isChanged ? '' : 'text-ink-2'}>a change counts from </span>
          <DateBlank
            label="A change counts from"
            value={Math.max(day, today)}
            onChange={(from) => set({ from: isoOfDay(from) })}
          />
          <span className="block text-note leading-4.5 text-ink-2">
            Nothing before that day moves; who does it holds for all that is not begun.
          </span>
          <FieldError message={at('from')} />
        </>
      )}
      <input
        className="blank mt-1 block h-7 w-full"
        aria-label="Note"
        placeholder="for whom it is meant"
        maxLength={2000}
        value={draft.note}
        onChange={({ target }) => set({ note: target.value })}
      />
    </div>
  );
}

function Archiving({ plan, isChanged }: { readonly plan: ServicePlan; readonly isChanged: boolean }) {
  const { archive } = usePlanActions();
  const { busy, trying } = useTrying();
  if (plan.clients > 0)
    return (
      <p className="mt-3 text-note leading-5 text-ink-2">
        It can go into the archive once nobody is on it.{' '}
        <Link className="link-line" to={`/clients?plan=${plan.id}`}>
          Those who are
        </Link>
      </p>
    );
  return (
    <p className="mt-3">
      <button
        type="button"
        className="link-line text-row"
        disabled={busy || isChanged}
        onClick={() => void trying(() => archive(plan.id, plan.version, !plan.isArchived))}
      >
        {plan.isArchived ? `Bring ${plan.name} back` : `Archive ${plan.name}`}
      </button>
    </p>
  );
}

/** "7 days", where its type of work is announced. */
function noticeOf(visits: VisitRules, workType: string | null): string | null {
  const period = termsOf(visits, workType)?.terms.period;
  return period ? plural(period.days, period.unit === 'day' ? 'day' : 'working day') : null;
}

/** Templates by id: those of the plan, and all that can be added. */
function useItemTemplates(plan: ServicePlan | null) {
  const { templates } = useTemplates();
  const { visits } = useWorkspace();
  return useMemo(() => {
    const known = new Map<string, ItemTemplate>(plan?.items.map(({ template }) => [template.id, template]));
    for (const one of templates ?? [])
      if (!known.has(one.id))
        known.set(one.id, {
          ...{ id: one.id, name: one.name, estimateMinutes: one.minutes, isArchived: one.archivedOn !== null },
          ...{ tasks: one.makes, notice: noticeOf(visits, one.workType) },
        });
    return {
      of: (id: string) => known.get(id),
      all: (templates ?? []).filter(({ archivedOn }) => archivedOn === null),
    };
  }, [plan, templates, visits]);
}
