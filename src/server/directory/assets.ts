import type { AssetInput, AssetRecord } from '../../contract/index.ts';
import { Asset, Client } from '../clients/index.ts';
import { invalid } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { fieldProblems, followName, mustBeSeen } from './changing.ts';
import { assetRecords } from './one-client.ts';

export interface SavedAsset {
  readonly asset: AssetRecord;
  readonly changeId: string | null;
}

export function addAsset(scope: Scope, input: AssetInput): Promise<SavedAsset> {
  return scope.transaction(async (tx) => {
    await check(tx, input, null);
    const { id } = await tx.insert(Asset, { ...input, id: tx.newId(), version: 1, archivedAt: null });
    const changeId = await tx.record('asset', id, 'added', fieldChanges({}, input));
    await tx.tell('clients');
    return { asset: await oneAsset(tx, id), changeId };
  });
}

export function changeAsset(
  scope: Scope,
  id: string,
  { version, ...input }: AssetInput & { readonly version: number },
): Promise<SavedAsset> {
  return scope.transaction(async (tx) => {
    const before = await tx.locked(Asset, id, 'asset');
    mustBeSeen(before, version);
    await check(tx, input, before);
    const changeId = await writeAsset(tx, before, input, 'changed');
    return { asset: await oneAsset(tx, id), changeId };
  });
}

export async function oneAsset(scope: Scope, id: string): Promise<AssetRecord> {
  const [asset] = await assetRecords(scope, [await scope.one(Asset, id, 'asset')]);
  return asset as AssetRecord;
}

/** Writes what differs, within another change; null where nothing does. */
export async function writeAsset(
  scope: Scope,
  before: Asset,
  set: Partial<AssetInput>,
  action: 'changed' | 'undone',
): Promise<string | null> {
  const changed = fieldChanges(before, set);
  if (Object.keys(changed).length === 0) return null;
  await scope.save(Asset, before.id, { ...set, version: before.version + 1 });
  if ('name' in changed) await followName(scope, 'asset_id', before.id);
  const changeId = await scope.record('asset', before.id, action, changed);
  await scope.tell('clients');
  return changeId;
}

async function check(scope: Scope, input: AssetInput, before: Asset | null): Promise<void> {
  const problems = fieldProblems(scope.workspace.assetFields, input.fields, before?.fields ?? {});
  // Schedules and tasks of it name its client as well: it does not change hands here.
  if (before !== null && input.clientId !== before.clientId)
    problems.push({ path: 'clientId', message: 'It stays with whom it is: add it anew where it has gone.' });
  else if (input.clientId !== null) await scope.one(Client, input.clientId, 'client');
  if (input.siteId !== null) {
    const [site] = await scope.find(Asset, { id: input.siteId });
    if (!site?.isSite || site.clientId !== null)
      problems.push({ path: 'siteId', message: 'That is none of the sites here.' });
    else if (site.id === before?.id || (await standsAt(scope, site.id, before?.id ?? null)))
      problems.push({ path: 'siteId', message: `${site.name} stands at this one itself.` });
  }
  if (before?.isSite && !input.isSite) {
    const [there] = await scope.sql<{ name: string }>(
      'select name from asset where workspace_id = $1 and site_id = $2 order by words limit 1',
      [before.id],
    );
    if (there) problems.push({ path: 'isSite', message: `${there.name} stands at it: move it first.` });
  }
  if (problems.length > 0) throw invalid(problems);
}

/** Whether a site stands at another one, or at one that stands there. */
async function standsAt(scope: Scope, siteId: string, atId: string | null): Promise<boolean> {
  if (atId === null) return false;
  const [found] = await scope.sql<{ found: boolean }>(
    `with recursive up as (
       select site_id from asset where workspace_id = $1 and id = $2
       union select a.site_id from asset a join up on a.workspace_id = $1 and a.id = up.site_id)
     select exists (select from up where site_id = $3) as found`,
    [siteId, atId],
  );
  return found?.found === true;
}
