import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { PlanLine, RollingLine } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, groupBy, isoOfDay, plural } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { Band } from '../../kit/band.tsx';
import { ChoiceBlank } from '../../kit/blanks.tsx';
import { useChosen } from '../../kit/chosen.ts';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDate } from '../../kit/ways.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { usePlanActions, usePlans, usePlansOfClient, useRolling } from './api.ts';
import { ClientPlans } from './client-plans.tsx';

/** Clients whose year on a plan ends soon: each goes on for another, as it is or changed, over to another plan, or ends there. */
export function RollingPage() {
  const { data, error, mutate } = useRolling();
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Who rolls on · Service plans · Jolly Rota</title>
      <div className="page-head">
        <h1>Who rolls on</h1>
        <span className="text-row text-ink-2">
          {data &&
            data.clients.length > 0 &&
            `${data.isMore ? 'more than ' : ''}${plural(data.clients.length, 'client')} whose year on a plan ends soon`}
        </span>
        <Link className="btn ml-auto" to="/plans">
          Service plans
        </Link>
      </div>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !data && <Skeleton rows={10} />}
      {data?.clients.length === 0 && (
        <Empty title="Nobody’s year ends soon.">
          Clients of a plan that asks before it goes on stand here two months before their year ends.
        </Empty>
      )}
      {data && data.clients.length > 0 && <Rolling lines={data.clients} />}
    </div>
  );
}

interface Asked {
  readonly what: string;
  /** Another plan stands for going over to it. */
  readonly deed: 'keep' | 'end' | PlanLine;
  readonly of: readonly RollingLine[];
}

function Rolling({ lines }: { readonly lines: readonly RollingLine[] }) {
  const { may, today } = useWorkspace();
  const { chosen, choose, clear } = useChosen(lines);
  const ids = useMemo(() => new Set(chosen.map(({ id }) => id)), [chosen]);
  const { impactOfRollingOn, rollOn, impactOfTakingOff, takeOff } = usePlanActions();
  const offOf = (of: readonly RollingLine[], to: PlanLine | null) => ({
    clients: of.map(({ id, version }) => ({ id, version })),
    ...{ from: isoOfDay(dayAfter(of[0], today)), tasks: 'go' as const },
    to: to && { planId: to.id, version: to.version },
  });
  const { data: plans } = usePlans();
  const { look, busy, dialog } = useLookedAt<Asked>({
    impactOf: ({ deed, of }) =>
      deed === 'keep' ? impactOfRollingOn(of) : impactOfTakingOff(offOf(of, deed === 'end' ? null : deed)),
    save: ({ deed, of }) => {
      const one = of.length === 1;
      if (deed === 'keep')
        return rollOn(
          of,
          `${one ? '1 client goes' : `${of.length} clients go`} on until ${sayDate(dayOfIso(of[0]?.laterOn ?? ''))}.`,
        );
      if (deed === 'end')
        return takeOff(offOf(of, null), `${one ? '1 client ends' : `${of.length} clients end`} with the year.`);
      const from = sayDate(dayAfter(of[0], today));
      return takeOff(
        offOf(of, deed),
        `${one ? '1 client is' : `${of.length} clients are`} on ${deed.name} from ${from}.`,
      );
    },
    hasReach: false,
    always: true,
    onSaved: clear,
    onRefused: sayTrouble,
  });
  const bands = [...groupBy(lines, ({ plan, untilOn }) => `${plan.id} ${untilOn}`).values()];
  const places = new Map(lines.map(({ id }, i) => [id, i]));
  const mayPlan = may('plan');
  return (
    <>
      {dialog}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: arrows go through the rows of the list within */}
      <div className="min-h-0 flex-1 overflow-y-auto pb-14" onKeyDown={moveThroughRows}>
        {bands.map((of) => {
          const [first] = of;
          if (!first) return null;
          const picked = of.filter(({ id }) => ids.has(id));
          const meant = picked.length > 0 ? picked : of;
          const count = plural(meant.length, 'client');
          const others = plans?.plans.filter(
            ({ id, isArchived, items }) => id !== first.plan.id && !isArchived && items.length > 0,
          );
          return (
            <Band
              key={first.id}
              name={first.plan.name}
              count={of.length}
              asides={[`until ${sayDate(dayOfIso(first.untilOn))}`]}
            >
              {mayPlan && (
                <p className="flex flex-wrap items-center gap-x-3 gap-y-1.5 border-b border-line py-2 pr-5 text-row max-[720px]:px-4">
                  <button
                    type="button"
                    className="btn btn-primary btn-sm"
                    disabled={busy}
                    onClick={() =>
                      look({
                        deed: 'keep',
                        of: meant,
                        what: `${count} of ${first.plan.name} until ${sayDate(dayOfIso(first.laterOn))}`,
                      })
                    }
                  >
                    {sayKeep(meant.length, of.length)} until {sayDate(dayOfIso(first.laterOn))}
                  </button>
                  <button
                    type="button"
                    className="btn btn-sm"
                    disabled={busy}
                    onClick={() =>
                      look({
                        deed: 'end',
                        of: meant,
                        what: `${count} off ${first.plan.name} after ${sayDate(dayOfIso(first.untilOn))}`,
                      })
                    }
                  >
                    {picked.length > 0 ? `End ${picked.length}` : 'End all'} with the year
                  </button>
                  {others && others.length > 0 && (
                    <OverTo
                      plans={others}
                      label={`Over to another plan, ${first.plan.name}`}
                      busy={busy}
                      onLook={(to) =>
                        look({ deed: to, of: meant, what: `${count} from ${first.plan.name} to ${to.name}` })
                      }
                    />
                  )}
                  {picked.length === 0 && <span className="text-ink-2">or choose some of them first</span>}
                </p>
              )}
              <ul>
                {of.map((line) => (
                  <Line
                    key={line.id}
                    line={line}
                    isChosen={ids.has(line.id)}
                    onChoose={mayPlan ? (how) => choose(places.get(line.id) ?? 0, how) : null}
                  />
                ))}
              </ul>
            </Band>
          );
        })}
      </div>
    </>
  );
}

/** The first day after a client's year; of a year that is over already, today. */
const dayAfter = (line: RollingLine | undefined, today: CivilDay): CivilDay =>
  Math.max(today, dayOfIso(line?.untilOn ?? '') + 1);

const NOWHERE = '';

/** Another plan from then on, chosen first. */
function OverTo({
  plans,
  label,
  busy,
  onLook,
}: {
  readonly plans: readonly PlanLine[];
  readonly label: string;
  readonly busy: boolean;
  readonly onLook: (to: PlanLine) => void;
}) {
  const [toId, setTo] = useState(NOWHERE);
  const to = plans.find(({ id }) => id === toId);
  return (
    <span className="leading-7">
      or over to{' '}
      <ChoiceBlank
        label={label}
        value={toId}
        options={[[NOWHERE, 'another plan'] as const, ...plans.map(({ id, name }) => [id, name] as const)]}
        onChange={setTo}
      />
      {to && (
        <button type="button" className="btn btn-sm ml-2" disabled={busy} onClick={() => onLook(to)}>
          Look at it
        </button>
      )}
    </span>
  );
}

const sayKeep = (meant: number, all: number): string => (meant === all ? `Keep all ${all}` : `Keep ${meant}`);

interface LineProps {
  readonly line: RollingLine;
  readonly isChosen: boolean;
  readonly onChoose: ((how: 'one' | 'range') => void) | null;
}

function Line({ line, isChosen, onChoose }: LineProps) {
  const { client, fromOn, own } = line;
  const [isOpen, setOpen] = useState(false);
  return (
    <li className="border-b border-line">
      <div
        className={`relative grid grid-cols-[20px_minmax(0,1fr)_180px_140px_64px] items-center gap-x-3 py-1.5 pr-5 text-row hover:bg-base-200 max-[720px]:grid-cols-[20px_minmax(0,1fr)_auto] max-[720px]:px-4 ${isChosen ? 'bg-chosen' : ''}`}
      >
        <span className="z-1">
          {onChoose && (
            <input
              type="checkbox"
              className="check block"
              aria-label={`Choose ${client.name}`}
              checked={isChosen}
              onChange={(event) => onChoose((event.nativeEvent as MouseEvent).shiftKey ? 'range' : 'one')}
            />
          )}
        </span>
        <Link
          data-row
          className="truncate text-body font-semibold before:absolute before:inset-0 before:content-['']"
          to={`/clients/${client.id}`}
        >
          {client.name}
        </Link>
        <span className="text-ink-2 max-[720px]:hidden">since {sayDate(dayOfIso(fromOn))}</span>
        <span className="text-right text-ink-2 max-[720px]:hidden">
          {own === 0 ? 'as the plan' : plural(own, 'own change')}
        </span>
        {onChoose && (
          <button
            type="button"
            className="link-line z-1 justify-self-end"
            aria-expanded={isOpen}
            aria-label={`Change what ${client.name} has`}
            onClick={() => setOpen(!isOpen)}
          >
            {isOpen ? 'Close' : 'Change'}
          </button>
        )}
      </div>
      {isOpen && <Changing line={line} />}
    </li>
  );
}

/** What a client has of the plan, item by item: it goes on so, or is left out, given up or taken over to another plan. */
function Changing({ line }: { readonly line: RollingLine }) {
  const { today } = useWorkspace();
  const { data, error, mutate } = usePlansOfClient(line.client.id);
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={3} />;
  return (
    <div className="border-t border-line pl-8 max-[720px]:pl-0">
      <ClientPlans
        client={{ name: line.client.name, isArchived: false }}
        plans={data.plans.filter(({ id }) => id === line.id)}
        offFrom={dayAfter(line, today)}
      />
    </div>
  );
}
