import type { SeveralQuotasLook } from '../../contract/index.ts';
import { dayOfIso, type QuotaDeed, quotaAfter } from '../../core/index.ts';
import type { ChangeEntry } from '../platform/changes/entity.ts';
import { changedMeanwhile, invalid } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { ringing } from '../ringing/index.ts';
import { changedWeeks } from './look.ts';
import { CallQuota } from './stored/index.ts';

/** What would be done with some quotas at once, by name and week; nothing is done by looking. */
export async function lookAtSeveral(
  scope: Scope,
  { ids, deed }: { readonly ids: readonly string[]; readonly deed: QuotaDeed },
): Promise<SeveralQuotasLook> {
  mustBeAhead(scope, deed);
  const chosen = new Set(ids);
  const quotas = (await scope.find(CallQuota))
    .filter(({ id }) => chosen.has(id))
    .sort((a, b) => a.name.localeCompare(b.name));
  const here = await ringing(scope);
  const look: { quotas: SeveralQuotasLook['quotas']; same: SeveralQuotasLook['same'] } = { quotas: [], same: [] };
  for (const quota of quotas) {
    const { id, name, version } = quota;
    const after = quotaAfter(quota, deed);
    if (after === null) look.same.push({ id, name });
    else look.quotas.push({ id, name, version, changed: changedWeeks(here, quota, after, scope.now.day) });
  }
  return look;
}

/** Does it with those that it changes: all of them, or none; one undo takes all of it back. */
export function changeSeveral(
  scope: Scope,
  { of, deed }: { readonly of: readonly { readonly id: string; readonly version: number }[]; readonly deed: QuotaDeed },
): Promise<{ changeId: string; count: number }> {
  return scope.transaction(async (tx) => {
    mustBeAhead(tx, deed);
    await tx.lockedWorkspace();
    const changes: ChangeEntry[] = [];
    for (const [i, { id, version }] of of.entries()) {
      const before = await tx.locked(CallQuota, id, 'quota');
      if (before.version !== version)
        throw changedMeanwhile(`${before.name} was changed by someone else meanwhile: look at it once more.`);
      const after = quotaAfter(before, deed);
      if (after === null)
        throw invalid([{ path: `of.${i}`, message: `Nothing changes with ${before.name}: leave it out.` }]);
      const set = { endsOn: after.endsOn, pauses: after.pauses };
      await tx.save(CallQuota, id, { ...set, version: version + 1 });
      changes.push({ subject: 'quota', subjectId: id, action: 'changed', fields: fieldChanges(before, set) });
    }
    await tx.tell('calls', 'workspace');
    return { changeId: await tx.recordTogether(changes), count: changes.length };
  });
}

function mustBeAhead(scope: Scope, { on }: QuotaDeed): void {
  const day = dayOfIso(on);
  if (day < scope.now.day) throw invalid([{ path: 'deed.on', message: 'From today on, or from a later day.' }]);
  if (day > scope.now.day + 3 * 366) throw invalid([{ path: 'deed.on', message: 'Within three years.' }]);
}
