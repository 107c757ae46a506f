import { In, IsNull } from 'typeorm';
import type { Impact } from '../../contract/index.ts';
import { Asset, Client } from '../clients/index.ts';
import { notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { impactOfRewriting, rewriteSchedules, Schedule } from '../schedules/index.ts';
import { oneAsset, type SavedAsset } from './assets.ts';
import type { SavedClient } from './changing.ts';
import { oneClient } from './one-client.ts';

type Kind = 'client' | 'asset';
const ENTITIES = { client: Client, asset: Asset } as const;

export async function archiveClient(scope: Scope, id: string, archived: boolean): Promise<SavedClient> {
  const changeId = await scope.transaction((tx) => carryOut(tx, 'client', id, archived));
  return { client: await oneClient(scope, id), changeId };
}

export function archiveAsset(scope: Scope, id: string, archived: boolean): Promise<SavedAsset> {
  return scope.transaction(async (tx) => {
    const changeId = await carryOut(tx, 'asset', id, archived);
    return { asset: await oneAsset(tx, id), changeId };
  });
}

/** What that ends, or begins again. */
export function impactOfArchiving(scope: Scope, kind: Kind, id: string, archived: boolean): Promise<Impact> {
  return scope.rehearse(async (tx) => {
    const { schedules } = await reached(tx, kind, id, archived);
    return impactOfRewriting(tx, schedules, () => ({ deletedAt: archived ? tx.instant : null }));
  });
}

/** What goes into the archive, or comes back, with it: what is theirs and what it makes tasks by. Of what comes back, what went with it. */
async function reached(scope: Scope, kind: Kind, id: string, archived: boolean) {
  const one = await scope.one<Client | Asset>(ENTITIES[kind], id, kind);
  const since = archived ? IsNull() : (one.archivedAt ?? IsNull());
  const assets = kind === 'client' ? await scope.find(Asset, { clientId: id, archivedAt: since }) : [];
  const schedules = await scope.find(Schedule, {
    ...(kind === 'client' ? { clientId: id } : { assetId: id }),
    deletedAt: since,
  });
  return { one, assets, schedules: schedules.map((schedule) => schedule.id).sort() };
}

/** At one moment, by which what comes back is known. */
async function carryOut(scope: Scope, kind: Kind, id: string, archived: boolean): Promise<string | null> {
  await scope.locked<Client | Asset>(ENTITIES[kind], id, kind);
  const { one, assets, schedules } = await reached(scope, kind, id, archived);
  if ((one.archivedAt !== null) === archived) return null;
  if (kind === 'asset' && !archived) await mustHaveClient(scope, one as Asset);
  const at = archived ? scope.instant : null;
  const action = archived ? 'archived' : 'brought back';
  const set = { archivedAt: at };
  await scope.save<Client | Asset>(ENTITIES[kind], id, { ...set, version: one.version + 1 });
  await scope.sql(
    'update asset set archived_at = $2, version = version + 1 where workspace_id = $1 and id = any($3::uuid[])',
    [at, assets.map((asset) => asset.id)],
  );
  const ended = await rewriteSchedules(scope, schedules, archived ? 'deleted' : 'brought back', () => ({
    deletedAt: at,
  }));
  const changeId = await scope.recordTogether([
    { subject: kind, subjectId: id, action, fields: fieldChanges(one, set) },
    ...assets.map((asset) => ({
      subject: 'asset' as const,
      subjectId: asset.id,
      action: action as 'archived' | 'brought back',
      fields: fieldChanges(asset, set),
    })),
    ...ended,
  ]);
  await scope.tell('clients', 'schedules', 'tasks');
  return changeId;
}

async function mustHaveClient(scope: Scope, { name, clientId }: Asset): Promise<void> {
  if (clientId === null) return;
  const [client] = await scope.find(Client, { id: In([clientId]) });
  if (client && client.archivedAt !== null)
    throw notNow(`${name} belongs to ${client.name}: bring ${client.name} back.`);
}
