import { useMemo } from 'react';
import { Link, Outlet, useNavigate, useParams } from 'react-router';
import { paperAddresses } from '../../../../contract/addresses-later.ts';
import type { ClientRecord, PlanOfClient } from '../../../../contract/index.ts';
import { dayOfIso } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { type TideControl, useShell, useTide } from '../../../app/shell/shell-context.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { addressOf } from '../../../kit/api.ts';
import { PaperLink } from '../../../kit/paper-link.tsx';
import { Skeleton, Trouble } from '../../../kit/states.tsx';
import { AnswersOfClient } from '../../answers/answers-of.tsx';
import { CalendarLink } from '../../calendars/calendar-link.tsx';
import { ErasePart } from '../../erasing/erase-part.tsx';
import { LastChanged } from '../../history/last-changed.tsx';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { usePlansOfClient } from '../../plans/api.ts';
import { ClientPlans } from '../../plans/client-plans.tsx';
import { useClient, useClientWork, useDirectoryActions } from '../directory-api.ts';
import { ClientAssets } from './client-assets.tsx';
import { ClientFacts } from './client-facts.tsx';
import { ClientNotices } from './client-notices.tsx';
import { ClientSchedules } from './client-schedules.tsx';
import { ClientWorkBands } from './client-work.tsx';
import { YearLines } from './year-lines.tsx';

/** One client: how they are reached, what is theirs, and a year of the work for them. */
export function ClientPage() {
  const { clientId = '' } = useParams();
  const { data, error, mutate } = useClient(clientId);
  if (error && data?.id !== clientId) return <Trouble error={error} retry={() => void mutate()} />;
  if (data?.id !== clientId) return <Skeleton rows={12} />;
  return (
    <div className="flex min-h-0 flex-1">
      <Client key={clientId} client={data} />
      <Outlet context={data} />
    </div>
  );
}

const NO_PLANS: readonly PlanOfClient[] = [];

function Client({ client }: { readonly client: ClientRecord }) {
  const { id, name, assets, isArchived } = client;
  const { may } = useWorkspace();
  const { startNow } = useShell();
  const navigate = useNavigate();
  const work = useClientWork(id);
  const plans = usePlansOfClient(id).data?.plans ?? NO_PLANS;
  const ofPlans = useMemo(
    () => new Set(plans.flatMap(({ items }) => items.flatMap(({ scheduleId }) => scheduleId ?? []))),
    [plans],
  );
  const days = useMemo(() => work.data?.coming.map(({ on }) => dayOfIso(on)) ?? [], [work.data]);
  const tide = useMemo<TideControl>(
    () => ({ chosen: null, spans: false, marks: { days, label: 'this client' } }),
    [days],
  );
  useTide(tide);
  const mayChange = may('clients') && !isArchived;
  useKeys(
    mayChange ? [{ key: 'e', says: 'Change what is known', run: () => void navigate(`/clients/${id}/edit`) }] : [],
  );
  const where = assets
    .filter((asset) => !asset.isArchived)
    .slice(0, 2)
    .map((asset) => [asset.name, asset.place].filter(Boolean).join(', '))
    .join(' · ');
  return (
    <div className="@container flex min-h-0 min-w-0 flex-1 flex-col">
      <title>{`${name} · Jolly Rota`}</title>
      <div className="page-head">
        <h1>{name}</h1>
        <span className="min-w-0 truncate text-row text-ink-2">{isArchived ? 'in the archive' : where}</span>
        <span className="ml-auto flex flex-wrap items-center gap-2.5">
          {mayChange && (
            <Link className="btn" to={`/clients/${id}/edit`}>
              Change
            </Link>
          )}
          {may('plan') && !isArchived && (
            <Link className="btn" to={`/schedules/new?client=${id}`}>
              New schedule
            </Link>
          )}
          <Link className="btn" to={`/tasks?client=${id}&due=any&are=any&by=no`}>
            All tasks
          </Link>
          {!isArchived && <CalendarLink of={{ kind: 'client', id }} className="btn" />}
          {may('plan') && !isArchived && (
            <Link className="btn" to="/plans/put-on" state={{ clients: [{ id, name }] }}>
              Put on a plan
            </Link>
          )}
          {may('begin') && !isArchived && (
            <button type="button" className="btn btn-primary" onClick={() => startNow({ clientId: id })}>
              Start now for this client
            </button>
          )}
          {isArchived && <BringBack client={client} />}
        </span>
      </div>
      <div className="flex min-h-0 flex-1 flex-col @max-[860px]:block @max-[860px]:overflow-y-auto">
        <ClientFacts client={client} />
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(300px,5fr)_minmax(0,10fr)] border-t border-line-2 @max-[860px]:flex @max-[860px]:flex-col-reverse">
          <div className="min-h-0 overflow-y-auto border-r border-line-2 @max-[860px]:overflow-visible @max-[860px]:border-r-0">
            <ClientPlans client={client} plans={plans} />
            <ClientSchedules client={client} ofPlans={ofPlans} />
            <ClientAssets client={client} mayChange={mayChange} />
            <ClientNotices clientId={id} />
            <AnswersOfClient clientId={id} />
            {client.notes && (
              <section className="border-t border-line-2 px-5 py-2.5 max-[720px]:px-4">
                <h2 className="text-body leading-5.5 text-primary">Notes</h2>
                <p className="text-row leading-5 whitespace-pre-line">{client.notes}</p>
              </section>
            )}
            <div className="border-t border-line-2 px-5 pb-6 max-[720px]:px-4">
              <p className="pt-2.5">
                <PaperLink
                  href={addressOf(paperAddresses.client, { query: { client: id } })}
                  words="The year on paper"
                />
              </p>
              <LastChanged of="client" id={id} />
              {mayChange && <Away client={client} />}
              {isArchived && may('settings') && (
                <p className="mt-4 border-t border-line-2 pt-2.5 text-row leading-7">
                  <ErasePart of="client" id={id} name={name} />
                </p>
              )}
            </div>
          </div>
          <div className="min-h-0 overflow-y-auto @max-[860px]:overflow-visible">
            {work.error && !work.data && <Trouble error={work.error} retry={() => void work.mutate()} />}
            {!work.error && !work.data && <Skeleton rows={10} />}
            {work.data && (
              <>
                <YearLines work={work.data} />
                <ClientWorkBands work={work.data} />
              </>
            )}
          </div>
        </div>
      </div>
    </div>
  );
}

function useArchiving({ id, name }: ClientRecord, archived: boolean) {
  const { archiveClient, impactOfArchivingClient } = useDirectoryActions();
  const { look, busy, dialog } = useLookedAt<{ readonly what: string }>({
    impactOf: () => impactOfArchivingClient(id, archived),
    save: () => archiveClient(id, archived),
    hasReach: false,
    onRefused: sayTrouble,
  });
  const what = archived
    ? `${name} goes into the archive, with what is scheduled for ${name}`
    : `${name} comes back from the archive, with what went there too`;
  return { go: () => look({ what }), busy, dialog };
}

function BringBack({ client }: { readonly client: ClientRecord }) {
  const { may } = useWorkspace();
  const { go, busy, dialog } = useArchiving(client, false);
  if (!may('clients')) return null;
  return (
    <>
      {dialog}
      <button type="button" className="btn btn-primary" disabled={busy} onClick={go}>
        Bring back
      </button>
    </>
  );
}

/** Out of the lists, or into another client that is the same. */
function Away({ client }: { readonly client: ClientRecord }) {
  const { go, busy, dialog } = useArchiving(client, true);
  return (
    <p className="mt-4 border-t border-line-2 pt-2.5 text-row leading-7">
      {dialog}
      <button type="button" className="link-line mr-4" disabled={busy} onClick={go}>
        Archive {client.name}
      </button>
      <Link className="link-line" to={`/clients/${client.id}/merge`}>
        Merge with one that is the same
      </Link>
    </p>
  );
}
