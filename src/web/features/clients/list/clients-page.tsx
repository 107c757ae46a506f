import { useMemo } from 'react';
import { Link, Outlet, useNavigate } from 'react-router';
import { plural } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../../kit/address-filter.ts';
import { useChosen } from '../../../kit/chosen.ts';
import { FilterChoice } from '../../../kit/filter-choice.tsx';
import { FindWords } from '../../../kit/find-words.tsx';
import { Empty, Skeleton, Trouble } from '../../../kit/states.tsx';
import { ListWays } from '../../bring-in/list-ways.tsx';
import { usePlans } from '../../plans/api.ts';
import { useClients } from '../directory-api.ts';
import { ChosenClients } from './chosen-clients.tsx';
import { ClientTable } from './client-table.tsx';
import { DirectoryViews } from './directory-views.tsx';

/** For whom work is done: what is theirs, how it went, and what comes next. */
export function ClientsPage() {
  const { may, staff } = useWorkspace();
  const navigate = useNavigate();
  const { search, set, clear } = useAddressFilter();
  const asked = {
    q: search.get('find') ?? '',
    person: search.get('person') ?? '',
    archived: search.get('archived') === 'yes' ? 'yes' : 'no',
    plan: search.get('plan') ?? '',
    by: search.get('by') === 'plan' ? 'plan' : 'name',
  } as const;
  const { data: plans } = usePlans();
  const hasPlans = (plans?.plans.length ?? 0) > 0;
  const { clients, first, last, error, more, again } = useClients(asked);
  const { chosen, choose, clear: chooseNone } = useChosen(clients);
  const ids = useMemo(() => new Set(chosen.map(({ id }) => id)), [chosen]);
  const isFiltered = asked.q !== '' || asked.person !== '' || asked.plan !== '' || asked.archived === 'yes';
  const isEmpty = first && !isFiltered && first.counts.fitting === 0;
  useKeys(may('clients') ? [{ key: 'n', says: 'New client', run: () => void navigate('/clients/new') }] : []);
  return (
    <div className="flex min-h-0 flex-1">
      <title>Clients · Jolly Rota</title>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="page-head">
          <h1>Clients</h1>
          <DirectoryViews />
          <FindWords label="Find a client" value={asked.q} onChange={(find) => set({ find })} />
          <FilterChoice
            label="Usual person"
            value={asked.person}
            options={[['', 'any usual person'], ...staff.map(({ id, name }) => [id, name] as const)]}
            onChange={(person) => set({ person })}
            isForWide
          />
          {hasPlans && (
            <>
              <FilterChoice
                label="Plan"
                value={asked.plan}
                options={[
                  ['', 'any plan'],
                  ['none', 'no plan yet'],
                  ...(plans?.plans ?? []).map(({ id, name }) => [id, name] as const),
                ]}
                onChange={(plan) => set({ plan })}
                isForWide
              />
              <FilterChoice
                label="In bands"
                value={asked.by}
                options={[
                  ['name', 'by name'],
                  ['plan', 'by plan'],
                ]}
                onChange={(by) => set({ by: by === 'plan' ? by : '' })}
                isForWide
              />
            </>
          )}
          <span className="ml-auto flex items-center gap-4">
            <span className="text-row text-ink-2 max-[720px]:hidden">
              {first && `${plural(first.counts.fitting, 'client')}${asked.archived === 'yes' ? ' in the archive' : ''}`}
            </span>
            {first && (first.counts.archived > 0 || asked.archived === 'yes') && (
              <button
                type="button"
                className="link-line text-note max-[720px]:hidden"
                onClick={() => set({ archived: asked.archived === 'yes' ? '' : 'yes' })}
              >
                {asked.archived === 'yes' ? 'Those in use' : `${first.counts.archived} in the archive`}
              </button>
            )}
            {may('clients') && <ListWays list="clients" bring="clients" />}
            {may('clients') && (
              <Link className="btn btn-primary" to="/clients/new">
                New client
              </Link>
            )}
          </span>
        </div>
        {error && !first && <Trouble error={error} retry={again} />}
        {!error && !first && <Skeleton rows={14} />}
        {isEmpty && (
          <Empty title="For whom do you work?">
            A client has contacts, an address, and things of their own that work is done on. Schedules and tasks name
            them, and their page shows a year of it.{' '}
            {may('clients') && (
              <Link className="link-line" to="/clients/new">
                Write down the first
              </Link>
            )}
          </Empty>
        )}
        {first && isFiltered && clients.length === 0 && (
          <Empty title={asked.archived === 'yes' ? 'Nobody is in the archive.' : 'No client of these words.'}>
            <button type="button" className="link-line" onClick={clear}>
              Show all clients
            </button>
          </Empty>
        )}
        {clients.length > 0 && (
          <ClientTable
            clients={clients}
            groups={first?.groups ?? []}
            chosen={ids}
            onChoose={may('plan') && hasPlans ? choose : null}
            rest={(first?.counts.fitting ?? 0) - clients.length}
            onMore={last?.more ? more : null}
          />
        )}
        <ChosenClients chosen={chosen} onClear={chooseNone} />
      </div>
      <Outlet />
    </div>
  );
}
