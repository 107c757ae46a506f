import { Link, useNavigate } from 'react-router';
import type { PlanLine, RollingLine } from '../../../contract/index.ts';
import { dayOfIso, joinAnd, plural, sayDuration } from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDate } from '../../kit/ways.ts';
import { usePlans, useRolling } from './api.ts';

const COLUMNS =
  'grid grid-cols-[minmax(160px,1fr)_minmax(0,2.2fr)_110px_170px] items-baseline gap-x-4 px-5 max-[720px]:grid-cols-[minmax(0,1fr)_auto] max-[720px]:px-4';

/** All service plans, and what each comes to. */
export function PlansPage() {
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const { data, error, mutate } = usePlans();
  const rolling = useRolling();
  useKeys(may('plan') ? [{ key: 'n', says: 'New plan', run: () => void navigate('/plans/new') }] : []);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Service plans · Jolly Rota</title>
      <div className="page-head">
        <h1>Service plans</h1>
        {rolling.data && rolling.data.clients.length > 0 && (
          <Link className="link-line text-row" to="/plans/rolling">
            {plural(rolling.data.clients.length, 'client')} roll on by{' '}
            {sayDate(dayOfIso(firstEnd(rolling.data.clients)))}: look through them
          </Link>
        )}
        {may('plan') && (
          <Link className="btn btn-primary ml-auto" to="/plans/new">
            New plan
          </Link>
        )}
      </div>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !data && <Skeleton rows={8} />}
      {data?.plans.length === 0 && (
        <Empty title="What does every client get?">
          A service plan is a set of recurring work: inspections, readings, talks. Clients are put on it in one go, each
          keeps what is different, and a change of the plan reaches all of them.{' '}
          {may('plan') && (
            <Link className="link-line" to="/plans/new">
              Write the first plan
            </Link>
          )}
        </Empty>
      )}
      {data && data.plans.length > 0 && (
        <section
          aria-label="Service plans"
          className="min-h-0 flex-1 overflow-y-auto border-t border-line-2"
          onKeyDown={moveThroughRows}
        >
          <div
            aria-hidden
            className={`${COLUMNS} h-7 border-b border-line-2 text-note leading-7 text-ink-2 max-[720px]:hidden`}
          >
            <span>plan</span>
            <span>what each client has</span>
            <span className="text-right">clients</span>
            <span className="text-right">a year each</span>
          </div>
          <ul>
            {data.plans.map((plan) => (
              <Line key={plan.id} plan={plan} />
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

const firstEnd = (lines: readonly RollingLine[]): string =>
  lines.map(({ untilOn }) => untilOn).reduce((first, one) => (one < first ? one : first));

function Line({ plan }: { readonly plan: PlanLine }) {
  const { id, name, items, clients, tasksEach, minutesEach, rollsOn, isArchived } = plan;
  return (
    <li className={`${COLUMNS} relative border-b border-line py-2.5 text-row hover:bg-base-200`}>
      <span className="min-w-0">
        <Link
          data-row
          className="block truncate text-body font-semibold before:absolute before:inset-0 before:content-['']"
          to={`/plans/${id}`}
        >
          {name}
        </Link>
        <span className="text-note text-ink-2">
          {isArchived ? 'in the archive' : rollsOn === 'asks' ? 'asks each year' : 'goes on by itself'}
        </span>
      </span>
      <span className="text-ink-2 max-[720px]:order-last max-[720px]:col-span-2">
        {items.length === 0 ? 'nothing yet' : joinAnd(items)}
      </span>
      <span className="text-right">
        <b className="font-head text-[17px] font-[650]">{clients}</b>{' '}
        <span className="text-ink-2">{clients === 1 ? 'client' : 'clients'}</span>
      </span>
      <span className="text-right text-ink-2 max-[720px]:col-span-2 max-[720px]:text-left">
        {plural(tasksEach, 'task')}, {sayDuration(minutesEach)}
      </span>
    </li>
  );
}
