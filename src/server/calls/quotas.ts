import type { CallQuota as QuotaAnswer, QuotaInput } from '../../contract/index.ts';
import { MOST_QUOTAS } from '../../contract/index.ts';
import { conditionProblem, dayOfIso, isoOfDay, quotaWith, termsOn } from '../../core/index.ts';
import type { Change } from '../platform/changes/entity.ts';
import { fieldsBefore } from '../platform/changes/entity.ts';
import { changedMeanwhile, invalid } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { type Ringing, ringing, workersOf } from '../ringing/index.ts';
import { CallQuota } from './stored/index.ts';

const asTold = (here: Ringing, today: number, quota: CallQuota): QuotaAnswer => {
  const { id, version, name, startsOn, endsOn, pauses, terms } = quota;
  const says = termsOn(quota, today) ?? terms.at(-1)?.says;
  return {
    ...{ id, version, name, startsOn, endsOn },
    pauses: pauses.map((pause) => ({ ...pause })),
    terms: terms.map(({ from, says: one }) => ({ from, says: one })),
    people: (says ? workersOf(here, says) : []).map((worker) => ({
      id: worker.id,
      name: here.names.get(worker.id) ?? '',
    })),
  };
};

export async function listQuotas(scope: Scope): Promise<{ quotas: QuotaAnswer[] }> {
  const [quotas, here] = [await scope.find(CallQuota), await ringing(scope)];
  return {
    quotas: quotas
      .sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1))
      .map((quota) => asTold(here, scope.now.day, quota)),
  };
}

type Saved = Promise<{ quota: QuotaAnswer; changeId: string }>;

export function createQuota(scope: Scope, { name, from, endsOn, pauses, says }: QuotaInput): Saved {
  return scope.transaction(async (tx) => {
    await tx.lockedWorkspace();
    const there = await tx.find(CallQuota);
    if (there.length >= MOST_QUOTAS)
      throw invalid([{ path: 'name', message: `${MOST_QUOTAS} quotas at most: end one of them and use it again.` }]);
    const here = await ringing(tx);
    mustFit(tx, here, { name, from, endsOn, says }, there);
    const quota = await tx.insert(CallQuota, {
      ...{ id: tx.newId(), version: 1, name, madeOn: null },
      ...quotaWith(null, { from, endsOn, pauses, says }, tx.now.day),
    });
    const changeId = await tx.record('quota', quota.id, 'created', {});
    await tx.tell('calls', 'workspace');
    return { quota: asTold(here, tx.now.day, quota), changeId };
  });
}

export function changeQuota(
  scope: Scope,
  id: string,
  { version, name, from, endsOn, pauses, says }: QuotaInput & { readonly version: number },
): Saved {
  return scope.transaction(async (tx) => {
    await tx.lockedWorkspace();
    const before = await tx.locked(CallQuota, id, 'quota');
    if (before.version !== version)
      throw changedMeanwhile('The quota was changed by someone else meanwhile: look at it once more.');
    const here = await ringing(tx);
    const others = (await tx.find(CallQuota)).filter((other) => other.id !== id);
    mustFit(tx, here, { name, from, endsOn, says }, others);
    const { startsOn, terms } = quotaWith(before, { from, endsOn, pauses, says }, tx.now.day);
    const set = { name, startsOn, endsOn, pauses, terms };
    await tx.save(CallQuota, id, { ...set, version: version + 1 });
    const changeId = await tx.record('quota', id, 'changed', fieldChanges(before, set));
    await tx.tell('calls', 'workspace');
    return { quota: asTold(here, tx.now.day, { ...before, ...set, version: version + 1 }), changeId };
  });
}

/** @throws Refusal that says of each part what is wrong with it */
export function mustFit(
  scope: Scope,
  here: Ringing,
  { name, from, endsOn, says }: Pick<QuotaInput, 'from' | 'endsOn' | 'says'> & { readonly name?: string },
  others: readonly Pick<CallQuota, 'name'>[],
): void {
  const day = dayOfIso(from);
  const { amount, group, pool } = says;
  const problems = [
    ...(name !== undefined && others.some((other) => other.name.toLowerCase() === name.toLowerCase())
      ? [{ path: 'name', message: `There is a quota “${name}” already.` }]
      : []),
    ...(day < scope.now.day ? [{ path: 'from', message: 'From today on, or from a later day.' }] : []),
    ...(day > scope.now.day + 3 * 366 ? [{ path: 'from', message: 'Within three years.' }] : []),
    ...(endsOn !== null && endsOn < from ? [{ path: 'endsOn', message: 'It would end before it begins.' }] : []),
    ...(group.of === 'role' && !scope.workspace.roles.includes(group.role)
      ? [{ path: 'says.group', message: `“${group.role}” is no role here.` }]
      : []),
    ...(group.of === 'people' && group.ids.some((id) => !here.people.workers.has(id))
      ? [{ path: 'says.group', message: 'Somebody of them is not here.' }]
      : []),
    ...(amount.per !== 'day' &&
    amount.mostADay !== null &&
    amount.mostADay * (amount.per === 'week' ? 7 : 31) < amount.count
      ? [{ path: 'says.amount.mostADay', message: `So ${amount.count} never fit into a ${amount.per}.` }]
      : []),
    ...pool.conditions.flatMap((condition, i) => {
      const message = conditionProblem(condition, scope.workspace.clientFields);
      return message === null ? [] : [{ path: `says.pool.conditions.${i}`, message }];
    }),
  ];
  if (problems.length > 0) throw invalid(problems);
}

/** Puts back what a change of a quota found. @returns what is said of it */
export async function undoQuota(scope: Scope, { subjectId, action, fields }: Change): Promise<string> {
  const quota = await scope.locked(CallQuota, subjectId, 'quota');
  // Lists may have been made by it: it ends before it has begun rather than being gone.
  const before = action === 'created' ? { endsOn: dayBefore(quota.startsOn) } : fieldsBefore(quota, fields);
  await scope.save(CallQuota, subjectId, { ...before, version: quota.version + 1 });
  await scope.record('quota', subjectId, 'undone', fieldChanges(quota, before));
  await scope.tell('calls', 'workspace');
  return action === 'created' ? `${quota.name} makes no lists any more.` : `${quota.name} is as it was before.`;
}

const dayBefore = (date: string): string => isoOfDay(dayOfIso(date) - 1);
