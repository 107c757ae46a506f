import { MOST_VIEWS_EACH, type TaskSums, type TaskView, type TaskViewInput, VIEWS_TOLD } from '../../contract/index.ts';
import { changedMeanwhile, forbidden, invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { KeptView } from './entity.ts';
import { isLate, questionOf } from './fitting.ts';

/** One's own by name, then those that others share. */
export async function listViews(scope: Scope): Promise<TaskView[]> {
  const me = personOf(scope);
  const found = await scope.find(KeptView, { personId: me }, { isShared: true });
  const names = await scope.peopleNames();
  const isOthers = (view: KeptView) => Number(view.personId !== me);
  const inOrder = found
    .sort((a, b) => isOthers(a) - isOthers(b) || a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1))
    .slice(0, VIEWS_TOLD);
  const told: TaskView[] = [];
  for (const { id, version, personId, name, filter, by, order, columns, isShared } of inOrder) {
    const sharedBy = personId === me ? null : (names.get(personId) ?? '');
    told.push({ id, version, name, filter, by, order, columns, isShared, sharedBy, ...(await countOf(scope, filter)) });
  }
  return told;
}

async function countOf(scope: Scope, filter: KeptView['filter']): Promise<Pick<TaskSums, 'count' | 'late'>> {
  const asked = await questionOf(scope, filter);
  const late = isLate(scope, asked);
  const [counts] = await scope.sql<Pick<TaskSums, 'count' | 'late'>>(
    `select count(*)::int as count, (count(*) filter (where ${late}))::int as late from task t where ${asked.where}`,
    asked.params,
  );
  if (!counts) throw new Error('A count has no row.');
  return counts;
}

export function keepView(scope: Scope, input: TaskViewInput): Promise<{ id: string }> {
  return scope.transaction(async (tx) => {
    const personId = personOf(tx);
    const own = await tx.find(KeptView, { personId });
    if (own.length >= MOST_VIEWS_EACH) throw notNow(`${MOST_VIEWS_EACH} views at the most: drop one first.`);
    refuseTwice(own, input);
    const view = await tx.insert(KeptView, { id: tx.newId(), version: 1, personId, ...input, keptAt: tx.instant });
    await tx.tell('people');
    return { id: view.id };
  });
}

export function changeView(
  scope: Scope,
  id: string,
  { version, ...input }: TaskViewInput & { readonly version: number },
): Promise<{ id: string }> {
  return scope.transaction(async (tx) => {
    const before = await ownView(tx, id);
    if (before.version !== version) throw changedMeanwhile('You have changed this view elsewhere since you saw it.');
    refuseTwice(
      (await tx.find(KeptView, { personId: before.personId })).filter((other) => other.id !== id),
      input,
    );
    await tx.save(KeptView, id, { ...input, version: version + 1 });
    await tx.tell('people');
    return { id };
  });
}

export function dropView(scope: Scope, id: string): Promise<{ id: string }> {
  return scope.transaction(async (tx) => {
    await ownView(tx, id);
    await tx.sql('delete from task_view where workspace_id = $1 and id = $2', [id]);
    await tx.tell('people');
    return { id };
  });
}

/** A view that is shared is changed by whoever keeps it. */
async function ownView(scope: Scope, id: string): Promise<KeptView> {
  const view = await scope.locked(KeptView, id, 'view');
  if (view.personId !== personOf(scope))
    throw forbidden('Only whoever keeps a view can change it: keep one of your own.');
  return view;
}

function refuseTwice(own: readonly KeptView[], { name }: TaskViewInput): void {
  const isThere = own.some((view) => view.name.toLowerCase() === name.toLowerCase());
  if (isThere) throw invalid([{ path: 'name', message: 'You have a view of that name already.' }]);
}

function personOf({ person }: Scope): string {
  if (person === null) throw new Error('Nobody is signed in.');
  return person.id;
}
