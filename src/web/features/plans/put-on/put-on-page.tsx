import { useEffect, useMemo, useState } from 'react';
import { Link, useLocation, useNavigate, useSearchParams } from 'react-router';
import type { PlanLine, PutOnLook, ServicePlan } from '../../../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay, plural } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { type TideControl, useTide } from '../../../app/shell/shell-context.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ProblemError } from '../../../kit/api.ts';
import { ChoiceBlank, DateBlank } from '../../../kit/blanks.tsx';
import { useDraft } from '../../../kit/draft.ts';
import { Empty, NotAllowed, Skeleton, Trouble } from '../../../kit/states.tsx';
import { useSteps } from '../../../kit/steps.ts';
import { goToUnread } from '../../../kit/unread.ts';
import { usePlan, usePlanActions, usePlans, usePutOnLook } from '../api.ts';
import { StartBlank } from '../start-blank.tsx';
import { AddClient } from './add-client.tsx';
import { CellEditor } from './cell-editor.tsx';
import { type CellPlace, isChosenClients, type PutOnDraft, putOnDraftSchema } from './put-on-draft.ts';
import { PutOnGrid } from './put-on-grid.tsx';
import { PutOnYear } from './put-on-year.tsx';

/** Puts one or many clients on a plan: what each would have, before any of it is made. */
export default function PutOnPage() {
  const { may } = useWorkspace();
  const { data, error, mutate } = usePlans();
  if (!may('plan'))
    return <NotAllowed right="plan" what="put clients on a plan" to="/plans" back="The service plans" />;
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={12} />;
  const plans = data.plans.filter(({ isArchived, items }) => !isArchived && items.length > 0);
  if (plans.length === 0)
    return (
      <Empty title="There is no plan with anything in it yet.">
        <Link className="link-line" to="/plans/new">
          Write one
        </Link>
        , then put clients on it.
      </Empty>
    );
  return <PuttingOn plans={plans} />;
}

function PuttingOn({ plans }: { readonly plans: readonly PlanLine[] }) {
  const { today } = useWorkspace();
  const navigate = useNavigate();
  const { putOn } = usePlanActions();
  const [search, setSearch] = useSearchParams();
  const { state } = useLocation();
  const { draft, change, forget } = useDraft<PutOnDraft>(
    'put-on',
    { planId: '', from: isoOfDay(today), start: null, clients: [] },
    putOnDraftSchema,
  );
  // What another page has chosen comes in the place of what stood here, once.
  // biome-ignore lint/correctness/useExhaustiveDependencies: taken over once
  useEffect(() => {
    const asked = search.get('plan');
    if (asked === null && !isChosenClients(state)) return;
    change({
      ...draft,
      ...(asked === null ? {} : { planId: asked }),
      ...(isChosenClients(state)
        ? { clients: state.clients.map(({ id, name }) => ({ clientId: id, name, own: [] })) }
        : {}),
    });
    setSearch({}, { replace: true });
  }, []);
  const planId = plans.some(({ id }) => id === draft.planId) ? draft.planId : (plans[0]?.id ?? '');
  const { data: plan } = usePlan(planId);
  const clients = draft.clients.map(({ clientId, own }) => ({ clientId, own }));
  const { look, problem, isOfNow } = usePutOnLook(
    plan?.id === planId && clients.length > 0
      ? { planId, version: plan.version, from: draft.from, start: draft.start, clients }
      : null,
  );
  const [place, setPlace] = useState<CellPlace | null>(null);
  const [busy, setBusy] = useState(false);
  const { follow, percent } = useSteps();
  const days = useMemo(
    () => (look?.days ?? []).filter(({ now }) => now > 0).map(({ on }): CivilDay => dayOfIso(on)),
    [look],
  );
  useTide(
    useMemo<TideControl>(
      () => ({
        chosen: null,
        spans: false,
        marks: { days, label: clients.length === 1 ? 'this client' : 'these clients' },
      }),
      [days, clients.length],
    ),
  );
  const canSave = plan !== undefined && look !== null && problem === null && isOfNow && clients.length > 0 && !busy;
  const save = async () => {
    if (!canSave || goToUnread()) return;
    setBusy(true);
    try {
      await follow((key) =>
        putOn(planId, plan.name, { version: plan.version, from: draft.from, start: draft.start, clients }, key),
      );
      forget();
      await navigate(`/plans/${planId}`);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      sayTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  useKeys([{ key: 'Mod+Enter', says: 'Put them on it', run: () => void save() }]);
  const wrong = problem?.problem.errors?.map(({ message }) => message).join(' ') ?? problem?.message ?? null;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Put clients on a plan · Jolly Rota</title>
      <div className="page-head">
        <h1>{clients.length === 0 ? 'Put clients on a plan' : `Put ${plural(clients.length, 'client')} on a plan`}</h1>
        <span className="ml-auto text-row text-ink-2" role="status">
          {busy ? `Making … ${percent === null ? '' : `${percent} %`}` : 'Nothing is made yet.'}
        </span>
        <Link className="btn" to="/clients">
          Back to the clients
        </Link>
        <button type="button" className="btn btn-primary" disabled={!canSave} onClick={() => void save()}>
          {clients.length === 0
            ? 'Put them on it'
            : `Put ${plural(clients.length, 'client')} on it, ${look ? sayMade(look) : '…'}`}
        </button>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_396px] border-t border-line-2 max-[1180px]:grid-cols-[minmax(0,1fr)_320px] max-[1000px]:block max-[1000px]:overflow-y-auto">
        <div className="flex min-h-0 min-w-0 flex-col">
          <div className="flex flex-wrap items-center gap-x-2 border-b border-line-2 px-5 py-2 text-row leading-8 max-[720px]:px-4">
            on
            <ChoiceBlank
              label="Plan"
              value={planId}
              options={plans.map(({ id, name }) => [id, name] as const)}
              onChange={(id) => {
                setPlace(null);
                // What is different names items of the plan that was chosen before.
                change({ ...draft, planId: id, clients: draft.clients.map((client) => ({ ...client, own: [] })) });
              }}
            />
            from
            <DateBlank
              label="From"
              value={dayOfIso(draft.from)}
              onChange={(day) => change({ ...draft, from: isoOfDay(day) })}
            />
            <span className="text-ink-2">{plan && sayRolling(plan)}</span>
            <span>
              <StartBlank
                start={draft.start}
                day={dayOfIso(draft.from)}
                onChange={(start) => change({ ...draft, start })}
              />
            </span>
            {look && (
              <span className="ml-auto text-note text-ink-2">
                {plural(look.figures.asPlan, 'schedule')} as the plan says
                {look.figures.own > 0 && <b className="font-semibold text-ink">, {look.figures.own} changed</b>}
                {look.figures.leftOut > 0 && (
                  <b className="font-semibold text-ink">, {look.figures.leftOut} left out</b>
                )}
              </span>
            )}
          </div>
          {wrong && (
            <p role="alert" className="field-error border-b border-line px-5 py-2">
              {wrong}
            </p>
          )}
          {plan?.id === planId && (
            <PutOnGrid
              plan={plan}
              draft={draft}
              look={look}
              place={place}
              onPlace={setPlace}
              onOut={(clientId) =>
                change({ ...draft, clients: draft.clients.filter((client) => client.clientId !== clientId) })
              }
            />
          )}
          <AddClient
            chosen={draft.clients.map(({ clientId }) => clientId)}
            onAdd={({ id, name }) => change({ ...draft, clients: [...draft.clients, { clientId: id, name, own: [] }] })}
          />
          {plan && place && (
            <CellEditor
              key={JSON.stringify(place)}
              plan={plan}
              place={place}
              draft={draft}
              look={look}
              onChange={change}
              onClose={() => setPlace(null)}
            />
          )}
        </div>
        <aside
          aria-label="What it comes to"
          className="min-h-0 overflow-y-auto border-l border-line-2 pb-12 max-[1000px]:border-t max-[1000px]:border-l-0"
        >
          {look && (
            <PutOnYear
              look={look}
              start={draft.start}
              onFrom={(from) => change({ ...draft, from })}
              onStart={(start) => change({ ...draft, start })}
            />
          )}
          {!look && clients.length > 0 && !problem && <Skeleton rows={8} />}
        </aside>
      </div>
    </div>
  );
}

const sayMade = ({ figures: { tasksNow } }: PutOnLook): string =>
  tasksNow === 0 ? 'no task yet' : `make ${plural(tasksNow, 'task')}`;

const sayRolling = ({ rollsOn }: ServicePlan): string =>
  rollsOn === 'asks' ? 'until the end of the year, then it asks' : 'until taken off, goes on by itself';
