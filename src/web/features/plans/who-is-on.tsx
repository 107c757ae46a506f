import { useState } from 'react';
import { Link } from 'react-router';
import type { OnPlanLine, PlanLook, ServicePlan } from '../../../contract/index.ts';
import { dayOfIso, plural } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay } from '../../kit/ways.ts';
import { usePlanClients, usePlans } from './api.ts';

/** Who is on a plan, and what each has of their own; while the plan is being changed, who keeps it. */
export function WhoIsOn({
  plan,
  look,
  isChanged,
}: {
  readonly plan: ServicePlan;
  readonly look: PlanLook | null;
  readonly isChanged: boolean;
}) {
  const { may } = useWorkspace();
  const [isOwn, setOwn] = useState(false);
  const { lines, counts, error, isMore, more, again } = usePlanClients(plan.id, isOwn);
  if (error && !counts) return <Trouble error={error} retry={again} />;
  if (!counts) return <Skeleton rows={8} />;
  return (
    <section aria-label="Who is on it">
      <div className="border-b border-line px-5 py-2.5 max-[720px]:px-4">
        <h2 className="flex flex-wrap items-baseline gap-x-3 text-body leading-5.5 text-primary">
          {counts.all === 0 ? 'Nobody is on it yet' : `${plural(counts.all, 'client')} on it`}
          {may('plan') && !plan.isArchived && (
            <Link
              className="link-line ml-auto font-sans text-row font-normal font-stretch-normal text-ink"
              to={`/plans/put-on?plan=${plan.id}`}
            >
              Put clients on it
            </Link>
          )}
        </h2>
        {counts.own > 0 && (
          <p className="text-row leading-5">
            {plural(counts.changes, 'own change')} of {plural(counts.own, 'client')}. They stay through every change of
            the plan.
          </p>
        )}
      </div>
      {isChanged && look && (look.changes > 0 || look.keepsCount > 0) && <Reach look={look} />}
      {counts.own > 0 && (
        <p className="border-b border-line px-5 py-1.5 text-row max-[720px]:px-4">
          <label className="cursor-pointer">
            <input
              type="checkbox"
              className="mr-2 align-[-2px]"
              checked={isOwn}
              onChange={({ target }) => setOwn(target.checked)}
            />
            only those with something of their own
          </label>
        </p>
      )}
      <ul>
        {lines.map((line) => (
          <Line key={line.id} line={line} plan={plan} />
        ))}
      </ul>
      {isMore && (
        <p className="px-5 py-2 text-row text-ink-2 max-[720px]:px-4">
          <button type="button" className="link-line" onClick={more}>
            Show the next
          </button>
        </p>
      )}
      <OtherPlans plan={plan} />
    </section>
  );
}

/** In how many a change does something, and who keeps their own. */
function Reach({ look }: { readonly look: PlanLook }) {
  const rest = look.keepsCount - look.keeps.length;
  return (
    <div className="border-b border-line-2 bg-chosen">
      {look.keepsCount > 0 && (
        <div className="grid grid-cols-[74px_minmax(0,1fr)] px-5 py-2 max-[720px]:px-4">
          <p className="leading-4.5">
            <b className="block font-head text-[22px] leading-6.5 font-[650]">{look.keepsCount}</b>
            <span className="text-note font-semibold">
              {look.keepsCount === 1 ? 'keeps its own' : 'keep their own'}
            </span>
          </p>
          <ul className="text-row leading-5.5">
            {look.keeps.map(({ id, client, says }) => (
              <li key={id} className="pb-0.5 leading-4.5">
                <span className="block truncate">{client.name}</span>
                <b className="block text-note font-semibold">{says}</b>
              </li>
            ))}
            {rest > 0 && <li className="text-ink-2">and {rest} more</li>}
          </ul>
        </div>
      )}
      <p className="px-5 py-2 text-row max-[720px]:px-4">
        <b className="font-head text-[22px] font-[650]">{look.changes}</b>{' '}
        <span className="font-semibold">{look.changes === 1 ? 'client changes' : 'clients change'}</span>
      </p>
    </div>
  );
}

function Line({ line, plan }: { readonly line: OnPlanLine; readonly plan: ServicePlan }) {
  const { today } = useWorkspace();
  const { client, own, fromOn, offOn } = line;
  const nameOf = (key: string) => plan.items.find((item) => item.key === key)?.template.name ?? '';
  return (
    <li className="relative border-b border-line px-5 py-1.5 text-row leading-5 hover:bg-base-200 max-[720px]:px-4">
      <span className="flex items-baseline gap-3">
        <Link
          className="min-w-0 truncate font-semibold before:absolute before:inset-0 before:content-['']"
          to={`/clients/${client.id}`}
        >
          {client.name}
        </Link>
        <span className="ml-auto text-note whitespace-nowrap text-ink-2">
          {offOn
            ? `off from ${sayDay(dayOfIso(offOn), today)}`
            : dayOfIso(fromOn) > today
              ? `from ${sayDay(dayOfIso(fromOn), today)}`
              : own.length === 0
                ? 'as the plan'
                : plural(own.length, 'own change')}
        </span>
      </span>
      {own.map(({ item, asset, leftOut, says }) => (
        <span key={`${item} ${asset}`} className="block text-note leading-4.5 text-ink-2">
          {leftOut === null ? (
            `${nameOf(item)}${asset ? `, ${asset}` : ''}: ${says}`
          ) : (
            <>
              no {nameOf(item)}
              {asset ? ` of ${asset}` : ''}: {leftOut}
            </>
          )}
        </span>
      ))}
    </li>
  );
}

function OtherPlans({ plan }: { readonly plan: ServicePlan }) {
  const { may } = useWorkspace();
  const { data } = usePlans();
  const others = data?.plans.filter(({ id, isArchived }) => id !== plan.id && !isArchived) ?? [];
  if (others.length === 0) return null;
  return (
    <div className="px-5 py-2.5 max-[720px]:px-4">
      <h2 className="flex items-baseline text-body leading-5.5 text-primary">
        Other plans
        {may('plan') && (
          <Link
            className="link-line ml-auto font-sans text-row font-normal font-stretch-normal text-ink"
            to="/plans/new"
          >
            New plan
          </Link>
        )}
      </h2>
      <ul>
        {others.map(({ id, name, clients }) => (
          <li key={id} className="flex items-baseline gap-3 py-0.5 text-row leading-5.5">
            <Link className="link-line" to={`/plans/${id}`}>
              {name}
            </Link>
            <span className="ml-auto text-note text-ink-2">{plural(clients, 'client')}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
