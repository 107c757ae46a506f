import type { Asked, AskInput } from '../../contract/index.ts';
import { dayOfIso, isoOfDay, linkWorksUntil } from '../../core/index.ts';
import { invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { writeTask } from '../tasks/index.ts';
import { isForClient, lockedTask, oneWhole } from '../tasks/stored/index.ts';
import { addressees, asksOf, sendAsk } from './asking.ts';
import type { ClientAsk, ClientLink } from './entity.ts';

type AskRow = Pick<ClientAsk, 'id' | 'kind' | 'at'> &
  Pick<ClientLink, 'name' | 'email' | 'endsOn' | 'openedAt' | 'withdrawnAt' | 'madeBy' | 'taskId'> & {
    /** Whether the contact is there still, with the same address. */
    readonly isThere: boolean;
  };

/** Mails that are told of one task. */
const MOST_TOLD = 20;

/** What a client was asked of a task, newest first, and who could be. */
export async function askedOf(scope: Scope, taskId: string): Promise<Asked> {
  const task = await oneWhole(scope, taskId);
  const rows = await scope.sql<AskRow>(
    `select a.id, a.kind, a.at, l.name, l.email, l.ends_on as "endsOn", l.opened_at as "openedAt", l.withdrawn_at as "withdrawnAt",
       l.made_by as "madeBy", l.task_id as "taskId",
       exists (select 1 from contact c where c.workspace_id = l.workspace_id and c.id = l.contact_id
         and lower(c.email) = lower(l.email)) as "isThere"
     from client_ask a join client_link l on l.workspace_id = a.workspace_id and l.id = a.link_id
     where a.workspace_id = $1 and a.task_id = $2 order by a.id desc limit ${MOST_TOLD}`,
    [taskId],
  );
  const people = await scope.peopleNames();
  const due = dayOfIso(task.dueOn);
  return {
    contacts: task.clientId === null ? [] : await addressees(scope, task.clientId),
    asks: rows.map(({ id, kind, at, name, email, endsOn, openedAt, withdrawnAt, madeBy, taskId: only, isThere }) => {
      const worksUntil = isoOfDay(linkWorksUntil(dayOfIso(endsOn), only === null ? null : due, scope.workspace.asking));
      return {
        ...{ id, kind, at: scope.moment(at), to: name, email, worksUntil },
        by: madeBy === null ? null : (people.get(madeBy) ?? null),
        openedAt: scope.moment(openedAt),
        withdrawnAt: scope.moment(withdrawnAt),
        works: withdrawnAt === null && isThere && scope.today <= worksUntil && isForClient(task),
      };
    }),
  };
}

/** Asks a client by mail now; what was nobody's or somebody's is the client's from then on. */
export function askNow(
  scope: Scope,
  taskId: string,
  { contactId, opens, needsCode }: AskInput,
  origin: string,
): Promise<{ asked: Asked; changeId: string | null }> {
  return scope.transaction(async (tx) => {
    const task = await lockedTask(tx, taskId);
    const { clientId } = task;
    if (clientId === null) throw notNow('It is for no client: there is nobody to ask.');
    if (task.state !== 'open' && task.state !== 'underWay')
      throw notNow('What is finished or skipped can’t be asked for. Undo that first, or send it back.');
    if (task.state === 'underWay' && !isForClient(task))
      throw notNow('It is under way here: whoever has it finishes it, or gives it away first.');
    const contact = (await addressees(tx, clientId)).find(({ id }) => id === contactId);
    if (contact === undefined)
      throw invalid([{ path: 'contactId', message: 'This contact is gone, or has no mail address any more.' }]);
    let changeId: string | null = null;
    if (!isForClient(task)) {
      const edited = [...new Set([...task.edited, 'assigneeId', 'offeredTo'])];
      ({ changeId } = await writeTask(tx, task, 'edited', {
        ...{ assigneeId: null, offeredTo: { of: 'client' }, why: null, edited },
        // It is seen by whoever is asked for it.
        appearsOn: task.appearsOn > tx.today ? tx.today : task.appearsOn,
      }));
    } else if (task.appearsOn > tx.today) {
      ({ changeId } = await writeTask(tx, task, 'edited', {
        ...{ appearsOn: tx.today, edited: [...new Set([...task.edited, 'appearsOn'])] },
      }));
    }
    const kind = (await asksOf(tx, [taskId])).has(taskId) ? ('again' as const) : ('asked' as const);
    await sendAsk(tx, { clientId, contact, tasks: [{ task, kind }], opens, needsCode, origin });
    return { asked: await askedOf(tx, taskId), changeId };
  });
}

/** Ends every link that opens a task: those of it alone, and those of all that is open of its client. */
export function withdrawLinks(scope: Scope, taskId: string): Promise<Asked> {
  return scope.transaction(async (tx) => {
    const { clientId } = await lockedTask(tx, taskId);
    const ended = await tx.sql(
      `update client_link l set withdrawn_at = $2 where l.workspace_id = $1 and l.withdrawn_at is null
         and (l.task_id = $4 or (l.task_id is null and l.ends_on >= $3 and exists (
           select 1 from contact c where c.workspace_id = $1 and c.id = l.contact_id and c.client_id = $5))) returning l.id`,
      [tx.instant, tx.today, taskId, clientId],
    );
    if (ended.length === 0) throw notNow('No link opens it any more.');
    await tx.record('task', taskId, 'link withdrawn', {});
    await tx.tell('tasks');
    return askedOf(tx, taskId);
  });
}
